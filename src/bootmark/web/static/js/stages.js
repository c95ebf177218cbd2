// Stages: more ribbons as one scrolls, filters at once, the progress of a reckoning.
import { untilDone } from "./lib/ask.js";
import "./lib/filters.js";
import { ownHTML, settle } from "./lib/ribbon.js";
import { say } from "./lib/say.js";

const list = document.querySelector("[data-ribbons]");
const near = list && "IntersectionObserver" in window ? new IntersectionObserver(load, { rootMargin: "600px" }) : null;

async function load(entries) {
  for (const { isIntersecting, target } of entries) {
    if (!isIntersecting || target.loading) continue;
    target.loading = true;
    near.unobserve(target);
    try {
      const answer = await fetch(target.querySelector("a").href, { headers: { Accept: "text/html" } });
      if (!answer.ok) throw new Error(answer.status);
      const more = document.createElement("template");
      more.innerHTML = ownHTML(await answer.text());
      target.replaceWith(more.content);
      settle(list);
      watch();
    } catch (error) {
      target.loading = false;
      target.querySelector("a").textContent = say("no_more_came");
    }
  }
}

function watch() {
  for (const more of list.querySelectorAll("[data-more]")) near.observe(more);
}

if (near) {
  watch();
  list.addEventListener("click", (event) => {
    const more = event.target.closest("[data-more]");
    if (!more) return;
    event.preventDefault();
    load([{ isIntersecting: true, target: more }]);
  });
}

const progress = document.querySelector("[data-progress]");
if (progress) {
  untilDone(progress.dataset.progress, 1500, (state) => {
    progress.querySelector("[data-done]").textContent = state.done;
    return state.finished;
  });
}
