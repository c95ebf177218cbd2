// Loads a script once the page has been painted: what no part in view needs must not hold it up.
(() => {
  const named = document.currentScript.dataset.late;
  const ours = (address) => {
    if (!address.startsWith("/static/js/")) throw new TypeError(`${address} is no script of this site`);
    return address;
  };
  const source = window.trustedTypes ? trustedTypes.createPolicy("own-scripts", { createScriptURL: ours }).createScriptURL(named) : ours(named);
  const load = () => {
    const script = document.createElement("script");
    script.src = source;
    document.head.append(script);
  };
  if (document.documentElement.classList.contains("unpainted")) addEventListener("painted", load, { once: true });
  else load();
})();
