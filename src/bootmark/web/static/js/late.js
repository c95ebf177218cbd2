// Loads a script once the page has been painted: what only lives below or beside the work must not hold it up.
(() => {
  const source = document.currentScript.dataset.late;
  let asked = false;
  const load = () => {
    if (asked) return;
    asked = true;
    const script = document.createElement("script");
    script.src = source;
    document.head.append(script);
  };
  // A tab opened behind another is not painted: it loads its script all the same.
  setTimeout(load, 1000);
  try {
    new PerformanceObserver(load).observe({ type: "paint", buffered: true });
  } catch (error) {
    load();
  }
})();
