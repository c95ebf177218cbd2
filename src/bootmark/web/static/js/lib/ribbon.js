// A ribbon: any day by click or by key; on a narrow screen today stands a third in, and the names of the lanes stay in view.
import { fill, say } from "./say.js";

const LEFT = 64;
const WIDTH = 860;
const DAY_MS = 86400000;
const STEPS = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 7, PageDown: -7 };
const narrow = matchMedia("(max-width: 700px)");
const language = document.documentElement.lang;
const order = document.documentElement.dataset.days;
const english = order === "month-first" ? "en-US" : "en-GB";
const dayName = new Intl.DateTimeFormat(language === "en" ? english : language, { day: "numeric", month: "long", timeZone: "UTC" });
// Parts of this site's own pages, where the browser asks for a name before text becomes elements.
const own = window.trustedTypes ? trustedTypes.createPolicy("own-pages", { createHTML: (text) => text }) : { createHTML: (text) => text };

export const ownHTML = (text) => own.createHTML(text);

function daysOf(ribbon) {
  if (!ribbon.days) ribbon.days = JSON.parse(ribbon.querySelector("script").textContent);
  return ribbon.days;
}

// A day's name and what is told of it. days: what the ribbon holds; index: the day's place on its axis.
export function words(days, index) {
  const place = index - days.offset;
  if (!days.first) return ["", say("day_not_told")];
  const noon = Date.parse(days.first + "T12:00:00Z") + place * DAY_MS;
  const name = order === "figures" ? new Date(noon).toISOString().slice(5, 10) : dayName.format(noon);
  if (place < 0 || place >= days.kinds.length) return [name, say(place < 0 ? "before_biofix" : "after_reckoned")];
  const shares = Object.entries(days.stages).map(([stage, row]) => [row[place], days.words[stage]]).filter(([share]) => share >= 1);
  shares.sort((first, second) => second[0] - first[0]);
  const about = shares.map(([share, stage]) => fill("{share} % {stage}", { share, stage })).join(", ") || say("nobody_about");
  const [low, middle, high] = days.heat.map((row) => row[place]);
  const source = say("day_" + days.kinds[place]);
  return [name, say(high - low > 4 ? "day_told_between" : "day_told", { about, low, middle, high, unit: days.unit, source })];
}

export function show(ribbon, index) {
  const days = daysOf(ribbon);
  const shown = Math.min(Math.max(index, 0), days.axis);
  const [name, what] = words(days, shown);
  ribbon.setAttribute("aria-valuenow", shown);
  ribbon.setAttribute("aria-valuetext", name + ": " + what);
  const cursor = ribbon.querySelector("[data-cursor]");
  cursor.setAttribute("visibility", "visible");
  const x = LEFT + (WIDTH * shown) / days.axis;
  cursor.setAttribute("transform", "translate(" + x + " 0)");
  const at = (x / cursor.ownerSVGElement.viewBox.baseVal.width) * ribbon.scrollWidth - ribbon.scrollLeft;
  if (at < LEFT || at > ribbon.clientWidth) ribbon.scrollLeft += at - ribbon.clientWidth / 2;
  const line = ribbon.nextElementSibling;
  line.querySelector("[data-day]").textContent = name;
  line.querySelector("[data-what]").textContent = what;
}

export function keepNames(ribbon) {
  const names = ribbon.querySelector("[data-names]");
  const width = names.ownerSVGElement.viewBox.baseVal.width;
  names.setAttribute("transform", "translate(" + (ribbon.scrollLeft / ribbon.scrollWidth) * width + " 0)");
}

// Ribbons that have just come.
export function settle(root) {
  if (!narrow.matches) return;
  for (const ribbon of root.querySelectorAll("[data-ribbon]:not([data-settled])")) {
    ribbon.dataset.settled = "";
    const svg = ribbon.querySelector("svg");
    const today = LEFT + (WIDTH * Number(ribbon.getAttribute("aria-valuenow"))) / Number(ribbon.getAttribute("aria-valuemax"));
    ribbon.scrollLeft = (today / svg.viewBox.baseVal.width) * ribbon.scrollWidth - ribbon.clientWidth / 3;
  }
}

// What is told of a ribbon's days has changed.
export function anew(ribbon, days) {
  ribbon.days = days;
  keepNames(ribbon);
  show(ribbon, Number(ribbon.getAttribute("aria-valuenow")));
}

document.addEventListener("click", (event) => {
  const ribbon = event.target.closest("[data-ribbon]");
  if (!ribbon) return;
  const svg = ribbon.querySelector("svg");
  const box = svg.getBoundingClientRect();
  const x = ((event.clientX - box.left) / box.width) * svg.viewBox.baseVal.width;
  show(ribbon, Math.round(((x - LEFT) / WIDTH) * daysOf(ribbon).axis));
});
document.addEventListener("keydown", (event) => {
  const ribbon = event.target.closest("[data-ribbon]");
  if (!ribbon) return;
  const at = Number(ribbon.getAttribute("aria-valuenow"));
  const ends = { Home: 0, End: daysOf(ribbon).axis };
  if (event.key in STEPS) show(ribbon, at + STEPS[event.key]);
  else if (event.key in ends) show(ribbon, ends[event.key]);
  else return;
  event.preventDefault();
});
document.addEventListener("scroll", (event) => event.target.matches?.("[data-ribbon]") && keepNames(event.target), { capture: true, passive: true });
settle(document);
