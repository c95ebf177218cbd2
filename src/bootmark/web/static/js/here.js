// Where one stands, at a press, or by a tap on the block's drawing: into the fields of a stop's place.
import * as place from "./lib/place.js";
import { say } from "./lib/say.js";

const KEYS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
const STEP = 6;

const button = document.querySelector("[data-place]");
if (button) {
  const form = button.closest("form");
  const status = form.querySelector("[data-place-told]");
  const { longitude, latitude } = form.elements;
  const drawing = form.querySelector("[data-spot]");
  const dot = drawing?.querySelector("circle");
  const earth = drawing && JSON.parse(drawing.dataset.spot);

  const show = () => {
    if (!drawing || longitude.value === "") return;
    dot.setAttribute("cx", earth.x + (longitude.value - earth.longitude) * earth.east);
    dot.setAttribute("cy", earth.y + (latitude.value - earth.latitude) * earth.north);
    dot.removeAttribute("hidden");
  };
  const write = (coords) => {
    longitude.value = coords.longitude.toFixed(6);
    latitude.value = coords.latitude.toFixed(6);
    show();
  };
  const stand = (x, y) => {
    write({ longitude: earth.longitude + (x - earth.x) / earth.east, latitude: earth.latitude + (y - earth.y) / earth.north });
    status.textContent = say("place_tapped");
  };

  place.offer(button, status, write);
  drawing?.addEventListener("click", (event) => {
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(drawing.getScreenCTM().inverse());
    stand(x, y);
  });
  drawing?.addEventListener("keydown", (event) => {
    const step = KEYS[event.key];
    if (!step) return;
    event.preventDefault();
    const { width, height } = drawing.viewBox.baseVal;
    const at = dot.hasAttribute("hidden") ? [width / 2, height / 2] : [Number(dot.getAttribute("cx")), Number(dot.getAttribute("cy"))];
    stand(at[0] + STEP * step[0], at[1] + STEP * step[1]);
  });
  show();
}
