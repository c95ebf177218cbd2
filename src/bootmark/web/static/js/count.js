// The tally: one number for each unit looked at, drawn against the threshold as it grows.
document.addEventListener("alpine:init", () => {
  const data = JSON.parse(document.getElementById("tally").textContent);
  const newest = Ask.newest();
  const plan = data.plan;
  const share = plan.measure === "proportion";
  const say = (value) => (share ? Math.round(100 * value) + " %" : value && value < 1 ? value.toFixed(2) : String(Math.round(10 * value) / 10));

  Alpine.data("tally", () => ({
    counts: [...data.counts],
    foes: [...data.enemies],
    pests: 0,
    enemies: 0,
    past: [],
    base: data.base,
    seq: 0,
    reading: null,
    kept: false,
    stored: false,
    failed: "",
    enemyName: plan.enemy,
    callUrl: data.call,

    async init() {
      addEventListener("outbox:stored", (event) => {
        if (event.detail.record_id !== data.sample) return;
        this.stored = true;
        if (this.kept) Outbox.dropDraft("count/" + data.sample + plan.measure);
      });
      const draft = await Outbox.readDraft("count/" + data.sample + plan.measure);
      if (draft) Object.assign(this, draft);
      else if (data.kept) this.kept = this.stored = true;
      this.read();
    },
    get place() {
      return this.counts.length;
    },
    get unitWord() {
      return plan.unit.charAt(0).toUpperCase() + plan.unit.slice(1);
    },
    get hasThreshold() {
      return plan.threshold !== null;
    },
    get top() {
      const most = Math.max(1, ...this.counts, plan.threshold ? plan.threshold.value * 1.4 : 0, this.reading && this.reading.high ? Math.min(this.reading.high, 200) : 0);
      return share ? Math.min(1, Math.max(0.2, plan.threshold ? plan.threshold.value * 2 : 0.2, this.reading ? this.reading.high : 0)) : most;
    },
    get topText() {
      return say(this.top);
    },
    get axisText() {
      return plan.unit + " by " + plan.unit;
    },
    x(place) {
      return 44 + (546 * (place + 0.5)) / Math.max(plan.units, this.counts.length);
    },
    y(value) {
      return 160 - 145 * Math.min(1, value / this.top);
    },
    dot(x, y) {
      return `M${(x - 4.5).toFixed(1)} ${y.toFixed(1)}a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0 -9 0Z`;
    },
    get pestDots() {
      return share ? "" : this.counts.map((count, place) => this.dot(this.x(place), this.y(count))).join("");
    },
    get enemyDots() {
      return this.foes.map((count, place) => (count ? this.dot(this.x(place) + 5, this.y(count)) : "")).join("");
    },
    get meanLine() {
      let sum = 0;
      return this.counts.map((count, place) => `${place ? "L" : "M"}${this.x(place).toFixed(1)} ${this.y((sum += count) / (place + 1)).toFixed(1)}`).join("");
    },
    get band() {
      if (!this.reading) return "";
      const high = this.reading.high === null ? this.top : this.reading.high;
      return `M44 ${this.y(high)}L590 ${this.y(high)}L590 ${this.y(this.reading.low)}L44 ${this.y(this.reading.low)}Z`;
    },
    get thresholdY() {
      return plan.threshold ? this.y(plan.threshold.value) : 0;
    },
    get thresholdText() {
      return plan.threshold ? say(plan.threshold.value) + " " + plan.threshold.unit : "";
    },
    get thresholdLong() {
      return plan.threshold ? this.thresholdText + " (" + plan.threshold.source + ")" : "No threshold is known for this crop.";
    },
    get summary() {
      if (!this.reading) return "Nothing yet.";
      const high = this.reading.high === null ? "any number" : say(this.reading.high);
      return `${say(this.reading.estimate)} for each ${plan.unit} (${say(this.reading.low)} to ${high}) on ${this.counts.length}`.replace(`for each ${plan.unit}`, share ? `of the ${plan.unit}s` : `for each ${plan.unit}`);
    },
    get ratioText() {
      if (!this.reading || this.reading.ratio === null) return "Not counted yet.";
      return this.reading.ratio < 0 ? "Only helpers were found." : this.reading.ratio.toFixed(2);
    },
    get method() {
      return this.reading ? this.reading.method : "no count yet";
    },
    get side() {
      if (!this.reading || !plan.threshold) return "";
      if (this.reading.high !== null && this.reading.high < plan.threshold.value) return "below";
      return this.reading.low >= plan.threshold.value ? "above" : "between";
    },
    get title() {
      if (this.kept) return this.stored ? "Kept" : "Kept on this device";
      if (!this.counts.length) return "Count the first " + plan.unit;
      return { below: "Enough: too few to matter", above: "Enough: it matters", between: "Keep counting", "": "Counted" }[this.side];
    },
    get text() {
      if (this.kept) return this.stored ? "Next in the line: does it matter, do I act." : "It is sent as soon as there is a signal.";
      if (!this.counts.length) return plan.plan;
      if (this.side === "between") return "The limits lie on both sides of the threshold.";
      return this.side ? "The whole band lies " + this.side + " the threshold." : "";
    },
    change(act) {
      this.past.push({ counts: [...this.counts], foes: [...this.foes], pests: this.pests, enemies: this.enemies });
      act();
      this.kept = false;
      this.keepDraft();
      this.read();
    },
    pest(by) {
      this.change(() => (this.pests += by));
    },
    enemy(by) {
      this.change(() => (this.enemies += by));
    },
    next() {
      this.change(() => this.push(this.pests));
    },
    yes() {
      this.change(() => this.push(1));
    },
    no() {
      this.change(() => this.push(0));
    },
    push(count) {
      this.counts = [...this.counts, count];
      if (plan.enemy) this.foes = [...this.foes, this.enemies];
      this.pests = this.enemies = 0;
    },
    undo() {
      if (!this.past.length) return;
      Object.assign(this, this.past.pop());
      this.kept = false;
      this.keepDraft();
      this.read();
    },
    keepDraft() {
      Outbox.keepDraft("count/" + data.sample + plan.measure, { counts: [...this.counts], foes: [...this.foes], pests: this.pests, enemies: this.enemies });
    },
    async read() {
      if (!this.counts.length) {
        this.reading = null;
        return;
      }
      const body = { seq: ++this.seq, unit: plan.unit, measure: plan.measure, counts: this.counts, enemies: this.foes };
      try {
        await newest(
          () => Ask.post(data.read, body),
          (told) => (this.reading = told),
        );
      } catch (error) {
        /* No signal: the count goes on, the limits wait. */
      }
    },
    async keep() {
      // A unit that was begun counts too.
      if (this.pests || this.enemies) this.push(this.pests);
      this.stored = false;
      this.failed = "";
      const payload = { stop_id: data.stop, agent: data.agent, unit: plan.unit, measure: plan.measure, counts: [...this.counts], enemies: [...this.foes] };
      try {
        this.base = await Outbox.add({ kind: data.kind, v: data.v, title: "Count of " + data.name, record_id: data.sample, base: this.base, payload });
        this.kept = true;
      } catch (error) {
        this.failed = Outbox.NOT_KEPT;
      }
    },
  }));
});
