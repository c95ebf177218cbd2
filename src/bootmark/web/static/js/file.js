// How far the worker is with a weather file; the page is shown anew when it is done.
(() => {
  const bar = document.querySelector("[data-progress]");
  if (!bar) return;
  const look = async () => {
    try {
      const told = await (await fetch(bar.dataset.progress)).json();
      if (!told.working) return location.reload();
      bar.value = told.progress;
    } catch (error) {
      // No signal, or the server starts again: asked anew.
    }
    setTimeout(look, 700);
  };
  setTimeout(look, 400);
})();
