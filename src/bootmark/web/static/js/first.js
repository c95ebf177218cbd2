// Before anything is painted: the sun mode that this device was left in; and until then, nothing below the fold is laid out.
(() => {
  const root = document.documentElement;
  try {
    if (localStorage.getItem("sun") === "1") root.classList.add("sun");
  } catch (error) {
    /* A browser that keeps nothing starts in paper mode. */
  }
  const painted = () => {
    if (!root.classList.contains("unpainted")) return;
    root.classList.remove("unpainted");
    dispatchEvent(new Event("painted"));
  };
  try {
    new PerformanceObserver(painted).observe({ type: "paint", buffered: true });
    root.classList.add("unpainted");
    // A tab opened behind another is not painted.
    setTimeout(painted, 1000);
  } catch (error) {
    /* A browser that does not tell lays out all at once. */
  }
})();
