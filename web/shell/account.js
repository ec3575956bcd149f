// Who is signed in on this browser. What the pages of another account have kept here goes,
// but for presses that were not sent: those wait for whoever pressed them.
export const account = document.documentElement.dataset.account ?? "";
const kept = /^\/pitch\/\d+ (events|waiting) @(\d+)$/;

const keys = () => Object.keys(localStorage).filter((key) => kept.test(key));
const read = (key) => {
  try {
    return JSON.parse(localStorage.getItem(key)) ?? [];
  } catch {
    return [];
  }
};

// unsent counts the presses on this browser that were not sent, of this account or of others.
export function unsent(mine) {
  return keys().filter((key) => kept.exec(key)[1] === "waiting" && (kept.exec(key)[2] === account) === mine)
    .reduce((n, key) => n + read(key).length, 0);
}

// drop deletes what others have kept here.
export function drop() {
  for (const key of keys()) if (kept.exec(key)[2] !== account) localStorage.removeItem(key);
}

// thin leaves of others' only what they have not sent.
function thin() {
  for (const key of keys()) {
    const [, what, whose] = kept.exec(key);
    if (whose === account || what !== "events") continue;
    const waiting = read(key.replace("events", "waiting"));
    const left = read(key).filter((e) => waiting.includes(e.id));
    if (left.length > 0) localStorage.setItem(key, JSON.stringify(left));
    else localStorage.removeItem(key);
  }
}

export async function onlyMine() {
  if (!account) return;
  try {
    thin();
    for (const name of await caches.keys()) if (name.startsWith("pages @") && name !== `pages @${account}`) await caches.delete(name);
    const pages = await caches.open("pages"); // of before accounts were told apart
    for (const page of await pages.keys()) if (new URL(page.url).pathname.startsWith("/pitch/")) await pages.delete(page);
    await (await caches.open("whose")).put("/whose", new Response(account));
  } catch {
    // this browser keeps nothing
  }
}

// leave asks before somebody signs out over presses that were not sent: they go with it.
export function leave() {
  const form = document.querySelector('form[action="/sign-out"]');
  form?.addEventListener("submit", (event) => {
    const n = unsent(true);
    if (n === 0 || form.dataset.sure) return;
    event.preventDefault();
    form.dataset.sure = "yes";
    form.querySelector("button").textContent = `Sign out and lose ${n} unsent`;
  });
}
