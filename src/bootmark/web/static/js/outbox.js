// Field entry without signal: every record is written to IndexedDB first and sent from there.
// A record leaves the outbox only when the server has said that it is stored. It belongs to one
// account and one farm, and is never sent as somebody else's.
const Outbox = (() => {
  const meta = (name) => document.querySelector(`meta[name="${name}"]`)?.content || "";
  const farm = meta("farm");
  const account = meta("account");
  const AGAIN = new Set(["wait", "again", "fault"]);
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

  const opened = new Promise((resolve, reject) => {
    const request = indexedDB.open("bootmark", 1);
    request.onupgradeneeded = () => {
      request.result.createObjectStore("commands", { keyPath: "command_id" });
      request.result.createObjectStore("drafts", { keyPath: "key" });
    };
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error);
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
    const all = await store("commands", "readonly", (s) => s.getAll());
    return all.filter((one) => one.farm === farm && one.account === account).sort((a, b) => a.order - b.order);
  }

  async function tell() {
    const all = await mine();
    const state = { waiting: all.filter((one) => !one.why).length, refused: all.filter((one) => one.why), problem };
    for (const watcher of watchers) watcher(state);
    return state;
  }

  // What is sent of a record: the command as it was made. Those kept before version 0.2 tell their base as a number.
  const envelope = ({ command_id, kind, v, record_id, base, base_version, seen_at, payload }) =>
    base === undefined ? { command_id, kind, record_id, base_version, seen_at, payload } : { command_id, kind, v, record_id, base, seen_at, payload };

  async function send() {
    if (!farm || !account) return;
    if (sending) {
      again = true;
      return;
    }
    sending = true;
    try {
      const batch = (await mine()).filter((one) => !one.why);
      if (batch.length) {
        const answer = await fetch(`/f/${farm}/sync`, {
          method: "POST",
          headers: { "Content-Type": "application/json", "X-CSRFToken": meta("csrf") },
          body: JSON.stringify({ sent_at: now(), commands: batch.map(envelope) }),
        });
        if (answer.status === 401 || answer.status === 400) {
          problem = "Kept on this device: sign in again to send it";
        } else if (!answer.ok) {
          throw new Error("not stored");
        } else {
          problem = "";
          const told = await answer.json();
          for (const result of told.results) await settle(batch, result);
          if (told.results.some((result) => AGAIN.has(result.status))) later();
        }
      }
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
    const one = batch.find((each) => each.command_id === result.command_id);
    if (!one || AGAIN.has(result.status)) return;
    if (result.status === "stored" || result.status === "conflict") {
      await store("commands", "readwrite", (s) => s.delete(one.command_id));
      dispatchEvent(new CustomEvent("outbox:stored", { detail: result }));
    } else {
      one.why = Object.values(result.errors || { it: "The server refused it." }).join(" ");
      await store("commands", "readwrite", (s) => s.put(one));
    }
  }

  // Keeps a record and hands back the id of its command, once it has been read back. It builds on the newest command of its
  // record that still waits here, else on the one that the page knew. Throws where this device keeps nothing.
  async function add({ kind, v, title, record_id, base, payload }) {
    const waiting = (await mine()).filter((one) => one.record_id === record_id && !one.why);
    const builds_on = waiting.length ? waiting[waiting.length - 1].command_id : base;
    const command = { command_id: newId(), kind, v, title, record_id, base: builds_on || null, seen_at: now(), payload, farm, account, order: Date.now(), why: "" };
    await store("commands", "readwrite", (s) => s.put(command));
    const kept = await store("commands", "readonly", (s) => s.get(command.command_id));
    if (!kept || JSON.stringify(kept.payload) !== JSON.stringify(payload)) throw new Error("not kept");
    await tell();
    send();
    return command.command_id;
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
    send,
    keepDraft,
    readDraft,
    dropDraft,
    watch(watcher) {
      watchers.push(watcher);
      tell().catch(() => {});
    },
    async discard(id) {
      await store("commands", "readwrite", (s) => s.delete(id));
      tell();
    },
  };
})();
window.Outbox = Outbox;
