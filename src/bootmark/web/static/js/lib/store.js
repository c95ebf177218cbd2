// What this device keeps: records that wait to be sent, in the order in which they were kept, and drafts.
import { openDB } from "./idb.js";
import { account } from "./page.js";

const NAME = "bootmark";
const VERSION = 2;

async function upgrade(db, before, _, transaction) {
  if (before < 1) db.createObjectStore("drafts", { keyPath: "key" });
  // In the order in which they were kept, whatever the device's clock says.
  const queue = db.createObjectStore("queue", { keyPath: "place", autoIncrement: true });
  queue.createIndex("command_id", "command_id", { unique: true });
  if (before !== 1) return;
  // Records that version 0.2 kept, in their order by that device's clock.
  const kept = await transaction.objectStore("commands").getAll();
  for (const command of kept.sort((a, b) => a.order - b.order)) queue.add(command);
  db.deleteObjectStore("commands");
}

// Where nobody is signed in nothing is kept, and nothing is made to keep it in.
const opened = new Promise((resolve, reject) => {
  if (!account) return reject(new Error("nobody is signed in"));
  const blocked = () => reject(new Error("another page holds it"));
  const blocking = (before, wanted, event) => event.target.close();
  openDB(NAME, VERSION, { upgrade, blocked, blocking }).then(resolve, reject);
});
opened.catch(() => {});

// Acts on one store in a transaction of its own; done once that is.
async function act(name, mode, doing) {
  const transaction = (await opened).transaction(name, mode);
  const [result] = await Promise.all([doing(transaction.store), transaction.done]);
  return result;
}

export const all = () => act("queue", "readonly", (queue) => queue.getAll());
export const get = (place) => act("queue", "readonly", (queue) => queue.get(place));
export const put = (record) => act("queue", "readwrite", (queue) => queue.put(record));
export const drop = (place) => act("queue", "readwrite", (queue) => queue.delete(place));

export const keepDraft = (key, value) => act("drafts", "readwrite", (drafts) => drafts.put({ key, value }));
export const readDraft = async (key) => (await act("drafts", "readonly", (drafts) => drafts.get(key)))?.value;
export const dropDraft = (key) => act("drafts", "readwrite", (drafts) => drafts.delete(key));
export const dropDraftsOf = (owner) => act("drafts", "readwrite", (drafts) => drafts.delete(IDBKeyRange.bound(`${owner}/`, `${owner}/\uffff`)));

// Takes everything off this device.
export async function forget() {
  (await opened).close();
  return new Promise((resolve) => {
    const gone = indexedDB.deleteDatabase(NAME);
    gone.onsuccess = gone.onerror = gone.onblocked = resolve;
  });
}
