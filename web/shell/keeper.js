// The keeper answers for the pages of a link, or of the pitch side, where there is no signal:
// the newest page that was opened, whole, with its style, script and fonts. What is of an
// account is kept for that account alone, and goes when another is seen. The list of files
// comes before this.
const shelf = `files ${self.registration.scope}`;

self.addEventListener("install", (event) => {
  event.waitUntil(caches.open(shelf).then((cache) => cache.addAll(files)).then(() => self.skipWaiting()));
});

self.addEventListener("activate", (event) => {
  event.waitUntil((async () => {
    const cache = await caches.open(shelf);
    await caches.delete("files"); // as it was called once
    for (const old of await cache.keys()) if (!files.includes(new URL(old.url).pathname)) await cache.delete(old);
    await self.clients.claim();
    // The page that brought the keeper was loaded without it.
    for (const page of await self.clients.matchAll()) {
      try {
        const answer = await fetch(page.url);
        if (answer.ok && !answer.redirected) await (await caches.open(await shelfOf(answer))).put(new URL(page.url).pathname, answer);
      } catch {
        // it is kept at the next visit
      }
    }
  })());
});

const whose = async () => (await (await caches.open("whose")).match("/whose"))?.text() ?? "";

// shelfOf is where an answer is kept: an account's by itself.
async function shelfOf(answer) {
  const account = answer.headers.get("X-Account");
  if (!account) return "pages";
  if (account !== await whose()) {
    for (const name of await caches.keys()) if (name.startsWith("pages @")) await caches.delete(name);
    await (await caches.open("whose")).put("/whose", new Response(account));
  }
  return `pages @${account}`;
}

// kept is the page of a path as it was kept last: at the pitch side, for who is signed in.
async function kept(path) {
  const pages = await caches.open(path.startsWith("/pitch/") ? `pages @${await whose()}` : "pages");
  return (await pages.match(path)) ?? (await caches.open(shelf)).match(path);
}

const within = (ms) => new Promise((_, fail) => setTimeout(fail, ms));

async function page(request) {
  const path = new URL(request.url).pathname;
  const old = await kept(path);
  try {
    const coming = fetch(request);
    const answer = await (old ? Promise.race([coming, within(4000)]) : coming);
    const pages = await caches.open(await shelfOf(answer));
    if (answer.ok && !answer.redirected) await pages.put(path, answer.clone()).catch(() => {});
    else if (answer.status === 403 || answer.status === 404) await pages.delete(path);
    return answer.status >= 500 && old ? old : answer;
  } catch (lost) {
    if (old) return old;
    throw lost;
  }
}

// A picture is kept as it was: one that is new has another address.
async function picture(request) {
  const pictures = await caches.open("pages");
  const old = await pictures.match(request);
  if (old) return old;
  const answer = await fetch(request);
  if (answer.ok) await pictures.put(request, answer.clone()).catch(() => {});
  return answer;
}

self.addEventListener("fetch", (event) => {
  const { pathname } = new URL(event.request.url);
  if (event.request.method !== "GET") return;
  if (pathname.startsWith("/assets/")) event.respondWith(caches.match(event.request).then((file) => file ?? fetch(event.request)));
  else if (pathname.includes("/picture/")) event.respondWith(picture(event.request));
  else if (event.request.mode === "navigate" || /\/(plan\.json|field\.js)$/.test(pathname)) event.respondWith(page(event.request));
});
