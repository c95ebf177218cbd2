// A map of the world to point on: a press moves the cross there and comes nearer, until it is near enough.
const DEGREE = 10;
const WORLD = { left: -1800, top: -900, width: 3600, height: 1800 };
const NEAREST = 60;
const KM = 111;

export class World {
  // box: the map's element; moved: told latitude, longitude and how many kilometres a finger covers.
  constructor(box, moved) {
    this.box = box;
    this.svg = box.querySelector("svg");
    this.moved = moved;
    this.x = this.y = 0;
    this.width = WORLD.width;
    box.addEventListener("click", (event) => this.press(event));
    box.addEventListener("keydown", (event) => this.key(event));
  }

  // lines: land and borders as paths, a tenth of a degree a unit, y down.
  show(lines) {
    for (const name of ["land", "borders"]) this.svg.querySelector("." + name).setAttribute("d", lines[name]);
  }

  get height() {
    return (this.width * this.box.clientHeight) / Math.max(this.box.clientWidth, 1);
  }

  get isNear() {
    return this.width <= NEAREST;
  }

  // Stand on a place, as near as the map goes; nowhere where it is none.
  stand(latitude, longitude) {
    if (Number.isFinite(latitude) && Number.isFinite(longitude)) {
      [this.x, this.y, this.width] = [longitude * DEGREE, -latitude * DEGREE, NEAREST * 4];
    }
    this.draw();
  }

  zoom(times) {
    this.width = Math.min(Math.max(this.width * times, NEAREST), WORLD.width);
    this.draw();
  }

  press(event) {
    const { left, top, width, height } = this.box.getBoundingClientRect();
    const [x0, y0] = this.corner();
    this.x = x0 + ((event.clientX - left) / width) * this.width;
    this.y = y0 + ((event.clientY - top) / height) * this.height;
    if (!this.isNear) this.width = Math.max(this.width / 4, NEAREST);
    this.draw();
    this.tell();
  }

  key(event) {
    const step = this.width / 40;
    const moves = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] };
    if (moves[event.key]) {
      this.x += moves[event.key][0];
      this.y += moves[event.key][1];
    } else if (event.key === "+" || event.key === "-") this.zoom(event.key === "+" ? 1 / 2 : 2);
    else return;
    event.preventDefault();
    this.draw();
    this.tell();
  }

  corner() {
    const inside = (middle, size, low, whole) => Math.min(Math.max(middle - size / 2, low), Math.max(low + whole - size, low));
    return [inside(this.x, this.width, WORLD.left, WORLD.width), inside(this.y, this.height, WORLD.top, WORLD.height)];
  }

  draw() {
    this.x = Math.min(Math.max(this.x, WORLD.left), WORLD.left + WORLD.width);
    this.y = Math.min(Math.max(this.y, WORLD.top), WORLD.top + WORLD.height);
    const [x0, y0] = this.corner();
    this.svg.setAttribute("viewBox", [x0, y0, this.width, this.height].join(" "));
    const arm = this.width / 16;
    const [left, right, up, down] = [this.x - arm, this.x + arm, this.y - arm, this.y + arm];
    this.svg.querySelector(".cross").setAttribute("d", `M${left} ${this.y}H${right}M${this.x} ${up}V${down}`);
  }

  tell() {
    const kilometres = (this.width / DEGREE / Math.max(this.box.clientWidth, 1)) * KM * 10;
    this.moved(-this.y / DEGREE, this.x / DEGREE, kilometres, this.isNear);
  }
}
