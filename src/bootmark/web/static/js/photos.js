// A photograph is kept on the device first and sent from there, as every record is. It goes up smaller than the camera made it,
// unless its place is to be kept: that stands in the camera's own bytes.
import * as outbox from "./lib/outbox.js";
import { say } from "./lib/say.js";

const LONGEST_SIDE = 1600;

async function smaller(file) {
  try {
    const picture = await createImageBitmap(file, { imageOrientation: "from-image" });
    const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
    const canvas = document.createElement("canvas");
    [canvas.width, canvas.height] = [Math.round(picture.width * scale), Math.round(picture.height * scale)];
    canvas.getContext("2d").drawImage(picture, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise((resolve) => canvas.toBlob(resolve, "image/jpeg", 0.85));
    return blob && blob.size < file.size ? blob : file;
  } catch (error) {
    // What this browser can't read, the server may, or says why not.
    return file;
  }
}

function tell(form, words) {
  const line = form.parentElement.querySelector("[data-photo-told]") || form.parentElement.appendChild(document.createElement("p"));
  line.dataset.photoTold = "";
  line.className = "small";
  line.setAttribute("role", "status");
  line.textContent = words;
}

document.addEventListener("submit", async (event) => {
  const form = event.target.closest("form[data-photo]");
  const file = form?.elements.photo.files[0];
  if (!file) return;
  event.preventDefault();
  try {
    const place = form.elements.keep_place?.checked;
    await outbox.addPhoto({ to: form.dataset.photo, of: form.dataset.of, keep_place: place, blob: place ? file : await smaller(file) });
    form.reset();
    tell(form, say("photograph_kept"));
  } catch (error) {
    tell(form, outbox.notKept());
  }
});

addEventListener("outbox:stored", (event) => {
  const form = document.querySelector("form[data-photo]");
  if (form && event.detail.photo_of === form.dataset.of) location.reload();
});
