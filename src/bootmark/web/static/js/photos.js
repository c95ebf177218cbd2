// A photograph is kept on the device first and sent from there, as every record is. It goes up smaller than the camera made it,
// unless its place is to be kept: that stands in the camera's own bytes.
import * as outbox from "./lib/outbox.js";
import { say } from "./lib/say.js";

const LONGEST_SIDE = 1600;
// What is measured keeps more points.
const MEASURED_SIDE = 2600;

async function smaller(file, longest, quality) {
  try {
    const picture = await createImageBitmap(file, { imageOrientation: "from-image" });
    const scale = Math.min(1, longest / Math.max(picture.width, picture.height));
    const canvas = document.createElement("canvas");
    [canvas.width, canvas.height] = [Math.round(picture.width * scale), Math.round(picture.height * scale)];
    canvas.getContext("2d").drawImage(picture, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise((resolve) => canvas.toBlob(resolve, "image/jpeg", quality));
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

// A picture to be measured, and the second of the same paper after it.
async function measured(form, file) {
  const asked = Object.fromEntries([...form.querySelectorAll("[data-asked]")].map((input) => [input.name, input.value]));
  const way = { to: form.dataset.photo, of: form.dataset.of };
  const later = form.elements.second?.files[0];
  await outbox.addPhoto({ ...way, asked, blob: await smaller(file, MEASURED_SIDE, 0.92) });
  if (later) await outbox.addPhoto({ ...way, asked: { ...asked, second: "yes" }, blob: await smaller(later, MEASURED_SIDE, 0.92) });
}

document.addEventListener("submit", async (event) => {
  const form = event.target.closest("form[data-photo]");
  const file = form?.elements.photo.files[0];
  if (!file) return;
  event.preventDefault();
  try {
    if ("measured" in form.dataset) await measured(form, file);
    else {
      const place = form.elements.keep_place?.checked;
      const blob = place ? file : await smaller(file, LONGEST_SIDE, 0.85);
      await outbox.addPhoto({ to: form.dataset.photo, of: form.dataset.of, keep_place: place, blob });
    }
    form.reset();
    tell(form, say("photograph_kept"));
  } catch (error) {
    tell(form, outbox.notKept());
  }
});

addEventListener("outbox:stored", async (event) => {
  const form = document.querySelector("form[data-photo]");
  if (!form || event.detail.photo_of !== form.dataset.of) return;
  // Of two pictures of one paper the second is still on its way.
  if (await outbox.picturesOf(form.dataset.of)) return;
  location.reload();
});
