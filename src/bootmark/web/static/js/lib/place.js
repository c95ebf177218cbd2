// A device's own place, at the press of a button.
import { say } from "./say.js";

// button: shown where a place can be had; status: says how it goes; write: takes the coordinates.
export function offer(button, status, write) {
  // Without TLS a browser tells no place: nothing is offered then.
  button.hidden = !window.isSecureContext || !navigator.geolocation;
  button.addEventListener("click", () => {
    status.textContent = say("place_asked");
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        write(coords);
        status.textContent = say("place_taken", { metres: Math.round(coords.accuracy) });
      },
      () => {
        status.textContent = say("place_refused");
      },
      { enableHighAccuracy: true, timeout: 20000 },
    );
  });
}
