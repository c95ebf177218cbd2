// Field entry without signal: every record is written to IndexedDB first and sent from there.
// A record leaves the outbox only when the server has said that it is stored. It belongs to one
// account and one farm, and is never sent as somebody else's.
const Outbox = (() => {
  const meta = (name) => document.querySelector(`meta[name="${name}"]`)?.content || "";
  const farm = meta("farm");
  const account = meta("account");
  const watchers = [];
  let sending = false;
  let again = false;
  let problem = "";
  let retry = null;

  const opened = new Promise((resolve, reject) => {
    const request = indexedDB.open("bootmark", 1);
    request.onupgradeneeded = () => {
      request.result.createObjectStore("commands", { keyPath: "command_id" });
      request.result.createObjectStore("drafts", { keyPath: "key" });
    };
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error);
  });

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
        const commands = batch.map(({ command_id, kind, record_id, base_version, seen_at, payload }) => ({ command_id, kind, record_id, base_version, seen_at, payload }));
        const answer = await fetch(`/f/${farm}/sync`, {
          method: "POST",
          headers: { "Content-Type": "application/json", "X-CSRFToken": meta("csrf") },
          body: JSON.stringify({ commands }),
        });
        if (answer.status === 401 || answer.status === 400) {
          problem = "Kept on this device: sign in again to send it";
        } else if (!answer.ok) {
          throw new Error("not stored");
        } else {
          problem = "";
          const told = await answer.json();
          for (const result of told.results) await settle(batch, result);
        }
      }
    } catch (error) {
      problem = "";
      clearTimeout(retry);
      retry = setTimeout(send, 4000);
    }
    sending = false;
    await tell();
    if (again) {
      again = false;
      send();
    }
  }

  async function settle(batch, result) {
    const one = batch.find((each) => each.command_id === result.command_id);
    if (!one || result.status === "wait") return;
    if (result.status === "stored" || result.status === "conflict") {
      await store("commands", "readwrite", (s) => s.delete(one.command_id));
      dispatchEvent(new CustomEvent("outbox:stored", { detail: result }));
    } else {
      one.why = Object.values(result.errors || { it: "The server refused it." }).join(" ");
      await store("commands", "readwrite", (s) => s.put(one));
    }
  }

  async function add(kind, title, record_id, base_version, seen_at, payload) {
    const command = { command_id: crypto.randomUUID(), kind, title, record_id, base_version, seen_at, payload, farm, account, order: Date.now(), why: "" };
    await store("commands", "readwrite", (s) => s.put(command));
    await tell();
    send();
    return command.command_id;
  }

  const draftKey = (name) => [account, farm, name].join("/");
  const keepDraft = (name, value) => store("drafts", "readwrite", (s) => s.put({ key: draftKey(name), value }));
  const readDraft = async (name) => (await store("drafts", "readonly", (s) => s.get(draftKey(name))))?.value;
  const dropDraft = (name) => store("drafts", "readwrite", (s) => s.delete(draftKey(name)));

  addEventListener("online", send);
  document.addEventListener("visibilitychange", () => document.visibilityState === "visible" && send());
  addEventListener("load", () => {
    tell();
    send();
  });

  return {
    add,
    send,
    keepDraft,
    readDraft,
    dropDraft,
    watch(watcher) {
      watchers.push(watcher);
      tell();
    },
    async discard(id) {
      await store("commands", "readwrite", (s) => s.delete(id));
      tell();
    },
  };
})();
window.Outbox = Outbox;
