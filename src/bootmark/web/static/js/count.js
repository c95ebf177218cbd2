// The tally: one number for each unit looked at, drawn against the threshold as it grows.
import * as ask from "./lib/ask.js";
import * as outbox from "./lib/outbox.js";
import { given } from "./lib/page.js";
import { say } from "./lib/say.js";

document.addEventListener("alpine:init", () => {
  const data = given("tally");
  const newest = ask.newest();
  const { plan, texts } = data;
  const share = plan.measure === "proportion";
  const level = (value) => (share ? Math.round(100 * value) + " %" : String(Math.round(10 * value) / 10));

  Alpine.data("tally", () => ({
    counts: [...data.counts],
    pictures: [...data.pictures],
    foes: [...data.enemies],
    chosen: data.chosen,
    tool: data.tool,
    ages: { ...data.ages },
    dead: data.dead,
    parasitised: data.parasitised,
    typed: "",
    pests: 0,
    enemies: 0,
    past: [],
    base: data.base,
    seq: 0,
    reading: null,
    kept: false,
    stored: false,
    failed: "",
    here: null,
    hereText: "",
    enemyName: plan.enemy,
    callUrl: data.call,

    async init() {
      addEventListener("outbox:stored", (event) => {
        if (event.detail.record_id !== data.sample) return;
        this.stored = true;
        if (this.kept) outbox.dropDraft("count/" + data.sample + plan.measure);
      });
      const draft = await outbox.readDraft("count/" + data.sample + plan.measure);
      if (draft) Object.assign(this, draft);
      else if (data.kept) this.kept = this.stored = true;
      this.takePicture();
      this.read();
    },
    // A unit that a picture told, once: a page that is loaded again adds none.
    takePicture() {
      if (data.told === null || this.pictures.includes(data.picture)) return;
      history.replaceState(null, "", data.own);
      this.change(() => {
        this.push(data.told);
        this.pictures = [...Array.from({ length: this.counts.length - 1 }, (none, place) => this.pictures[place] || ""), data.picture];
      });
    },
    get place() {
      return this.counts.length;
    },
    get unitWord() {
      return texts.unit;
    },
    get hasThreshold() {
      return plan.threshold !== null;
    },
    get top() {
      const line = plan.threshold ? plan.threshold.value : 0;
      const most = Math.max(1, ...this.counts, 3 * line);
      return share ? Math.min(1, Math.max(0.2, 4 * line, this.reading ? this.reading.estimate : 0)) : most;
    },
    get topText() {
      return level(this.top);
    },
    get axisText() {
      return texts.axis;
    },
    x(place) {
      return 44 + (546 * (place + 0.5)) / Math.max(plan.most, this.counts.length);
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
    get way() {
      return data.field ? data.field.points.map(([x, y], place) => `${place ? "L" : "M"}${x} ${y}`).join("") : "";
    },
    spot(place, r) {
      const [x, y] = data.field.points[place % data.field.points.length];
      return `M${(x - r).toFixed(1)} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;
    },
    // Each unit where it was taken, as large as its count.
    get spots() {
      if (!data.field) return "";
      const most = Math.max(1, ...this.counts);
      return this.counts.map((count, place) => this.spot(place, Math.round(30 + 80 * (count / most)) / 10)).join("");
    },
    get nextSpot() {
      return data.field ? this.spot(this.counts.length, 8) : "";
    },
    get flags() {
      return data.field ? data.field.flags.map(([x, y]) => `M${x} ${y}v-12l8 4l-8 4Z`).join("") : "";
    },
    get canWatch() {
      return Boolean(data.field) && window.isSecureContext && Boolean(navigator.geolocation);
    },
    // One's own place, followed while the page is open; it is sent nowhere.
    watch() {
      this.hereText = say("place_asked");
      navigator.geolocation.watchPosition(
        ({ coords }) => {
          const { longitude, latitude, x, y, east, north } = data.field.on_earth;
          this.here = [x + (coords.longitude - longitude) * east, y + (coords.latitude - latitude) * north];
          this.hereText = say("place_within", { metres: Math.round(coords.accuracy) });
        },
        () => (this.hereText = say("place_refused")),
        { enableHighAccuracy: true },
      );
    },
    get ownSpot() {
      if (!this.here) return "";
      const [x, y] = this.here;
      return `M${(x - 7).toFixed(1)} ${y.toFixed(1)}a7 7 0 1 0 14 0a7 7 0 1 0 -14 0Z`;
    },
    get patternText() {
      return this.reading ? this.reading.pattern_text : "";
    },
    // A line between which the count goes on, from the unit on at which it may stop.
    stopLine(line) {
      if (!line || this.chosen !== "plan") return "";
      const least = this.reading.least;
      return line
        .map((value, place) => [place, value])
        .filter(([place, value]) => place + 1 >= least && value > 0)
        .map(([place, value], first) => `${first ? "L" : "M"}${this.x(place).toFixed(1)} ${this.y(value).toFixed(1)}`)
        .join("");
    },
    get lowLine() {
      return this.reading ? this.stopLine(this.reading.low_line) : "";
    },
    get highLine() {
      return this.reading ? this.stopLine(this.reading.high_line) : "";
    },
    useTool(tool) {
      this.tool = tool;
      this.kept = false;
      this.keepDraft();
    },
    choose(way) {
      this.change(() => (this.chosen = way));
    },
    get thresholdY() {
      return plan.threshold ? this.y(plan.threshold.value) : 0;
    },
    get thresholdText() {
      return texts.threshold;
    },
    get thresholdLong() {
      return texts.threshold_long;
    },
    get summary() {
      return this.reading ? this.reading.summary : say("told_nothing");
    },
    get ratioText() {
      return this.reading ? this.reading.ratio_text : say("not_counted");
    },
    get method() {
      return this.reading ? this.reading.method : say("no_count");
    },
    get title() {
      if (this.kept) return say(this.stored ? "stored" : "kept");
      if (!this.counts.length) return texts.first;
      return this.reading ? this.reading.title : say("counted");
    },
    get text() {
      if (this.kept) return say(!this.stored ? "to_send" : data.call ? "count_stored" : "count_done");
      if (!this.counts.length) return plan.plan;
      return this.reading ? this.reading.text : "";
    },
    change(act) {
      this.past.push({ counts: [...this.counts], pictures: [...this.pictures], foes: [...this.foes], pests: this.pests, enemies: this.enemies, chosen: this.chosen, ages: { ...this.ages }, dead: this.dead, parasitised: this.parasitised });
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
    // Beside those alive: an attack that is over is told by them.
    gone(how) {
      this.change(() => (this[how] = (this[how] || 0) + 1));
    },
    // Told apart by age: eggs beside those alive, the others among them.
    aged(age, isBeside) {
      this.change(() => {
        this.ages = { ...this.ages, [age]: (this.ages[age] || 0) + 1 };
        if (!isBeside) this.pests += 1;
      });
    },
    ofAge(age) {
      return this.ages[age] || "";
    },
    // The whole unit as one number, for many on it.
    nextTyped() {
      const number = this.typed.trim();
      if (!/^\d{1,5}$/.test(number)) return;
      this.change(() => this.push(Number(number)));
      this.typed = "";
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
      outbox.keepDraft("count/" + data.sample + plan.measure, { counts: [...this.counts], pictures: [...this.pictures], foes: [...this.foes], pests: this.pests, enemies: this.enemies, chosen: this.chosen, tool: this.tool, ages: { ...this.ages }, dead: this.dead, parasitised: this.parasitised });
    },
    async read() {
      if (!this.counts.length) {
        this.reading = null;
        return;
      }
      const line = plan.threshold && plan.threshold.value;
      const body = { seq: ++this.seq, unit: plan.unit, agent: data.agent, measure: plan.measure, chosen: this.chosen, threshold: line, counts: this.counts, enemies: this.foes };
      try {
        await newest(
          () => ask.post(data.read, body),
          (reading) => (this.reading = reading),
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
      const payload = { stop_id: data.stop, agent: data.agent, unit: plan.unit, measure: plan.measure, counts: [...this.counts], pictures: [...this.pictures], enemies: [...this.foes], chosen: this.chosen, tool: this.tool === plan.tool ? "" : this.tool, pattern: data.pattern, laid: data.field ? data.field.points.length : null, ages: { ...this.ages }, dead: this.dead, parasitised: this.parasitised };
      try {
        this.base = await outbox.add({ kind: data.kind, v: data.v, title: data.title, record_id: data.sample, base: this.base, payload });
        this.kept = true;
      } catch (error) {
        this.failed = outbox.notKept();
      }
    },
  }));
});
