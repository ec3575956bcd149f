// My run-in keeps its own time: the page holds every moment, so that it counts down and
// is followed with no signal. Only what is shown as now and next changes.
import { clock, hour, toGo } from "../shell/clock.js";
import { current, does, following, read, run, show, tick as follow } from "./follow.js";
import "./grid.js";
import { keep, kept, notice, now, root, say, setTime, timeKnown } from "../shell/keep.js";
import { begin, have, keepOffline } from "./live.js";
import { flush, tell } from "./queue.js";
import { onWall, wall } from "./wall.js";

const start = () => Number(root.dataset.start);
const steps = (el) => (JSON.parse(el.querySelector("[data-steps]")?.textContent || "null") ?? [])
  .map((step) => ({ kind: "", what: "", short: "", side: "", ...step }));

let items = [];
let opened = null; // the item that was opened for its time

function readPage() {
  items = [...document.querySelectorAll("[data-items] > [data-key]")].map((el) => ({
    el, key: el.dataset.key, from: Number(el.dataset.from), to: Number(el.dataset.to), steps: steps(el), details: el.querySelector("details"),
  }));
  read(items);
}

function countdown(at) {
  const words = at > 0 ? "since the start" : -at >= 86400 ? "to go" : -at >= 3600 ? "hours to go" : "minutes to go";
  for (const e of document.querySelectorAll("[data-countdown]")) e.textContent = at > 0 ? `+${clock(at)}` : clock(at);
  for (const e of document.querySelectorAll("[data-caption]")) e.textContent = say(words);
}

function tick() {
  if (start() > 0) {
    const at = Math.round(now() - start());
    countdown(at);
    if (onWall) return wall();
    if (!following()) list(at);
  }
  follow();
}

// rate shows how hard it was, once it is over.
function rate(hard) {
  for (const button of document.querySelectorAll("[data-hard]")) {
    const is = button.dataset.hard === hard;
    button.classList.toggle("act-chosen", is);
    button.setAttribute("aria-pressed", is);
  }
}

function list(at) {
  document.querySelector("[data-effort]")?.toggleAttribute("hidden", at < 0);
  const next = items.find((item) => item.to > at);
  if (next?.key !== opened) {
    // Only when it changes, so that what was tapped open stays so.
    const was = items.find((item) => item.key === opened);
    if (was) was.details.open = false;
    if (next) next.details.open = true;
    opened = next?.key;
  }
  for (const item of items) {
    const is = item === next && item.from <= at;
    if (is && !item.runs) item.runs = item.el.querySelector(".mine-bar i") && run(item.el.querySelector(".mine-bar i"), item.to - item.from, at - item.from);
    item.details.classList.toggle("past", item.to <= at);
    item.details.classList.toggle("now", is);
    item.details.classList.toggle("next", item === next && item.from > at);
    item.el.querySelector("[data-left]").textContent = item !== next ? "" : is ? say("%s left", clock(item.to - at)) : say("in %s", clock(item.from - at));
  }
}

// apply shows a newer edition: what is otherwise anew, the rest at its new time.
function apply(update) {
  root.dataset.start = update.start;
  const place = document.querySelector("[data-items]");
  const old = Object.fromEntries(items.map((item) => [item.key, item.el]));
  place.replaceChildren(...update.items.map(({ key, from, to, html }) => {
    let el = old[key];
    if (html) {
      const made = document.createElement("template");
      made.innerHTML = html.trim();
      el = made.content.firstElementChild;
      el.querySelector("details").open = old[key]?.querySelector("details").open ?? false;
    }
    Object.assign(el.dataset, { from, to });
    el.querySelector("[data-togo]").textContent = toGo(from);
    el.querySelector("[data-clock]").textContent = hour(update.start + from, root.dataset.zone);
    return el;
  }));
  for (const e of document.querySelectorAll("[data-bar]")) e.textContent = update.bar;
  for (const [place, text] of [["[data-day]", update.day], ["[data-plan]", `${say("Plan %s", update.n)}, ${update.at}`], ["[data-carry]", update.carry]]) {
    const e = document.querySelector(place);
    if (e) e.textContent = text;
  }
  document.querySelector("[data-carry]")?.closest("p").toggleAttribute("hidden", !update.carry);
  const later = document.querySelector("[data-later]");
  if (update.later && later) later.innerHTML = update.later;
  readPage();
  changed(update.changes?.length ? update.changes.join(". ") : say("Nothing changes for you."));
  tick();
}

// changed says what is new, until it was seen.
function changed(words) {
  const number = have();
  notice("edition", `${say("Plan %s", number)}: ${words}`, "OK", () => {
    notice("edition", "");
    tell("/seen", { number });
  });
}

async function send(fields) {
  const became = await tell("/say", fields);
  const pain = fields.kind === "pain" ? `${say("Stop now. Go to medical staff, or tell your coach face to face.")} ` : "";
  const said = { sent: say("Sent"), later: say("Will be sent when there is a signal"), refused: "" }[became]; // why it was refused is said apart
  notice("sent", pain + said, "OK", () => notice("sent", ""));
}

const about = () => {
  const step = current();
  return step && !step.event ? { block: step.item.key, item: step.drill } : {};
};

function toggle(button, id) {
  const panel = document.getElementById(id);
  panel.hidden = !panel.hidden;
  button.setAttribute("aria-expanded", !panel.hidden);
  if (!panel.hidden) panel.scrollIntoView({ block: "nearest" });
}

// Who is late, or missed, is marked on a leader's page while it is open.
addEventListener("away", ({ detail }) => {
  for (const button of document.querySelectorAll("[data-missing]")) {
    const at = detail[button.dataset.missing];
    button.classList.toggle("act-late", at !== undefined);
    if (at && !button.textContent.includes(at)) button.textContent = `${button.textContent.split("·")[0].trim()} · ${at}`;
  }
});

let how = "sore";
function pressed(event) {
  const button = event.target.closest("button");
  if (!button) return;
  const { do: name, late, joint, how: next } = button.dataset;
  const { missing, choice, hard } = button.dataset;
  if (hard) {
    keep("effort", hard);
    rate(hard);
    send({ kind: "effort", says: hard });
  }
  if (missing) {
    button.classList.add("act-late");
    send({ kind: "missing", says: missing, block: button.parentElement.dataset.block });
  }
  if (name === "late") toggle(button, "late");
  else if (name === "sore") toggle(button, "sore");
  else if (name === "easier") {
    const easier = current()?.move?.dataset.easier;
    if (easier) notice("easier", easier, "OK", () => notice("easier", ""));
    send({ kind: "easier", ...about() });
  } else if (name) does[name]?.(button);
  if (choice) {
    for (const b of button.parentElement.children) b.classList.toggle("act-chosen", b === button);
    send({ kind: "choice", says: choice, block: button.parentElement.dataset.block });
  }
  if (late) {
    document.getElementById("late").hidden = true;
    send({ kind: "late", says: late });
  }
  if (next) {
    how = next;
    for (const b of document.querySelectorAll("[data-how]")) {
      b.classList.toggle("act-chosen", b === button);
      b.setAttribute("aria-pressed", b === button);
    }
  }
  if (joint) {
    document.getElementById("sore").hidden = true;
    document.querySelector('[data-do="sore"]').setAttribute("aria-expanded", false);
    send({ kind: how, says: joint, ...about() });
  }
}

// Who leads puts one of theirs on the easier form: the coach has it with one press.
function eased({ target }) {
  const { easierFor, block } = target.dataset;
  if (easierFor === undefined || !target.value) return;
  send({ kind: "easier", says: target.value, block, item: easierFor });
}

if (root?.dataset.said) {
  readPage();
  document.addEventListener("change", eased);
  document.addEventListener("click", pressed);
  if (start() > 0) {
    const loaded = performance.getEntriesByType("navigation")[0];
    if (loaded && !loaded.workerStart && !timeKnown()) setTime(Number(root.dataset.now) + performance.now() - loaded.responseStart);
    begin(apply);
    keepOffline();
    flush();
    rate(kept("effort", ""));
  }
  show();
  tick();
  // What is over lies above: the eye meets what is now.
  if (items.some((item) => item.to <= now() - start())) items.find((item) => item.key === opened)?.el.scrollIntoView();
  setInterval(tick, 250);
}
