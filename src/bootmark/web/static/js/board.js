// A page with a board: what is drawn goes into the form's fields.
import { Board } from "./lib/board.js";
import { given } from "./lib/page.js";

for (const box of document.querySelectorAll("[data-board]")) {
  const boardGiven = given(box.dataset.board);
  const field = (name) => box.closest("form").elements.namedItem(name);
  box.hidden = false;
  const board = new Board(box, boardGiven, (points) => {
    if (boardGiven.form === "spot" && field("x")) [field("x").value, field("y").value] = points[0] || ["", ""];
    else field(boardGiven.field || "outline").value = JSON.stringify(points);
  });
  // Where the form asks what it is, that says how it is drawn.
  const kind = field("feature");
  kind?.addEventListener("change", () => board.draws(boardGiven.forms[kind.value]));
}
