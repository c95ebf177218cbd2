// What the page says of itself: whose it is, and what time it is on the farm.
export const meta = (name) => document.querySelector(`meta[name="${name}"]`)?.content || "";
export const farm = meta("farm");
export const account = meta("account");

// The farm's time: the page's own, and what this device's clock has run since. A demo farm's clock stands still.
const loaded = Date.now();
export function now() {
  const page = document.querySelector('meta[name="farm-now"]');
  if (!page) return new Date().toISOString();
  return new Date(Date.parse(page.content) + ("stands" in page.dataset ? 0 : Date.now() - loaded)).toISOString();
}

// What a screen's script is given by its page.
export const given = (id) => JSON.parse(document.getElementById(id).textContent);
