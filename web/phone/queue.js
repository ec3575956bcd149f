// What was pressed is kept until it has arrived, and arrives once: each press has a name
// of its own, by which the server knows it again.
import { base, keep, kept, notice, now, say } from "../shell/keep.js";

const name = () => Array.from(crypto.getRandomValues(new Uint8Array(12)), (n) => n.toString(16).padStart(2, "0")).join("");
let sending; // what is on its way
const refused = new Set(); // what the server did not keep

// tell sends a press to an address under the page's own, now or later; it tells what became
// of it: sent, later, or refused, which is said on top of the page.
export async function tell(path, fields) {
  const press = { path, fields: { ...fields, once: name(), pressed: Math.round(now() * 1000) } };
  if (!keep("queue", [...kept("queue", []), press])) notice("full", say("This phone is full: keep the page open until it is sent."));
  await sending; // with what was pressed before
  await flush();
  if (refused.has(press.fields.once)) return "refused";
  return kept("queue", []).some((p) => p.fields.once === press.fields.once) ? "later" : "sent";
}

// flush sends what waits, the oldest first; it tells whether all of it arrived.
export function flush() {
  return (sending ??= send().finally(() => { sending = undefined; }));
}

async function send() {
  try {
    for (let waiting; (waiting = kept("queue", [])).length > 0; ) {
      const press = waiting[0];
      const answer = await fetch(base + press.path, { method: "POST", body: new URLSearchParams(press.fields), signal: AbortSignal.timeout?.(10000) });
      if (answer.status >= 500) throw new Error(answer.status);
      if (answer.status === 429) throw new Error(answer.status); // once more in a while
      const why = { 422: () => answer.text(), 404: () => say("This link is no longer good. Ask your coach.") }[answer.status];
      notice("refused", answer.ok ? "" : why ? await why() : say("That was not kept. Tell your coach."));
      if (!answer.ok) refused.add(press.fields.once);
      keep("queue", kept("queue", []).filter((p) => p.fields.once !== press.fields.once));
    }
    notice("queue", "");
    notice("full", "");
    return true;
  } catch {
    notice("queue", say("%s to send", kept("queue", []).length));
    return false;
  }
}

addEventListener("online", flush);
setInterval(() => kept("queue", []).length > 0 && flush(), 5000);
