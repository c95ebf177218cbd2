// One thing on two dates: the later picture over the earlier one, by a slider; and the camera with the last picture laid over it.
import * as outbox from "./lib/outbox.js";
import { say } from "./lib/say.js";

const slide = document.querySelector("[data-slide]");
const upper = document.querySelector("[data-upper]");
const show = () => (upper.style.clipPath = `inset(0 0 0 ${slide.value}%)`);
if (slide) {
  slide.addEventListener("input", show);
  show();
}

const camera = document.querySelector("[data-camera]");
if (camera) {
  const form = camera.form;
  const box = document.querySelector("[data-live]");
  const video = box.querySelector("video");
  const snap = form.querySelector("[data-snap]");
  const line = form.querySelector("[data-waits]");
  // Without TLS a browser gives no camera to a page: the device's own takes the picture then.
  camera.hidden = !window.isSecureContext || !navigator.mediaDevices?.getUserMedia;
  camera.addEventListener("click", async () => {
    try {
      video.srcObject = await navigator.mediaDevices.getUserMedia({ video: { facingMode: "environment", width: { ideal: 2600 } } });
      await video.play();
      [box.hidden, snap.hidden, camera.hidden] = [false, false, true];
    } catch (error) {
      line.textContent = say("no_camera");
    }
  });
  snap.addEventListener("click", async () => {
    if (!form.reportValidity()) return;
    const canvas = document.createElement("canvas");
    [canvas.width, canvas.height] = [video.videoWidth, video.videoHeight];
    canvas.getContext("2d").drawImage(video, 0, 0);
    const blob = await new Promise((resolve) => canvas.toBlob(resolve, "image/jpeg", 0.9));
    try {
      await outbox.addPhoto({ to: form.dataset.photo, of: form.dataset.of, asked: { tag: form.elements.tag.value }, blob });
      for (const track of video.srcObject.getTracks()) track.stop();
      [box.hidden, snap.hidden] = [true, true];
      line.textContent = say("photograph_kept");
    } catch (error) {
      line.textContent = outbox.notKept();
    }
  });
}
