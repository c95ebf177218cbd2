// Where a farm lies: the device's own place into the fields, at a press.
import { say } from "./lib/say.js";

const button = document.querySelector("[data-place]");
if (button) {
  const told = document.querySelector("[data-place-told]");
  // Without TLS a browser tells no place: nothing is offered then.
  button.hidden = !window.isSecureContext || !navigator.geolocation;
  button.addEventListener("click", () => {
    told.textContent = say("place_asked");
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        document.querySelector("[name=latitude]").value = coords.latitude.toFixed(5);
        document.querySelector("[name=longitude]").value = coords.longitude.toFixed(5);
        told.textContent = say("place_taken", { metres: Math.round(coords.accuracy) });
      },
      () => {
        told.textContent = say("place_refused");
      },
      { enableHighAccuracy: true, timeout: 20000 },
    );
  });
}
