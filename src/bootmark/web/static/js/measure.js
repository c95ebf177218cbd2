// Pictures that tell a unit of a count: those that wait for signal, and like things picked by tapping examples.
import * as outbox from "./lib/outbox.js";
import { say } from "./lib/say.js";

// Of a ring: how far beside it a finger may land.
const NEAR = 3;

// What waits here to be sent is measured when it arrives.
async function tellWaiting() {
  const form = document.querySelector("form[data-measured]");
  const line = document.querySelector("[data-waits]");
  if (!form || !line) return;
  const number = await outbox.picturesOf(form.dataset.of);
  line.textContent = number ? say("pictures_wait", { count: number }) : "";
}

// The circles of all that is of the size of an example are lit, and their number is put in.
function pick(box) {
  const alike = JSON.parse(box.dataset.picks);
  const drawing = box.querySelector("svg");
  const circles = [...drawing.querySelectorAll("circle")];
  const number = document.querySelector("[data-number]");
  const examples = new Set();
  drawing.addEventListener("click", (event) => {
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(drawing.getScreenCTM().inverse());
    const far = circles.map((circle) => Math.hypot(circle.cx.baseVal.value - x, circle.cy.baseVal.value - y) / circle.r.baseVal.value);
    const place = far.indexOf(Math.min(...far));
    if (!(far[place] < NEAR)) return;
    if (!examples.delete(place)) examples.add(place);
    const lit = new Set([...examples].flatMap((example) => alike[example]));
    circles.forEach((circle, thing) => {
      circle.classList.toggle("lit", lit.has(thing));
      circle.classList.toggle("example", examples.has(thing));
    });
    if (number) number.value = lit.size;
  });
}

document.querySelectorAll("[data-picks]").forEach(pick);
addEventListener("outbox:stored", tellWaiting);
tellWaiting();

// The outline of a whole leaf, drawn by taps round it: shares of the picture's width and height.
const drawn = document.querySelector("[data-draws]");
if (drawn) {
  const drawing = drawn.querySelector("svg");
  const corners = [];
  const show = () => {
    const text = corners.map(([x, y]) => `${x.toFixed(4)},${y.toFixed(4)}`).join(" ");
    drawing.querySelector("polygon").setAttribute("points", text);
    drawn.elements.outline.value = text;
  };
  drawing.addEventListener("click", (event) => {
    const { left, top, width, height } = drawing.getBoundingClientRect();
    corners.push([(event.clientX - left) / width, (event.clientY - top) / height]);
    show();
  });
  drawn.querySelector("[data-undo]").addEventListener("click", () => {
    corners.pop();
    show();
  });
}
