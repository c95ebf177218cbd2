// Asking the server: one way to post, and one rule for answers that overtake each other.
const Ask = (() => {
  const token = () => document.querySelector('meta[name="csrf"]').content;

  // Posts JSON and hands back the answer's. Throws where none came, or where the server would not answer.
  async function post(path, body) {
    const headers = { "Content-Type": "application/json", "X-CSRFToken": token() };
    const answer = await fetch(path, { method: "POST", headers, body: JSON.stringify(body) });
    if (!answer.ok) throw new Error(`the server answered ${answer.status}`);
    return answer.json();
  }

  // For questions that are asked one after the other: an answer that comes after a newer one is of no use, and is left out.
  function newest() {
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

  return { post, newest };
})();
window.Ask = Ask;
