// Field entry without signal: every record is written to IndexedDB first and sent from there.
// A record leaves the outbox only when the server has said that it is stored. It belongs to one
// account and one farm, and is never sent as somebody else's. All farms of the account are sent for, in parts.
const Outbox = (() => {
  const meta = (name) => document.querySelector(`meta[name="${name}"]`)?.content || "";
  const farm = meta("farm");
  const account = meta("account");
  const AGAIN = new Set(["wait", "again", "fault"]);
  const MOST_AT_ONCE = 200;
  const MOST_FAULTS = 5;
  const LONGEST_WAIT = 10000;
  const SIGN_IN = "Kept on this device: sign in again to send it";
  const SET_ASIDE = "Bootmark failed at this record again and again: it is set aside, and the others go on.";
  const watchers = [];
  let sending = false;
  let again = false;
  let problem = "";
  let retry = null;

  // The farm's time: the page's own, and what this device's clock has run since. A demo farm's clock stands still.
  const loaded = Date.now();
  const now = () => {
    const page = document.querySelector('meta[name="farm-now"]');
    if (!page) return new Date().toISOString();
    return new Date(Date.parse(page.content) + ("stands" in page.dataset ? 0 : Date.now() - loaded)).toISOString();
  };

  // crypto.randomUUID is there on secure pages only, and a phone in the field may come by plain http.
  const newId = () => {
    const bytes = crypto.getRandomValues(new Uint8Array(16));
    bytes[6] = (bytes[6] & 15) | 64;
    bytes[8] = (bytes[8] & 63) | 128;
    const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
    return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
  };

  // Records that version 0.2 kept, in their order by that device's clock.
  function takeOver(before, queue) {
    const kept = before.getAll();
    kept.onsuccess = () => {
      for (const command of kept.result.sort((a, b) => a.order - b.order)) queue.add(command);
      before.transaction.db.deleteObjectStore("commands");
    };
  }

  // Where nobody is signed in nothing is kept, and nothing is made to keep it in.
  const opened = new Promise((resolve, reject) => {
    if (!account) return reject(new Error("nobody is signed in"));
    const request = indexedDB.open("bootmark", 2);
    request.onupgradeneeded = (event) => {
      const db = request.result;
      if (event.oldVersion < 1) db.createObjectStore("drafts", { keyPath: "key" });
      // In the order in which they were kept, whatever the device's clock says.
      const queue = db.createObjectStore("queue", { keyPath: "place", autoIncrement: true });
      queue.createIndex("command_id", "command_id", { unique: true });
      if (event.oldVersion === 1) takeOver(request.transaction.objectStore("commands"), queue);
    };
    request.onsuccess = () => {
      request.result.onversionchange = () => request.result.close();
      resolve(request.result);
    };
    request.onerror = request.onblocked = () => reject(request.error || new Error("another page holds it"));
  });
  opened.catch(() => {});

  async function store(name, mode, act) {
    const db = await opened;
    return new Promise((resolve, reject) => {
      const transaction = db.transaction(name, mode);
      const request = act(transaction.objectStore(name));
      transaction.oncomplete = () => resolve(request && request.result);
      transaction.onerror = transaction.onabort = () => reject(transaction.error);
    });
  }

  async function mine() {
    const all = await store("queue", "readonly", (s) => s.getAll());
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
    const waiting = all.filter((one) => !one.why && !one.ask);
    const oldest = waiting.map((one) => one.seen_at).sort()[0] || "";
    const state = { waiting: waiting.length, oldest, refused: all.filter((one) => one.why), unsigned: all.filter((one) => one.ask), problem };
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
      problem = SIGN_IN;
      return false;
    }
    // No member there any more: it stays here, and the others go on.
    if (answer.status === 404) return true;
    if (!answer.ok) throw new Error("not stored");
    problem = "";
    const told = await answer.json();
    for (const result of told.results) await settle(batch, result);
    if (told.results.some((result) => AGAIN.has(result.status))) later();
    return true;
  }

  // Sends one photograph; false where nothing more can be sent now. The same bytes for the same place are stored once.
  async function sendPhoto(photo) {
    const form = new FormData();
    form.set("photo", photo.blob, "photograph");
    form.set(photo.to, photo.of);
    if (photo.keep_place) form.set("keep_place", "yes");
    form.set("seen_at", photo.seen_at);
    if (photo.farm === farm) form.set("sent_at", now());
    const answer = await fetch(`/f/${photo.farm}/photo`, { method: "POST", headers: { "X-CSRFToken": meta("csrf") }, body: form });
    if (answer.status === 401 || answer.status === 400 || answer.redirected) {
      problem = SIGN_IN;
      return false;
    }
    if (answer.status === 404) return true;
    // Too much at once, or the database is away: nothing is wrong with the photograph, it goes later.
    if (answer.status === 429 || answer.status === 503) {
      later();
      return false;
    }
    const told = answer.ok || answer.status === 403 || answer.status === 422 ? await answer.json() : { status: "fault" };
    await settle([photo], { ...told, command_id: photo.command_id, photo_of: photo.of });
    if (told.status === "fault") later();
    return true;
  }

  async function send() {
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
    clearTimeout(retry);
    retry = setTimeout(send, 4000);
  }

  async function settle(batch, result) {
    const command = batch.find((each) => each.command_id === result.command_id);
    if (!command || result.status === "wait" || result.status === "again") return;
    if (result.status === "stored" || result.status === "conflict") {
      await store("queue", "readwrite", (s) => s.delete(command.place));
      dispatchEvent(new CustomEvent("outbox:stored", { detail: result }));
      return;
    }
    if (result.status === "ask") {
      command.ask = true;
    } else if (result.status === "fault") {
      command.faults = (command.faults || 0) + 1;
      if (command.faults >= MOST_FAULTS) command.why = SET_ASIDE;
    } else {
      command.why = Object.values(result.errors || { it: "The server refused it." }).join(" ");
    }
    await store("queue", "readwrite", (s) => s.put(command));
  }

  const placed = async (id) => (await mine()).find((command) => command.command_id === id);

  // Keeps a record and hands back the id of its command, once it has been read back. It builds on the newest command of its
  // record that still waits here, else on the one that the page knew. Throws where this device keeps nothing.
  async function add({ kind, v, title, record_id, base, payload }) {
    const waiting = (await mine()).filter((one) => one.record_id === record_id && !one.why);
    const builds_on = waiting.length ? waiting[waiting.length - 1].command_id : base;
    const command = { command_id: newId(), kind, v, title, record_id, base: builds_on || null, seen_at: now(), payload, farm, account, why: "" };
    return keep(command, (kept) => JSON.stringify(kept.payload) === JSON.stringify(payload));
  }

  // The same for a photograph. to: "stop" or "enquiry", of: its id.
  async function addPhoto({ to, of, keep_place, blob }) {
    const photo = { command_id: newId(), title: "A photograph.", to, of, keep_place, blob, seen_at: now(), farm, account, why: "" };
    return keep(photo, (kept) => kept.blob?.size === blob.size);
  }

  async function keep(record, isThat) {
    const place = await store("queue", "readwrite", (s) => s.put(record));
    const kept = await store("queue", "readonly", (s) => s.get(place));
    // What waits here must not be thrown away when the device runs short of room.
    navigator.storage?.persist?.().catch(() => {});
    if (!kept || !isThat(kept)) throw new Error("not kept");
    await tell();
    send();
    return record.command_id;
  }

  // Says who it is, and signs what waits for that. The sentence of what was wrong, empty where nothing was.
  async function sayAgain(password) {
    const headers = { "Content-Type": "application/json", "X-CSRFToken": meta("csrf") };
    try {
      const answer = await fetch("/again", { method: "POST", headers, body: JSON.stringify({ password }) });
      if (!answer.ok) return (await answer.json()).errors?.password || SIGN_IN;
    } catch (error) {
      return "No signal: try again where there is some.";
    }
    for (const command of await mine()) if (command.ask) await store("queue", "readwrite", (s) => s.put({ ...command, ask: false }));
    await send();
    return "";
  }

  // Whoever signs out as the last on this device leaves nothing on it.
  async function leave() {
    const others = (await store("queue", "readonly", (s) => s.getAll())).filter((record) => record.account !== account);
    if (others.length) return store("drafts", "readwrite", (s) => s.delete(IDBKeyRange.bound(`${account}/`, `${account}/\uffff`)));
    (await opened).close();
    return new Promise((resolve) => {
      const gone = indexedDB.deleteDatabase("bootmark");
      gone.onsuccess = gone.onerror = gone.onblocked = resolve;
    });
  }

  // What was set aside, as a file that a person can keep or hand on.
  async function exported(id) {
    const record = await placed(id);
    return record && (record.blob || new Blob([JSON.stringify(record, null, 2)], { type: "application/json" }));
  }

  const draftKey = (name) => [account, farm, name].join("/");
  // A draft that this device does not keep is no reason to stop.
  const keepDraft = (name, value) => store("drafts", "readwrite", (s) => s.put({ key: draftKey(name), value })).catch(() => {});
  const readDraft = async (name) => (await store("drafts", "readonly", (s) => s.get(draftKey(name))).catch(() => undefined))?.value;
  const dropDraft = (name) => store("drafts", "readwrite", (s) => s.delete(draftKey(name))).catch(() => {});

  addEventListener("online", send);
  document.addEventListener("visibilitychange", () => document.visibilityState === "visible" && send());
  addEventListener("load", () => {
    tell().catch(() => {});
    send();
  });

  return {
    NOT_KEPT: "Not kept: this browser keeps nothing. Write it down, and use a window that is not private.",
    add,
    addPhoto,
    now,
    waiting: async () => (await mine()).length,
    sayAgain,
    leave,
    exported,
    send,
    keepDraft,
    readDraft,
    dropDraft,
    watch(watcher) {
      watchers.push(watcher);
      tell().catch(() => {});
    },
    async discard(id) {
      const command = await placed(id);
      if (command) await store("queue", "readwrite", (s) => s.delete(command.place));
      tell();
    },
    // Once more for what was set aside.
    async retry(id) {
      const command = await placed(id);
      if (command) await store("queue", "readwrite", (s) => s.put({ ...command, why: "", faults: 0 }));
      send();
    },
  };
})();
window.Outbox = Outbox;
