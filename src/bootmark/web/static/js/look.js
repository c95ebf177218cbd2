// The bench of Look and Enquiry: three-state taps, re-ranking at each tap, and the record that goes to the outbox.
document.addEventListener("alpine:init", () => {
  const data = JSON.parse(document.getElementById("bench").textContent);
  const NEXT = { "": "seen", seen: "absent", absent: "unsure", unsure: "" };
  const WORDS = { seen: "seen", absent: "not there", unsure: "unsure" };
  const newest = Ask.newest();
  const meta = (name) => document.querySelector(`meta[name="${name}"]`).content;
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
    may: data.may,
    soundable: data.kind === "look.record",

    async init() {
      addEventListener("outbox:stored", (event) => {
        if (event.detail.record_id !== data.record) return;
        this.stored = true;
        if (this.kept) Outbox.dropDraft(data.draft);
      });
      const draft = await Outbox.readDraft(data.draft);
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
      this.left = this.carries(tool) ? [...this.left, tool] : this.left.filter((one) => one !== tool);
      localStorage.setItem("left-behind", JSON.stringify(this.left));
      this.rank();
    },
    get empty() {
      return Object.keys(this.signs).length === 0;
    },
    get look() {
      return this.ranked.looks[0] || null;
    },
    get told() {
      const say = (state) => Object.keys(this.signs).filter((sign) => this.signs[sign] === state).map((sign, place) => (place ? lower(data.names[sign] || sign) : data.names[sign] || sign));
      const parts = [];
      if (say("seen").length) parts.push(say("seen").join(", ") + ".");
      if (say("absent").length) parts.push("Not there: " + say("absent").map(lower).join(", ") + ".");
      if (say("unsure").length) parts.push("Unsure: " + say("unsure").map(lower).join(", ") + ".");
      return parts.join(" ") || "Nothing yet.";
    },
    get barTitle() {
      return this.failed ? "Not kept on this device." : this.verdictTitle;
    },
    get verdictTitle() {
      const verdict = this.ranked.verdict;
      const names = verdict.names.join(" and ");
      const titles = {
        named: "It is " + names + ".",
        "help has come": "Help has come: " + names + ".",
        "normal for the season": "Normal for the season: " + names + ".",
        "must be reported": "It must be reported: " + names + ".",
        "not a pest": "Not a pest: " + names + ".",
        "needs a look": "It needs a look before it has a name.",
        "cannot tell": "Bootmark cannot tell.",
      };
      return titles[verdict.kind] || verdict.kind;
    },
    get verdictText() {
      const verdict = this.ranked.verdict;
      if (verdict.kind === "needs a look") return "Nothing is named, and nothing treated, on a symptom alone.";
      return verdict.advice;
    },
    get keptTitle() {
      return this.stored ? "Kept" : "Kept on this device";
    },
    get keptText() {
      if (!this.stored) return "It is sent as soon as there is a signal.";
      if (this.soundness) return "This stop is sound. Go on with the round.";
      if (!this.soundable) return "The answer is ready to send.";
      if (this.ranked.verdict.kind === "needs a look") return "It stays on the round until somebody takes the look that decides.";
      return "Next in the line:";
    },
    get onward() {
      const kind = this.ranked.verdict.kind;
      if (!this.soundable) return data.onward;
      if (this.soundness || kind === "needs a look" || kind === "cannot tell") return `/f/${meta("farm")}/round`;
      return kind === "named" ? data.count : data.call;
    },
    get onwardText() {
      if (!this.soundable) return "Read the answer";
      if (this.onward === data.count) return "Count them";
      return this.onward === data.call ? "Make the call" : "Back to the round";
    },
    state(sign) {
      return this.signs[sign] || "";
    },
    word(sign) {
      return WORDS[this.signs[sign]] || "";
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
      return `/f/${meta("farm")}/guide/agent/${agent}`;
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
      const told = Object.fromEntries(this.look.signs.map((one) => [one.id, "absent"]));
      this.past.push({ ...this.signs });
      this.change({ ...this.signs, ...told });
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
      Outbox.keepDraft(data.draft, { signs: { ...this.signs }, note: this.note });
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
      const tools = data.tools.length ? data.tools.filter((one) => !this.left.includes(one)) : null;
      const body = { seq, signs: this.signs, tools };
      try {
        await newest(
          () => Ask.post(data.rank, body),
          (told) => {
            this.shown = told.seq;
            this.ranked = told;
            this.silent = false;
          },
        );
      } catch (error) {
        this.silent = true;
      }
    },
    async keep() {
      this.stored = false;
      this.failed = "";
      const payload = { ...data.payload, signs: { ...this.signs }, ...(this.soundable ? { note: this.note } : {}) };
      try {
        this.base = await Outbox.add({ kind: data.kind, v: data.v, title: data.title, record_id: data.record, base: this.base, payload });
        this.kept = true;
      } catch (error) {
        this.failed = Outbox.NOT_KEPT;
      }
      // On a phone the answer stands above what was tapped.
      document.querySelector(".next .dark").scrollIntoView({ block: "center" });
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
