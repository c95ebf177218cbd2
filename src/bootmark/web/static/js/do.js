// A job that is done where there is no signal is "done, not signed": kept with its details, and signed on return.
import * as outbox from "./lib/outbox.js";
import { meta } from "./lib/page.js";
import { say } from "./lib/say.js";

const HOURS = ["aired_hours", "label_hours", "hand_hours", "early_minutes"];

(() => {
  const form = document.querySelector("form[data-signs]");
  if (!form) return;
  const number = (text) => {
    const value = Number(text.trim().replace(",", "."));
    return text.trim() && Number.isFinite(value) ? value : text;
  };
  // The command holds hectares, whatever the field is written in.
  const stored = (area) => (typeof area === "number" ? area / Number(form.dataset.areaTimes) : area);
  const offset = meta("farm-now").match(/([+-]\d\d:\d\d|Z)$/)[0];

  function command() {
    const entry = new FormData(form);
    const moment = (name) => `${entry.get(name)}:00${offset}`;
    return {
      kind: form.dataset.signs,
      v: Number(form.dataset.v),
      title: say("not_signed", { job: form.dataset.title }),
      record_id: entry.get("record_id"),
      base: entry.get("base") || null,
      payload: {
        treatment_id: form.dataset.treatment,
        started_at: moment("started_at"),
        finished_at: moment("finished_at"),
        amount: number(entry.get("amount")),
        amount_unit: entry.get("amount_unit"),
        area: stored(number(entry.get("area"))),
        note: entry.get("note"),
        ...Object.fromEntries(HOURS.map((name) => [name, entry.get(name) ? number(entry.get(name)) : null])),
        until_dry: Boolean(entry.get("until_dry")),
        early_wear: entry.get("early_wear") || "",
        checks: entry.getAll("checks"),
      },
    };
  }

  async function signal() {
    try {
      return (await fetch("/livez", { signal: AbortSignal.timeout(4000), cache: "no-store" })).ok;
    } catch (error) {
      return false;
    }
  }

  let asked = false;
  form.addEventListener("submit", async (event) => {
    if (asked) return;
    event.preventDefault();
    const line = form.querySelector("[data-told]");
    if (await signal()) {
      asked = true;
      form.requestSubmit(event.submitter);
      return;
    }
    try {
      await outbox.add(command());
      line.textContent = say("not_signed_kept");
      for (const field of form.elements) field.disabled = true;
    } catch (error) {
      line.textContent = outbox.notKept();
    }
  });
})();
