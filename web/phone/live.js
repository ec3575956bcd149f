// An open page is told of a newer edition at once, and asks where it cannot be told.
// Without a signal it says how old the plan is that it shows.
import { base, notice, now, root, say, setTime } from "../shell/keep.js";
import { flush } from "./queue.js";

const quiet = 50000; // ms without a word, after which the line is dead
let source, beat, retry = 1000, made = Number(root?.dataset.now ?? 0);
let edition = Number(root?.dataset.edition ?? 0);
let ended = false; // the link is good no more
export const have = () => edition;

function age() {
  const minutes = Math.max(0, Math.round((now() * 1000 - made) / 60000));
  if (minutes < 1) return say("just now");
  if (minutes < 90) return say("%s min ago", minutes);
  return minutes < 48 * 60 ? say("%s h ago", Math.round(minutes / 60)) : say("%s days ago", Math.round(minutes / 1440));
}

let silent;
function lost() {
  notice("signal", say("No signal. This is plan %s, as it was %s.", edition, age()));
  silent ??= setInterval(lost, 20000);
}

function heard(apply) {
  clearTimeout(beat);
  beat = setTimeout(() => again(apply), quiet);
  clearInterval(silent);
  silent = undefined;
  made = now() * 1000;
  retry = 1000;
  notice("signal", "");
}

// again comes back after a while, and asks meanwhile.
function again(apply) {
  source?.close();
  if (ended) return;
  lost();
  setTimeout(() => connect(apply), retry);
  retry = Math.min(retry * 2, 15000);
  ask(apply);
}

// ask looks once whether there is a newer edition.
async function ask(apply) {
  try {
    const answer = await fetch(`${base}/update?have=${edition}`);
    if (answer.status === 404) return gone();
    const update = await answer.json();
    if (update.now) setTime(update.now);
    heard(apply);
    if (update.reload || update.n > edition) take(update, apply);
  } catch {
    lost();
  }
}

async function gone() {
  ended = true;
  source?.close();
  clearTimeout(beat);
  clearInterval(silent);
  notice("signal", say("This link is no longer good. Ask your coach."));
  await (await globalThis.caches?.open("pages"))?.delete(base); // other links' pages stay
}

function take(update, apply) {
  if (update.reload) return location.reload();
  if (update.n <= edition) return;
  edition = update.n;
  root.dataset.edition = edition;
  apply(update);
  remember();
}

// remember keeps the page as it is now, for when there is no signal.
async function remember() {
  try {
    root.dataset.now = Math.round(now() * 1000);
    const page = new DOMParser().parseFromString(`<!doctype html>${document.documentElement.outerHTML}`, "text/html");
    for (const place of page.querySelectorAll("[data-notices]")) place.replaceChildren();
    const text = `<!doctype html>${page.documentElement.outerHTML}`;
    await (await caches.open("pages")).put(base, new Response(text, { headers: { "Content-Type": "text/html; charset=utf-8" } }));
  } catch {
    // it is kept at the next visit
  }
}

// begin looks at once, and listens once the page has been open for a moment: who only
// glances at it costs no line.
export function begin(apply) {
  ask(apply);
  setTimeout(() => connect(apply), 4500);
  document.addEventListener("visibilitychange", () => {
    source?.close();
    clearTimeout(beat);
    if (document.hidden) return; // nobody looks
    ask(apply);
    connect(apply);
  });
}

// connect listens for newer editions; apply shows one.
function connect(apply) {
  source?.close();
  if (document.hidden || ended) return;
  source = new EventSource(`${base}/live?have=${edition}`);
  const on = (name, does) => source.addEventListener(name, (event) => { heard(apply); does(event.data); });
  on("time", (data) => { setTime(JSON.parse(data)); flush(); });
  on("edition", (data) => take(JSON.parse(data), apply));
  on("away", (data) => dispatchEvent(new CustomEvent("away", { detail: JSON.parse(data) })));
  on("gone", gone);
  source.addEventListener("error", () => { clearTimeout(beat); again(apply); });
}

export function keepOffline() {
  navigator.serviceWorker?.register("/r/keeper.js", { scope: "/r/" }).catch(() => {});
}
