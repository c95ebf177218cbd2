// Asking the server: one way to post, and one rule for answers that overtake each other.
import { meta } from "./page.js";

// Posts JSON and hands back the answer's. Throws where none came, or where the server would not answer.
export async function post(path, body) {
  const headers = { "Content-Type": "application/json", "X-CSRFToken": meta("csrf") };
  const answer = await fetch(path, { method: "POST", headers, body: JSON.stringify(body) });
  if (!answer.ok) throw Object.assign(new Error(`the server answered ${answer.status}`), { status: answer.status });
  return answer.json();
}

// Reads JSON. Throws likewise; a page in its place is the sign-in.
export async function read(path) {
  const answer = await fetch(path);
  const status = answer.redirected ? 401 : answer.status;
  if (status !== 200) throw Object.assign(new Error(`the server answered ${status}`), { status });
  return answer.json();
}

// Whether a question failed because the session has ended, and not for want of signal.
export const signedOut = (error) => error.status === 401 || error.status === 400;

// For questions that are asked one after the other: an answer that comes after a newer one is of no use, and is left out.
export function newest() {
  let asked = 0;
  let shown = 0;
  return async (question, show) => {
    const mine = ++asked;
    let answer;
    try {
      answer = await question();
    } catch (error) {
      // That an old question failed is of no use either.
      if (mine < asked) return;
      throw error;
    }
    if (mine < shown) return;
    shown = mine;
    show(answer);
  };
}

// Asks again and again until it is told that the work is done, then shows the page anew.
export function untilDone(address, every, isDone) {
  const look = async () => {
    try {
      const state = await (await fetch(address)).json();
      if (isDone(state)) return location.reload();
    } catch (error) {
      // No signal, or the server starts again: asked anew.
    }
    setTimeout(look, every);
  };
  setTimeout(look, every);
}
