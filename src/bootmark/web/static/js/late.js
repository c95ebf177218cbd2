// Loads a script once the page has been painted: what no part in view needs must not hold it up.
(() => {
  const source = document.currentScript.dataset.late;
  const load = () => {
    const script = document.createElement("script");
    script.src = source;
    document.head.append(script);
  };
  if (document.documentElement.classList.contains("unpainted")) addEventListener("painted", load, { once: true });
  else load();
})();
