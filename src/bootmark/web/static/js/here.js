// Where one stands, at a press: into the fields of a stop's place.
import { say } from "./lib/say.js";

const button = document.querySelector("[data-place]");
if (button) {
  const form = button.closest("form");
  const status = form.querySelector("[data-place-told]");
  // Without TLS a browser tells no place: nothing is offered then.
  button.hidden = !window.isSecureContext || !navigator.geolocation;
  button.addEventListener("click", () => {
    status.textContent = say("place_asked");
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        form.elements.latitude.value = coords.latitude.toFixed(6);
        form.elements.longitude.value = coords.longitude.toFixed(6);
        status.textContent = say("place_taken", { metres: Math.round(coords.accuracy) });
      },
      () => {
        status.textContent = say("place_refused");
      },
      { enableHighAccuracy: true, timeout: 20000 },
    );
  });
}
