// The shell of every page: sun mode, the state of the outbox.
import * as outbox from "./lib/outbox.js";
import { now } from "./lib/page.js";
import { say } from "./lib/say.js";

document.addEventListener("click", (event) => {
  const button = event.target.closest("[data-sun]");
  if (!button) return;
  const on = document.documentElement.classList.toggle("sun");
  localStorage.setItem("sun", on ? "1" : "0");
  button.setAttribute("aria-pressed", on);
});
for (const button of document.querySelectorAll("[data-print]")) button.addEventListener("click", () => print());
for (const button of document.querySelectorAll("[data-sun]")) {
  button.setAttribute("aria-pressed", document.documentElement.classList.contains("sun"));
}
// What a page without TLS has to do without is told where it is so; this machine itself counts as safe.
for (const note of document.querySelectorAll("[data-plain]")) note.hidden = isSecureContext;
// Signing out: what waits here is told of first; whoever is the last leaves nothing on the device.
for (const form of document.querySelectorAll("form[data-leaves]")) {
  let pressed = false;
  form.addEventListener("submit", async (event) => {
    if (form.dataset.left) return;
    event.preventDefault();
    const waiting = await outbox.waiting().catch(() => 0);
    if (waiting && !pressed) {
      pressed = true;
      form.querySelector("[data-told]").textContent = say("leaves_behind", { count: waiting });
      return;
    }
    if (!waiting) await outbox.leave().catch(() => {});
    form.dataset.left = "1";
    form.requestSubmit(event.submitter);
  });
}
// One press is enough: a second would only be answered with the first one's result.
document.addEventListener("submit", (event) => {
  const button = event.submitter;
  if (button && !event.defaultPrevented) setTimeout(() => (button.disabled = true), 0);
});
addEventListener("pageshow", () => {
  for (const button of document.querySelectorAll("button[disabled]")) button.disabled = false;
});

document.addEventListener("alpine:init", () => {
  Alpine.data("outbox", () => ({
    waiting: 0,
    problem: "",
    oldest: "",
    get text() {
      if (this.problem) return this.problem;
      return say(this.old ? "waits_since" : "waits", { count: this.waiting, since: this.old });
    },
    // Told only once it is more than a passing lack of signal.
    get old() {
      if (!this.oldest || Date.parse(now()) - Date.parse(this.oldest) < 3600000) return "";
      return new Date(this.oldest).toLocaleString(document.documentElement.lang === "en" ? "en-GB" : document.documentElement.lang, { weekday: "short", hour: "2-digit", minute: "2-digit" });
    },
    init() {
      outbox.watch((state) => {
        this.waiting = state.waiting;
        this.oldest = state.oldest;
        this.problem = state.problem;
      });
    },
  }));
  Alpine.data("outboxSign", () => ({
    unsigned: [],
    password: "",
    wrong: "",
    init() {
      outbox.watch((state) => (this.unsigned = state.unsigned));
    },
    async sign() {
      this.wrong = await outbox.sayAgain(this.password);
      this.password = "";
    },
  }));
  Alpine.data("outboxList", () => ({
    refused: [],
    init() {
      outbox.watch((state) => (this.refused = state.refused));
    },
    async save(id) {
      const link = document.createElement("a");
      link.href = URL.createObjectURL(await outbox.exported(id));
      link.download = `bootmark-${id}`;
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 1000);
    },
    discard(id) {
      outbox.discard(id);
    },
    retry(id) {
      outbox.retry(id);
    },
  }));
});
