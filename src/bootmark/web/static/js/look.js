// The bench of Look and Enquiry: three-state taps, re-ranking at each tap, and the record that goes to the outbox.
import * as ask from "./lib/ask.js";
import * as outbox from "./lib/outbox.js";
import { given } from "./lib/page.js";
import { say } from "./lib/say.js";

document.addEventListener("alpine:init", () => {
  const data = given("bench");
  const NEXT = { "": "seen", seen: "absent", absent: "unsure", unsure: "" };
  const newest = ask.newest();
  const lower = (text) => text.charAt(0).toLowerCase() + text.slice(1);

  Alpine.data("lookBench", () => ({
    signs: { ...data.signs },
    note: data.note,
    part: "",
    all: false,
    plant: false,
    left: JSON.parse(localStorage.getItem("left-behind") || "[]"),
    ranked: data.ranked,
    past: [],
    seq: 0,
    asked: 0,
    asking: false,
    shown: 0,
    base: data.base,
    kept: false,
    stored: false,
    failed: "",
    soundness: false,
    silent: false,
    ended: false,
    may: data.may,
    soundable: data.kind === "look.record",
    plants: "10",

    async init() {
      addEventListener("outbox:stored", (event) => {
        if (event.detail.record_id !== data.record) return;
        this.stored = true;
        if (this.kept) outbox.dropDraft(data.draft);
      });
      const draft = await outbox.readDraft(data.draft);
      if (draft) {
        this.signs = draft.signs;
        this.note = draft.note;
      }
      if (draft || (data.tools.length && this.left.length)) this.rank();
    },
    carries(tool) {
      return !this.left.includes(tool);
    },
    carry(tool) {
      this.left = this.carries(tool) ? [...this.left, tool] : this.left.filter((other) => other !== tool);
      localStorage.setItem("left-behind", JSON.stringify(this.left));
      this.rank();
    },
    get empty() {
      return Object.keys(this.signs).length === 0;
    },
    get look() {
      return this.ranked.looks[0] || null;
    },
    get answersInWords() {
      const parts = ["seen", "absent", "unsure"].map((state) => {
        const names = Object.keys(this.signs).filter((sign) => this.signs[sign] === state).map((sign) => data.names[sign] || sign);
        const list = names.map((name, place) => (place || state !== "seen" ? lower(name) : name)).join(", ");
        return list && say("told_" + state, { signs: list });
      });
      return parts.filter(Boolean).join(" ") || say("told_nothing");
    },
    get listTitle() {
      return say(this.empty ? "usual" : "suspects");
    },
    get moreText() {
      return say("show_more", { count: this.hidden });
    },
    get barTitle() {
      return this.failed ? say("not_kept_short") : this.ranked.verdict.title;
    },
    get keptTitle() {
      return say(this.stored ? "stored" : "kept");
    },
    get keptText() {
      if (!this.stored) return say("to_send");
      if (this.soundness) return say("sound");
      return this.soundable ? this.ranked.verdict.kept : say("answer_ready");
    },
    get next() {
      return this.soundness ? "round" : this.ranked.verdict.onward;
    },
    get onward() {
      return data.onward[this.next];
    },
    get onwardText() {
      return say("onward_" + this.next);
    },
    state(sign) {
      return this.signs[sign] || "";
    },
    word(sign) {
      return this.signs[sign] ? say(this.signs[sign]) : "";
    },
    shows(sign) {
      if (this.signs[sign]) return true;
      return (this.all ? data.on : data.first)[this.part].includes(sign);
    },
    get hidden() {
      return this.all ? 0 : data.on[this.part].length - data.first[this.part].length;
    },
    get finding() {
      return this.soundable && this.stored && !this.soundness ? data.finding : "";
    },
    guide(agent) {
      return data.guide.replace(/-$/, agent);
    },
    pointing() {
      this.plant = !this.plant;
    },
    choose(part) {
      this.part = part;
      this.plant = false;
      this.all = false;
    },
    showAll() {
      this.all = true;
    },
    none() {
      if (!this.may) return;
      const absent = Object.fromEntries(this.look.signs.map((sign) => [sign.id, "absent"]));
      this.past.push({ ...this.signs });
      this.change({ ...this.signs, ...absent });
    },
    set(sign, state) {
      this.past.push({ ...this.signs });
      const next = { ...this.signs };
      if (state) next[sign] = state;
      else delete next[sign];
      this.change(next);
    },
    change(signs) {
      this.signs = signs;
      this.kept = false;
      this.keepDraft();
      this.rank();
    },
    tap(sign) {
      if (this.may) this.set(sign, NEXT[this.state(sign)]);
    },
    answer(sign, state) {
      if (this.may) this.set(sign, state);
    },
    undo() {
      if (this.past.length) this.change(this.past.pop());
    },
    keepDraft() {
      outbox.keepDraft(data.draft, { signs: { ...this.signs }, note: this.note });
    },
    // One question at a time: taps that come meanwhile are asked about together, so that the record never waits behind them.
    async rank() {
      this.seq++;
      if (this.asking) return;
      this.asking = true;
      while (this.asked < this.seq) {
        this.asked = this.seq;
        await this.ask(this.seq);
      }
      this.asking = false;
    },
    async ask(seq) {
      const tools = data.tools.length ? data.tools.filter((tool) => !this.left.includes(tool)) : null;
      const body = { seq, signs: this.signs, tools };
      try {
        await newest(
          () => ask.post(data.rank, body),
          (ranked) => {
            this.shown = ranked.seq;
            this.ranked = ranked;
            this.silent = this.ended = false;
          },
        );
      } catch (error) {
        this.ended = ask.signedOut(error);
        this.silent = !this.ended;
      }
    },
    async keep() {
      this.stored = false;
      this.failed = "";
      const payload = { ...data.payload, signs: { ...this.signs }, ...(this.soundable ? { note: this.note } : {}), ...(this.soundness ? { plants: Number(this.plants) } : {}) };
      try {
        this.base = await outbox.add({ kind: data.kind, v: data.v, title: data.title, record_id: data.record, base: this.base, payload });
        this.kept = true;
      } catch (error) {
        this.failed = outbox.notKept();
      }
      const answer = document.querySelector(this.failed ? ".next > .note" : ".next .dark");
      // On a phone the answer stands above what was tapped. What tells of a failure is only drawn after this.
      setTimeout(() => answer.scrollIntoView({ block: "center" }), this.failed ? 50 : 0);
    },
    sound() {
      this.soundness = true;
      this.keep();
    },
    more() {
      this.kept = false;
      this.soundness = false;
    },
  }));
});
