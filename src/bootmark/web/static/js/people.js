// People: a link that is shown once goes to the clipboard at a press.
import { say } from "./lib/say.js";

const box = document.querySelector("[data-link-box]");
if (box) {
  const link = box.querySelector("input");
  box.querySelector("[data-copy]").addEventListener("click", async () => {
    link.select();
    try {
      await navigator.clipboard.writeText(link.value);
      box.querySelector("[data-copied]").textContent = say("copied");
    } catch {
      // Without TLS a browser gives no clipboard: it stays selected.
      box.querySelector("[data-copied]").textContent = say("copy_by_hand");
    }
  });
}
