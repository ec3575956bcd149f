// Step by step: one drill fills the phone, by the plan's clock or at one's own pace. The
// step that is shown moves only when its time is over, or by a press.
import { keep, kept, now, root, say } from "../shell/keep.js";
import { clock } from "../shell/clock.js";

const screen = document.getElementById("follow");
const field = Object.fromEntries([...(screen?.querySelectorAll("[data-f]") ?? [])].map((e) => [e.dataset.f, e]));
const press = (name) => screen.querySelector(`[data-do="${name}"]`);
const hasDay = Number(root?.dataset.start) > 0;
const set = (element, text) => { if (element.textContent !== text) element.textContent = text; };

let steps = []; // of all items, one after the other
let is = kept("follow", { mode: hasDay ? "team" : "own", id: "", since: 0, paused: 0 });
let shown; // the step on the screen
let counted = 0;
let sounds = kept("sounds", !hasDay);
let awake, audio;

const save = (next) => { is = { ...is, ...next }; keep("follow", is); };

// read takes the steps from the page's items. What is on the screen stays.
export function read(items) {
  steps = [];
  for (const item of items) {
    const moves = [...item.el.querySelectorAll("[data-move]")];
    if (item.steps.length === 0) steps.push({ id: item.key, item, from: item.from, to: item.to, event: true, drill: 0 });
    item.steps.forEach((s, n) => steps.push({ ...s, id: `${item.key} ${n}`, item, move: moves[s.drill], from: item.from + s.from, to: item.from + s.to }));
  }
}

const at = () => now() - Number(root.dataset.start);

// by the plan's clock: the step that is, or the next one.
function inTeam() {
  if (shown && !shown.event && at() >= shown.from && at() < shown.to) return shown; // also where a newer plan has it elsewhere
  return steps.find((s) => at() < s.to);
}

// at one's own pace: the step one is at. Events are the team's alone.
const alone = () => steps.filter((s) => !s.event);
function own() {
  const mine = alone();
  return mine[Math.max(0, mine.findIndex((s) => s.id === is.id))];
}

const seconds = (s) => s.to - s.from;
const timed = (s) => s.kind !== "";
const spent = () => (is.paused || now()) - is.since;

export const following = () => screen && !screen.hidden;
export const current = () => shown;

export function tick() {
  if (!following()) return;
  const step = is.mode === "team" ? inTeam() : is.id === "over" ? undefined : own();
  if (is.mode === "own" && step && timed(step) && !is.paused && spent() >= seconds(step)) {
    // Asleep through it, nobody is sent on: what comes next waits for its press.
    if (spent() < seconds(step) + 5) return go(1);
    save({ paused: is.since + seconds(step) });
  }
  if (step !== shown) draw(step);
  if (step) move(step);
}

function move(step) {
  const waits = is.mode === "team" && at() < step.from;
  const left = is.mode === "team" ? (waits ? step.from : step.to) - at() : timed(step) ? seconds(step) - spent() : null;
  const whole = left === null ? null : Math.max(0, Math.ceil(left));
  const next = after(step);
  set(field.when, waits ? say("Start in %s", clock(whole)) : next ? (whole === null ? say("Next") : say("Next, in %s", clock(whole))) : "");
  field.nextcues.hidden = !(whole === null || whole <= 10 || waits);
  const last = is.mode === "own" ? timed(step) : !next || next.item !== step.item || next.drill !== step.drill;
  if (whole !== null && whole > 0 && whole <= 3 && last && counted !== whole && !is.paused) beep(whole === 1 ? 880 : 660);
  counted = whole;
  if (is.mode === "own" && timed(step)) set(field.figure, clock(whole));
  set(press("wait"), is.paused ? say("Go on") : say("Wait"));
}

function after(step) {
  const all = is.mode === "own" ? alone() : steps;
  return all[all.findIndex((s) => s.id === step.id) + 1];
}

function draw(step) {
  const changed = !shown || !step || shown.item.key !== step.item.key || shown.drill !== step.drill;
  shown = step;
  screen.classList.toggle("follow-own", is.mode === "own");
  press("team")?.toggleAttribute("hidden", is.mode === "team");
  for (const name of hasDay ? ["own"] : []) press(name).hidden = is.mode === "own";
  field.keys.hidden = is.mode === "team";
  set(field.pace, is.mode === "team" ? say("with the team") : say("my own pace"));
  for (const name of ["easier", "sore"]) press(name)?.toggleAttribute("hidden", !step || Boolean(step.event));
  for (const name of ["what", "figure", "unit", "parts", "caution", "next", "dose", "nextcues", "when", "block"]) field[name].textContent = "";
  field.bar.replaceChildren();
  field.map.replaceChildren();
  if (changed) {
    field.cues.replaceChildren();
    field.look.replaceChildren();
  }
  field.panel.className = `follow-step hatched is-${step?.item.el.querySelector("[data-phase]")?.dataset.phase ?? "fixed"}`;
  field.letter.textContent = step?.item.el.querySelector("summary .tile")?.textContent ?? "";
  field.picture.hidden = true;
  if (!step) {
    field.drill.textContent = say("Done. Well prepared.");
    return;
  }
  const here = steps.filter((s) => s.item === step.item);
  const drills = [...new Set(here.map((s) => s.drill))];
  const name = step.item.el.querySelector("[data-name]").textContent;
  const place = step.item.el.querySelector("[data-where]")?.textContent;
  field.block.textContent = [step.event ? "" : `${say("%s of %s", drills.indexOf(step.drill) + 1, drills.length)} · ${name}`, place].filter(Boolean).join(" · ");
  if (step.event) {
    field.drill.textContent = name;
    field.what.textContent = say("Be there.");
  } else {
    field.drill.textContent = step.move.querySelector("[data-drill]").textContent;
    field.what.textContent = step.what;
    field.figure.textContent = step.figure;
    field.unit.textContent = step.unit;
    if (changed) {
      for (const cue of step.move.querySelectorAll("[data-cues] li")) field.cues.append(cue.cloneNode(true));
      const look = step.move.querySelector("[data-look] svg");
      if (look) field.look.append(look.cloneNode(true));
    }
    const near = step.move.querySelector("[data-look]")?.dataset.near;
    field.look.classList.toggle("mirrored", Boolean(step.side && near && step.side !== near)); // the other side does it
    const picture = step.move.querySelector("[data-picture]");
    field.picture.hidden = !picture;
    if (picture && field.picture.src !== picture.src) field.picture.src = picture.src;
    field.caution.textContent = step.move.querySelector("[data-caution]")?.textContent ?? "";
    const map = step.item.el.querySelector("svg.ground");
    if (map && drills.at(-1) === step.drill) field.map.append(map.cloneNode(true)); // where one goes next
    bar(step, here.filter((s) => s.drill === step.drill && s.round === step.round));
  }
  coming(step);
}

// bar shows the parts of a drill: done, under way, to come.
function bar(step, parts) {
  const names = parts.map((p) => p.short).filter(Boolean);
  field.parts.textContent = names.length > 1 && names.join().length <= 90 ? names.join(" · ") : "";
  for (const part of parts) {
    const place = document.createElement("span");
    const fill = document.createElement("i");
    place.append(fill);
    field.bar.append(place);
    if (part.from < step.from) fill.className = "full";
    if (part.id !== step.id) continue;
    const gone = is.mode === "team" ? at() - step.from : spent();
    if (is.mode === "team" || (timed(step) && !is.paused)) run(fill, seconds(step), gone);
    else if (is.paused) run(fill, seconds(step), gone).pause();
  }
}

// run moves a bar by itself: the browser draws it between the ticks.
export function run(fill, length, gone) {
  const moves = fill.animate([{ transform: "scaleX(0)" }, { transform: "scaleX(1)" }], { duration: Math.max(1, length * 1000), delay: Math.max(0, -gone * 1000), fill: "both" });
  moves.currentTime = Math.max(0, gone * 1000);
  return moves;
}

function coming(step) {
  const next = after(step);
  if (!next) return;
  const same = next.item === step.item && next.drill === step.drill && !next.event;
  const name = next.event ? next.item.el.querySelector("[data-name]").textContent : next.move.querySelector("[data-drill]").textContent;
  field.next.textContent = same ? next.short || next.what || name : name;
  field.dose.textContent = next.event ? "" : same ? `${next.figure} ${next.unit}` : next.move.querySelector("[data-dose]")?.textContent ?? "";
  field.nextcues.textContent = same || next.event ? "" : [...next.move.querySelectorAll("[data-cues] li")].map((c) => c.textContent).join(". ");
}

// go leads so many steps on, at one's own pace.
function go(by) {
  const mine = alone();
  const to = is.id === "over" ? mine.length - 1 : mine.indexOf(own()) + by;
  shown = null;
  save({ id: mine[Math.max(0, to)]?.id ?? "over", since: now(), paused: 0 });
  if (by > 0) beep(990, true);
  tick();
}

function beep(pitch, end) {
  if (!sounds) return;
  navigator.vibrate?.(end ? 200 : 60);
  try {
    audio ??= new AudioContext();
    const tone = audio.createOscillator();
    const loud = audio.createGain();
    loud.gain.value = 0.2;
    tone.frequency.value = pitch;
    tone.connect(loud).connect(audio.destination);
    tone.start();
    tone.stop(audio.currentTime + (end ? 0.3 : 0.12));
  } catch {
    // a phone without sound
  }
}

async function stayAwake() {
  try {
    if (following() && !document.hidden) awake = await navigator.wakeLock?.request("screen");
  } catch {
    // it is low on power
  }
}
document.addEventListener("visibilitychange", stayAwake);

export const does = {
  follow: () => { location.hash = "steps"; },
  list: () => { location.hash = ""; },
  own: () => {
    // From where the team is; alone, from where one was.
    const step = [shown, inTeam()].find((s) => s && !s.event) ?? alone().find((s) => s.from >= at()) ?? alone()[0];
    save({ mode: "own", id: is.id && is.id !== "over" && !hasDay ? is.id : step?.id, since: now(), paused: 0 });
    shown = null;
    location.hash = "steps";
    tick();
  },
  team: () => { save({ mode: "team" }); shown = null; tick(); },
  back: () => go(-1),
  again: () => go(0),
  done: () => go(1),
  wait: () => {
    save(is.paused ? { since: now() - (is.paused - is.since), paused: 0 } : { paused: now() });
    shown = null;
    tick();
  },
  sound: (button) => {
    sounds = !sounds;
    keep("sounds", sounds);
    button.setAttribute("aria-pressed", sounds);
    beep(880);
  },
};

export function show() {
  if (!screen) return;
  const open = location.hash === "#steps";
  screen.hidden = !open;
  root.hidden = open;
  press("sound").setAttribute("aria-pressed", sounds);
  if (!open) {
    awake?.release?.();
    return;
  }
  shown = undefined;
  scrollTo(0, 0);
  stayAwake();
  tick();
}
addEventListener("hashchange", show);
