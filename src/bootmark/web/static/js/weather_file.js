// How far the worker is with a weather file; the page is shown anew when it is done.
import { untilDone } from "./lib/ask.js";

const bar = document.querySelector("[data-progress]");
if (bar) {
  untilDone(bar.dataset.progress, 700, (state) => {
    bar.value = state.progress;
    return !state.working;
  });
}
