// A board to draw on the plan: an outline or a spot, by pointer, by keys, or by walking there with the device.
import { area, apart, crossing, nearestSide, snapped } from "./plane.js";
import { say } from "./say.js";

const SVG = "http://www.w3.org/2000/svg";
const NEAR = 14; // pixels within which a press means what is there
const MOVED = 5; // pixels from which on a press is a drag
const SHAPE = 1.6; // of the board: its width by its height
const LEAST = 40; // metres that it shows at least
const M2_PER_HA = 10_000;
const MOST_OFF = 30; // metres: a place that is less sure is no corner
const round = (metres) => Math.round(metres * 100) / 100;

export class Board {
  // box: the element; given: points, others (rings with names), focus (what is shown first), form (spot, line or ring), origin, unit; kept: told the points.
  constructor(box, given, kept) {
    Object.assign(this, { box, given, kept, form: given.form });
    this.points = given.points.map((point) => [...point]);
    this.svg = box.querySelector("svg");
    this.status = box.querySelector("[data-board-told]");
    this.before = [];
    this.chosen = -1;
    this.fit();
    this.cross = this.points[0] ? [...this.points[0]] : [this.view.x + this.view.width / 2, this.view.y + this.view.height / 2];
    this.listen();
    this.draw();
    if (this.points.length) this.tell();
  }

  listen() {
    const sheet = this.sheet = this.box.querySelector("[data-board-sheet]");
    sheet.addEventListener("pointerdown", (event) => this.down(event));
    sheet.addEventListener("pointermove", (event) => this.move(event));
    sheet.addEventListener("pointerup", (event) => this.up(event));
    sheet.addEventListener("pointercancel", () => (this.held = null));
    sheet.addEventListener("keydown", (event) => this.key(event));
    for (const button of this.box.querySelectorAll("[data-do]")) button.addEventListener("click", () => this[button.dataset.do]());
    const here = this.box.querySelector("[data-do=here]");
    here.hidden = !window.isSecureContext || !navigator.geolocation || Boolean(this.given.under && !this.given.under.matrix);
  }

  // What is drawn, with its surroundings; where nothing is yet, everything that is there.
  fit() {
    const others = this.given.others.flatMap((other) => other.points);
    const focus = this.points.length ? this.points : this.given.focus || [];
    const spots = [focus, others, [[0, 0], [200, 120]]].find((points) => points.length);
    // A picture that is drawn on fills the board.
    const room = this.given.under && !this.given.under.matrix ? 1.05 : focus.length ? 2.2 : 1.2;
    const [xs, ys] = [spots.map(([x]) => x), spots.map(([, y]) => y)];
    const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const width = Math.max(right - left, (bottom - top) * SHAPE, LEAST) * room;
    this.view = { x: (left + right - width) / 2, y: (top + bottom - width / SHAPE) / 2, width, height: width / SHAPE };
  }

  get scale() {
    return this.view.width / Math.max(this.svg.clientWidth, 1);
  }

  at(event) {
    const { left, top } = this.svg.getBoundingClientRect();
    return [this.view.x + (event.clientX - left) * this.scale, this.view.y + (event.clientY - top) * this.scale];
  }

  remember() {
    this.before.push(this.points.map((point) => [...point]));
  }

  snap(spot) {
    return snapped(spot, this.given.others.map((other) => other.points), NEAR * this.scale).map(round);
  }

  corner(spot) {
    const near = this.points.map((point) => apart(point, spot));
    const place = near.indexOf(Math.min(...near));
    return near[place] <= NEAR * this.scale ? place : -1;
  }

  down(event) {
    if (event.button) return;
    this.sheet.setPointerCapture(event.pointerId);
    const spot = this.at(event);
    const taken = this.corner(spot);
    this.held = { start: [event.clientX, event.clientY], view: { ...this.view }, corner: taken, moved: false };
    if (taken >= 0) this.chosen = taken;
  }

  move(event) {
    const held = this.held;
    if (!held) return;
    const [dx, dy] = [event.clientX - held.start[0], event.clientY - held.start[1]];
    if (!held.moved && Math.hypot(dx, dy) < MOVED) return;
    if (!held.moved && held.corner >= 0) this.remember();
    held.moved = true;
    if (held.corner >= 0) this.points[held.corner] = this.snap(this.at(event));
    else [this.view.x, this.view.y] = [held.view.x - dx * this.scale, held.view.y - dy * this.scale];
    this.draw();
  }

  up(event) {
    const held = this.held;
    this.held = null;
    if (!held) return;
    if (!held.moved && held.corner < 0) this.add(this.at(event));
    else this.draw();
    if (held.corner >= 0) this.tell();
  }

  // A corner more: on the side that is pressed, else after the last.
  add(spot) {
    this.remember();
    this.cross = spot;
    if (this.form === "spot") this.points = [this.snap(spot)];
    else {
      const side = this.form === "ring" && this.points.length > 2 ? nearestSide(spot, this.points) : null;
      const place = side && side.far <= NEAR * this.scale ? side.place + 1 : this.points.length;
      this.points.splice(place, 0, this.snap(spot));
      this.chosen = place;
    }
    this.draw();
    this.tell();
  }

  // By keys a corner is set where the cross is, and arrows go on with the cross.
  set() {
    this.add([...this.cross]);
    this.chosen = -1;
  }

  // Another form: a spot keeps the first point only.
  draws(form) {
    this.form = form;
    if (form === "spot") this.points = this.points.slice(0, 1);
    this.draw();
  }

  undo() {
    if (!this.before.length) return;
    this.points = this.before.pop();
    this.chosen = -1;
    this.draw();
    this.tell();
  }

  remove() {
    if (!this.points.length) return;
    this.remember();
    this.points.splice(this.chosen >= 0 ? this.chosen : this.points.length - 1, 1);
    this.chosen = -1;
    this.draw();
    this.tell();
  }

  nearer() {
    this.zoom(1 / 1.5);
  }

  wider() {
    this.zoom(1.5);
  }

  zoom(times) {
    const { x, y, width, height } = this.view;
    const [middleX, middleY] = [x + width / 2, y + height / 2];
    this.view = { x: middleX - (width * times) / 2, y: middleY - (height * times) / 2, width: width * times, height: height * times };
    this.draw();
  }

  // Where the device stands becomes a corner.
  here() {
    this.status.textContent = say("place_asked");
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => this.stood(coords),
      () => (this.status.textContent = say("board_no_place")),
      { enableHighAccuracy: true, timeout: 20000, maximumAge: 0 },
    );
  }

  stood({ latitude, longitude, accuracy }) {
    const metres = Math.round(accuracy);
    if (metres > MOST_OFF) {
      this.status.textContent = say("board_unsure", { metres, most: MOST_OFF });
      return;
    }
    const { origin } = this.given;
    this.add([(longitude - origin.longitude) * origin.east, (origin.latitude - latitude) * origin.north]);
    const [x, y] = this.cross;
    const { view } = this;
    if (x < view.x || y < view.y || x > view.x + view.width || y > view.y + view.height) this.fit();
    this.draw();
    this.status.textContent += " " + say("place_taken", { metres });
  }

  key(event) {
    const step = this.view.width * (event.shiftKey ? 0.002 : 0.02);
    const moves = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] };
    const acts = {
      Enter: () => this.set(), Delete: () => this.remove(), Backspace: () => this.remove(),
      Escape: () => (this.chosen = -1), n: () => this.choose(1), p: () => this.choose(-1), u: () => this.undo(),
      "+": () => this.nearer(), "-": () => this.wider(),
    };
    if (moves[event.key]) this.shift(moves[event.key]);
    else if (event.key === "z" && (event.ctrlKey || event.metaKey)) this.undo();
    else if (acts[event.key] && !event.ctrlKey && !event.metaKey) acts[event.key]();
    else return;
    event.preventDefault();
    this.draw();
  }

  // Arrows move the corner that is chosen, else the cross.
  shift([dx, dy]) {
    if (this.chosen >= 0 && this.points[this.chosen]) {
      this.remember();
      const [x, y] = this.points[this.chosen];
      this.points[this.chosen] = [round(x + dx), round(y + dy)];
      this.tell();
    } else this.cross = [this.cross[0] + dx, this.cross[1] + dy];
  }

  choose(way) {
    const count = this.points.length;
    if (!count) return;
    this.chosen = (this.chosen + way + count) % count;
    this.cross = [...this.points[this.chosen]];
    this.tell();
  }

  tell() {
    const hectares = area(this.points) / M2_PER_HA;
    const size = `${Number((hectares * this.given.unit.times).toPrecision(3))} ${this.given.unit.symbol}`;
    const count = this.points.length;
    if (this.form === "spot") this.status.textContent = count ? say("board_spot") : "";
    else if (this.form === "spots") this.status.textContent = say("board_spots", { count });
    else if (this.form === "line") this.status.textContent = say("board_line", { count });
    else if (crossing(this.points)) this.status.textContent = say("board_crosses");
    else this.status.textContent = count > 2 ? say("board_encloses", { count, size }) : say("board_more", { count });
  }

  // A neighbour's name, where all of it can be read.
  name({ name, points }) {
    const { view, scale } = this;
    const [x, y] = [points[0][0] + 6 * scale, points[0][1] + 16 * scale];
    const fits = x > view.x && x + name.length * 8 * scale < view.x + view.width && y > view.y + 14 * scale && y < view.y + view.height;
    if (fits) this.shape("text", { x, y, "font-size": 13 * scale }, name);
  }

  // A picture lies under the plan as its matrix says; without one it is what is drawn on, and its pixels are the metres.
  picture({ href, width, height, matrix }) {
    this.shape("image", { href, width, height, ...(matrix && { transform: `matrix(${matrix.join(" ")})`, opacity: 0.55 }) });
  }

  shape(name, attributes, text) {
    const element = document.createElementNS(SVG, name);
    for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, value);
    if (text) element.textContent = text;
    this.svg.append(element);
  }

  draw() {
    const { view, scale } = this;
    this.svg.setAttribute("viewBox", [view.x, view.y, view.width, view.height].join(" "));
    this.svg.replaceChildren();
    const ring = (points) => points.map((point) => point.join(",")).join(" ");
    if (this.given.under) this.picture(this.given.under);
    for (const other of this.given.others) {
      this.shape("polygon", { points: ring(other.points), class: "other" });
      this.name(other);
    }
    if (this.form === "ring") this.shape("polygon", { points: ring(this.points), class: "own" });
    if (this.form === "line") this.shape("polyline", { points: ring(this.points), class: "own line" });
    this.points.forEach(([x, y], place) => this.shape("circle", { cx: x, cy: y, r: (place === this.chosen ? 9 : 6) * scale, class: "corner" }));
    if (this.form === "spots") this.points.forEach(([x, y], place) => this.shape("text", { x: x + 9 * scale, y: y + 5 * scale, "font-size": 16 * scale, class: "number" }, String(place + 1)));
    const spot = this.form === "ring" ? crossing(this.points) : null;
    if (spot) this.shape("circle", { cx: spot[0], cy: spot[1], r: 16 * scale, class: "wrong" });
    const [x, y] = this.cross;
    const arm = 10 * scale;
    this.shape("path", { d: `M${x - arm} ${y}H${x + arm}M${x} ${y - arm}V${y + arm}`, class: "cross" });
    this.kept(this.points.map((point) => point.map(round)));
  }
}
