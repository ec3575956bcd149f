// What was pressed stays on the phone until the server has it, and is told to the others
// from there. Events are never changed: phones that were apart put theirs together.
import { base, keep, kept, notice, now, setTime } from "../shell/keep.js";
import { account, drop, onlyMine, unsent } from "../shell/account.js";

const name = () => Array.from(crypto.getRandomValues(new Uint8Array(12)), (n) => n.toString(16).padStart(2, "0")).join("");
const quiet = 50000; // ms without a word, after which the line is dead
const most = 100; // events sent at once
const mostBytes = 200000; // of them
const mine = (what) => `${what} @${account}`; // kept for this account alone

// others says that somebody else has pressed on this phone what was not sent: it is theirs to
// send.
function others() {
  const n = unsent(false);
  notice("others", n > 0 ? `Somebody else pressed ${n === 1 ? "once" : `${n} times`} on this phone without a signal. It is sent when they sign in here again.` : "",
    "Delete it", () => { drop(); others(); });
}

export default function events({ me, rehearsed, changed, refused }) {
  let all = rehearsed ? [] : kept(mine("events"), []);
  let waiting = rehearsed ? [] : kept(mine("waiting"), []); // ids of those that the server does not have
  let last = 0; // how many have come in there
  let source, beat, sending, signal = true;

  const save = () => rehearsed || (keep(mine("events"), all), keep(mine("waiting"), waiting));
  onlyMine().then(others);

  function join(list) {
    const known = new Set(all.map((e) => e.id));
    const fresh = list.filter((e) => !known.has(e.id));
    const server = new Set(list.map((e) => e.id));
    waiting = waiting.filter((id) => !server.has(id));
    all = all.map((e) => list.find((s) => s.id === e.id) ?? e).concat(fresh);
    save();
    return fresh;
  }

  function heard(is) {
    signal = true;
    clearTimeout(beat);
    beat = setTimeout(listen, quiet);
    setTime(is.now);
    last = Math.max(last, is.last);
    for (const one of is.refused ?? []) {
      waiting = waiting.filter((id) => id !== one.id);
      refused(one.says);
    }
    const fresh = join(is.events ?? []);
    changed(fresh, is);
  }

  function lost() {
    signal = false;
    changed([]);
  }

  function listen() {
    if (rehearsed) return;
    source?.close();
    if (document.hidden) return;
    source = new EventSource(`${base}/live?have=${last}`);
    source.addEventListener("pressed", (event) => { heard(JSON.parse(event.data)); flush(); });
    source.addEventListener("error", lost);
  }

  async function send() {
    while (waiting.length > 0) {
      let bytes = 0; // as many as one form holds, one at the least
      const part = all.filter((e) => waiting.includes(e.id)).slice(0, most)
        .filter((e, i) => (bytes += encodeURIComponent(JSON.stringify(e)).length) < mostBytes || i === 0);
      const fields = { events: JSON.stringify(part), have: last };
      const answer = await fetch(`${base}/press`, { method: "POST", body: new URLSearchParams(fields), headers: { "X-Part": "pressed" }, signal: AbortSignal.timeout?.(10000) });
      if (answer.status < 500 && answer.headers.get("X-Says")) return refused(await answer.text()); // it waits here
      if (answer.redirected) return refused("You are signed out. Sign in again: what was pressed is kept, and sent then.");
      if (!answer.ok) throw new Error(answer.status);
      const is = await answer.json();
      waiting = waiting.filter((id) => !part.some((e) => e.id === id));
      heard(is);
    }
  }

  // flush sends what waits.
  function flush() {
    if (rehearsed || waiting.length === 0) return;
    sending ??= send().catch(lost).finally(() => { sending = undefined; });
  }

  addEventListener("online", () => { listen(); flush(); });
  document.addEventListener("visibilitychange", listen);
  setInterval(flush, 5000);

  return {
    listen,
    flush,
    join: (is) => { last = Math.max(last, is.last); if (!rehearsed) join(is.events ?? []); },
    all: () => all,
    waiting: () => waiting.length,
    signal: () => signal,
    // press keeps an event, and returns it.
    press(event) {
      const made = { id: name(), by: me, account: Number(account), at: Math.round(now() * 1000), ...event };
      all = all.concat(made);
      if (!rehearsed) waiting = waiting.concat(made.id);
      save();
      flush();
      return made;
    },
  };
}
