// Season: what if it were warmer, or the biofix earlier. Late answers are dropped.
import * as ask from "./lib/ask.js";
import "./lib/filters.js";
import { anew, ownHTML } from "./lib/ribbon.js";
import { say } from "./lib/say.js";

const strip = document.querySelector("[data-whatif]");
if (strip) {
  const warmer = strip.querySelector("[name=warmer]");
  const later = strip.querySelector("[name=later]");
  const figure = document.querySelector("[data-whatif-figure]");
  const answerBox = document.querySelector("[data-whatif-answer]");
  const newest = ask.newest();

  function tell() {
    const degrees = Number(warmer.value);
    const shown = Number((Math.abs(degrees) * Number(warmer.dataset.times)).toFixed(1));
    const days = Number(later.value);
    const sign = (value) => (value > 0 ? "more" : value < 0 ? "less" : "same");
    strip.querySelector("[data-warmer]").textContent = say("warmer_" + sign(degrees), { degrees: shown + " " + warmer.dataset.unit });
    strip.querySelector("[data-later]").textContent = say("later_" + sign(days), { count: Math.abs(days) });
  }

  function draw(state) {
    answerBox.textContent = state.text;
    if (!state.svg) return;
    figure.querySelector("svg").outerHTML = ownHTML(state.svg);
    anew(figure, state.days);
  }

  async function question() {
    tell();
    const address = strip.dataset.whatif + "?warmer=" + warmer.value + "&later=" + later.value;
    try {
      await newest(() => ask.read(address), draw);
    } catch (error) {
      answerBox.textContent = ask.signedOut(error) ? say("session_ended") : say("whatif_silent");
    }
  }

  strip.addEventListener("input", question);
  strip.querySelector("[data-back]").addEventListener("click", () => {
    warmer.value = later.value = 0;
    question();
  });
}
