// Field entry without signal: every record is written to this device first and sent from there.
// A record leaves the outbox only when the server has said that it is stored. It belongs to one
// account and one farm, and is never sent as somebody else's. All farms of the account are sent for, in parts.
import { account, farm, meta, now } from "./page.js";
import { say } from "./say.js";
import * as store from "./store.js";

const AGAIN = new Set(["wait", "again", "fault"]);
const MOST_AT_ONCE = 200;
const MOST_FAULTS = 5;
const LONGEST_WAIT = 10000;
const watchers = [];
let sending = false;
let again = false;
let problem = "";
let timer = null;

// crypto.randomUUID is there on secure pages only, and a phone in the field may come by plain http.
const newId = () => {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6] & 15) | 64;
  bytes[8] = (bytes[8] & 63) | 128;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
};

async function mine() {
  const all = await store.all();
  return all.filter((command) => command.account === account);
}

// What waits, this page's farm first, as much as is taken at once.
function parts(waiting) {
  const farms = new Map([[farm, []]]);
  for (const command of waiting) farms.set(command.farm, farms.get(command.farm) || []).get(command.farm).push(command);
  const cut = [];
  for (const commands of farms.values()) {
    for (let start = 0; start < commands.length; start += MOST_AT_ONCE) cut.push(commands.slice(start, start + MOST_AT_ONCE));
  }
  return cut;
}

async function tell() {
  const all = await mine();
  const waiting = all.filter((record) => !record.why && !record.ask);
  const oldest = waiting.map((record) => record.seen_at).sort()[0] || "";
  const refused = all.filter((record) => record.why);
  const unsigned = all.filter((record) => record.ask);
  const state = { waiting: waiting.length, oldest, refused, unsigned, problem };
  for (const watcher of watchers) watcher(state);
  return state;
}

// What is sent of a record: the command as it was made. Those kept before version 0.2 tell their base as a number.
const envelope = ({ command_id, kind, v, record_id, base, base_version, seen_at, payload }) =>
  base === undefined ? { command_id, kind, record_id, base_version, seen_at, payload } : { command_id, kind, v, record_id, base, seen_at, payload };

// Of several open pages one sends at a time, where the browser can tell. One that was put to sleep while it sent is not waited
// for: what is sent twice is stored once all the same.
function alone(act) {
  if (!navigator.locks) return act();
  let begun = false;
  const turn = () => {
    begun = true;
    return act();
  };
  return navigator.locks.request("bootmark-outbox", { signal: AbortSignal.timeout(LONGEST_WAIT) }, turn).catch((error) => {
    if (begun) throw error;
    return act();
  });
}

// Sends one part; false where nothing more can be sent now. Another farm's clock is not this page's, so it is not told of one.
async function sendPart(batch) {
  const to = batch[0].farm;
  const answer = await fetch(`/f/${to}/sync`, {
    method: "POST",
    headers: { "Content-Type": "application/json", "X-CSRFToken": meta("csrf") },
    body: JSON.stringify({ sent_at: to === farm ? now() : undefined, commands: batch.map(envelope) }),
  });
  if (answer.status === 401 || answer.status === 400) {
    problem = say("sign_in_to_send");
    return false;
  }
  // No member there any more: it stays here, and the others go on.
  if (answer.status === 404) return true;
  if (!answer.ok) throw new Error("not stored");
  problem = "";
  const reply = await answer.json();
  for (const result of reply.results) await settle(batch, result);
  if (reply.results.some((result) => AGAIN.has(result.status))) later();
  return true;
}

// Sends one photograph; false where nothing more can be sent now. The same bytes for the same place are stored once.
async function sendPhoto(photo) {
  const form = new FormData();
  form.set("photo", photo.blob, "photograph");
  form.set(photo.to, photo.of);
  if (photo.keep_place) form.set("keep_place", "yes");
  for (const [name, value] of Object.entries(photo.asked || {})) form.set(name, value);
  form.set("seen_at", photo.seen_at);
  if (photo.farm === farm) form.set("sent_at", now());
  const answer = await fetch(`/f/${photo.farm}/photo`, { method: "POST", headers: { "X-CSRFToken": meta("csrf") }, body: form });
  if (answer.status === 401 || answer.status === 400 || answer.redirected) {
    problem = say("sign_in_to_send");
    return false;
  }
  if (answer.status === 404) return true;
  // Too much at once, or the database is away: nothing is wrong with the photograph, it goes later.
  if (answer.status === 429 || answer.status === 503) {
    later();
    return false;
  }
  const reply = answer.ok || answer.status === 403 || answer.status === 422 ? await answer.json() : { status: "fault" };
  await settle([photo], { ...reply, command_id: photo.command_id, photo_of: photo.of });
  if (reply.status === "fault") later();
  return true;
}

export async function send() {
  if (!farm || !account) return;
  if (sending) {
    again = true;
    return;
  }
  sending = true;
  try {
    await alone(async () => {
      const waiting = (await mine()).filter((record) => !record.why);
      for (const batch of parts(waiting.filter((record) => !record.blob))) if (!(await sendPart(batch))) return;
      for (const photo of waiting.filter((record) => record.blob)) if (!(await sendPhoto(photo))) return;
    });
  } catch (error) {
    problem = "";
    later();
  }
  sending = false;
  await tell().catch(() => {});
  if (again) {
    again = false;
    send();
  }
}

function later() {
  clearTimeout(timer);
  timer = setTimeout(send, 4000);
}

async function settle(batch, result) {
  const command = batch.find((each) => each.command_id === result.command_id);
  if (!command || result.status === "wait" || result.status === "again") return;
  if (result.status === "stored" || result.status === "conflict") {
    await store.drop(command.place);
    dispatchEvent(new CustomEvent("outbox:stored", { detail: result }));
    return;
  }
  if (result.status === "ask") {
    command.ask = true;
  } else if (result.status === "fault") {
    command.faults = (command.faults || 0) + 1;
    if (command.faults >= MOST_FAULTS) command.why = say("set_aside");
  } else {
    command.why = Object.values(result.errors || { it: say("refused") }).join(" ");
  }
  await store.put(command);
}

const placed = async (id) => (await mine()).find((command) => command.command_id === id);

// Keeps a record and hands back the id of its command, once it has been read back. It builds on the newest command of its
// record that still waits here, else on the one that the page knew. Throws where this device keeps nothing.
export async function add({ kind, v, title, record_id, base, payload }) {
  const waiting = (await mine()).filter((record) => record.record_id === record_id && !record.why);
  const builds_on = waiting.length ? waiting[waiting.length - 1].command_id : base;
  const command = { command_id: newId(), kind, v, title, record_id, base: builds_on || null, seen_at: now(), payload, farm, account, why: "" };
  return keep(command, (kept) => JSON.stringify(kept.payload) === JSON.stringify(payload));
}

// The same for a photograph. to: "stop", "enquiry" or "treatment", of: its id; asked: what is to be measured on it.
export async function addPhoto({ to, of, keep_place, blob, asked }) {
  const photo = { command_id: newId(), title: say("photograph"), to, of, keep_place, blob, asked, seen_at: now(), farm, account, why: "" };
  return keep(photo, (kept) => kept.blob?.size === blob.size);
}

async function keep(record, isThat) {
  const place = await store.put(record);
  const kept = await store.get(place);
  // What waits here must not be thrown away when the device runs short of room.
  navigator.storage?.persist?.().catch(() => {});
  if (!kept || !isThat(kept)) throw new Error("not kept");
  await tell();
  send();
  return record.command_id;
}

// Says who it is, and signs what waits for that. The sentence of what was wrong, empty where nothing was.
export async function sayAgain(password) {
  const headers = { "Content-Type": "application/json", "X-CSRFToken": meta("csrf") };
  try {
    const answer = await fetch("/again", { method: "POST", headers, body: JSON.stringify({ password }) });
    if (!answer.ok) return (await answer.json()).errors?.password || say("sign_in_to_send");
  } catch (error) {
    return say("no_signal");
  }
  for (const command of await mine()) if (command.ask) await store.put({ ...command, ask: false });
  await send();
  return "";
}

// Whoever signs out as the last on this device leaves nothing on it.
export async function leave() {
  const others = (await store.all()).filter((record) => record.account !== account);
  return others.length ? store.dropDraftsOf(account) : store.forget();
}

// What was set aside, as a file that a person can keep or hand on.
export async function exported(id) {
  const record = await placed(id);
  return record && (record.blob || new Blob([JSON.stringify(record, null, 2)], { type: "application/json" }));
}

const draftKey = (name) => [account, farm, name].join("/");
// A draft that this device does not keep is no reason to stop.
export const keepDraft = (name, value) => store.keepDraft(draftKey(name), value).catch(() => {});
export const readDraft = (name) => store.readDraft(draftKey(name)).catch(() => undefined);
export const dropDraft = (name) => store.dropDraft(draftKey(name)).catch(() => {});

export const waiting = async () => (await mine()).length;

// How many pictures wait here to be measured at a stop or a treatment.
export const picturesOf = async (of) => (await mine()).filter((record) => record.blob && record.asked && record.of === of).length;
export function watch(watcher) {
  watchers.push(watcher);
  tell().catch(() => {});
}

export async function discard(id) {
  const command = await placed(id);
  if (command) await store.drop(command.place);
  tell();
}

// Once more for what was set aside.
export async function retry(id) {
  const command = await placed(id);
  if (command) await store.put({ ...command, why: "", faults: 0 });
  send();
}

// What is told where this device keeps nothing.
export const notKept = () => say("not_kept");

addEventListener("online", send);
document.addEventListener("visibilitychange", () => document.visibilityState === "visible" && send());
addEventListener("load", () => {
  tell().catch(() => {});
  send();
});
