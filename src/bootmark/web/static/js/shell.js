// The shell of every page: sun mode, the state of the outbox.
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
    get text() {
      if (this.problem) return this.problem;
      return this.waiting === 1 ? "1 record waits to be sent" : this.waiting + " records wait to be sent";
    },
    init() {
      Outbox.watch((state) => {
        this.waiting = state.waiting;
        this.problem = state.problem;
      });
    },
  }));
  Alpine.data("outboxList", () => ({
    refused: [],
    init() {
      Outbox.watch((state) => (this.refused = state.refused));
    },
    discard(id) {
      Outbox.discard(id);
    },
    retry(id) {
      Outbox.retry(id);
    },
  }));
});
