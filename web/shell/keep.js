// What the phone keeps between visits. A phone that keeps nothing, or is full, still
// shows everything; it says so where it matters.
export const root = document.querySelector("[data-base]");
export const base = root?.dataset.base ?? "";
const said = JSON.parse(root?.dataset.said || "{}");

// say is a sentence in the page's language.
export const say = (key, ...args) => (said[key] ?? key).replace(/%s/g, () => args.shift());

const memory = {}; // what a full phone could not keep
export function keep(name, value) {
  try {
    localStorage.setItem(`${base} ${name}`, JSON.stringify(value));
    delete memory[name];
    return true;
  } catch {
    memory[name] = value;
    return false;
  }
}
export function kept(name, otherwise) {
  if (name in memory) return memory[name];
  try {
    const text = localStorage.getItem(`${base} ${name}`);
    if (text !== null) return JSON.parse(text);
  } catch {
    // what was kept is no use
  }
  return otherwise;
}

// The time is the server's, however the phone's clock is set: the difference is kept for
// when there is no signal.
// It is one for all pages of the site.
const clockOff = "clock off";
export const timeKnown = () => {
  try {
    return localStorage.getItem(clockOff) !== null;
  } catch {
    return false;
  }
};
let off = 0;
try {
  off = Number(localStorage.getItem(clockOff)) || 0;
} catch {
  // it is told again
}
export const now = () => (Date.now() + off) / 1000;
export function setTime(server) {
  off = server - Date.now();
  try {
    localStorage.setItem(clockOff, off);
  } catch {
    // it is told again
  }
  const minutes = Math.round(Math.abs(off) / 60000);
  notice("clock", minutes > 0 ? say("Your phone's clock is %s min off. Ours is used.", minutes) : "");
}

// notices are what is said on top of the page, each under a name; "" ends one. With
// label and done it has a button.
const notices = new Map();
export function notice(name, text, label, done) {
  const was = notices.get(name);
  if (!text && !was) return;
  if (was && was.text === text && was.label === label) { // it stays under the thumb that is on it
    was.done = done;
    return;
  }
  if (text) notices.set(name, { text, label, done });
  else notices.delete(name);
  for (const place of document.querySelectorAll("[data-notices]")) {
    place.replaceChildren(...[...notices].map(([key, n]) => {
      const line = document.createElement("p");
      line.className = "notice mt-2 flex items-center gap-3";
      line.dataset.notice = key;
      const words = document.createElement("span");
      words.className = "grow min-w-0";
      words.textContent = n.text;
      line.append(words);
      if (n.label) {
        const button = document.createElement("button");
        button.type = "button";
        button.className = "act act-small shrink-0";
        button.textContent = n.label;
        button.addEventListener("click", () => n.done());
        line.append(button);
      }
      return line;
    }));
  }
}
