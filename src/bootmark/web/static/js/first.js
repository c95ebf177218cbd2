// Before anything is painted: the sun mode that this device was left in; and until then, nothing below the fold is laid out.
(() => {
  const root = document.documentElement;
  try {
    // What was pressed on this device comes before what its person likes everywhere.
    const sun = localStorage.getItem("sun");
    if (sun) root.classList.toggle("sun", sun === "1");
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
