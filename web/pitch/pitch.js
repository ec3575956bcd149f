// The pitch side: what is on, what comes, and what is different today, worked out by the
// core on this phone.
import Alpine from "@alpinejs/csp";
import { base, now as clockNow, root, setTime } from "../shell/keep.js";
import { clock, hour } from "../shell/clock.js";
import core from "./core.js";
import events from "./events.js";

const again = 2000; // ms after which the view is worked out anew

Alpine.data("pitch", () => ({
  view: JSON.parse(root.dataset.view),
  said: JSON.parse(root.dataset.words || "{}"), // what the page says itself, by the English words
  now: 0, // Unix seconds
  asks: "", // which panel is open
  open: "", // id of the card that is opened up
  picked: [], // ids of players
  hold: true,
  at: "",
  celsius: "",
  line: "",
  note: "",
  proposal: null,
  wait: false, // the core is at work
  problem: "",
  last: null, // what was pressed last, to be taken back
  signal: true,
  waiting: 0,
  ready: false,
  hurt: [], // who was hurt
  trouble: "", // why the players do not have what was changed
  clash: "", // what was changed on the board too

  init() {
    const try_ = Number(root.dataset.try);
    const begun = Date.now();
    const rehearse = this.view.start - try_;
    this.clock = () => (try_ > 0 ? rehearse + (Date.now() - begun) / 1000 : clockNow());
    if (try_ === 0) setTime(Number(root.dataset.now));
    this.now = Math.floor(this.clock());
    this.core = core(root.dataset.script);
    this.kept = events({
      me: root.dataset.me,
      rehearsed: try_ > 0,
      changed: (fresh, is) => { this.state(); if (is) this.tell(is); if (fresh.length > 0) this.heard(fresh); },
      refused: (says) => { this.problem = says; },
    });
    this.begin();
    setInterval(() => { this.now = Math.floor(this.clock()); }, 250);
    setInterval(() => this.look(), again);
    if (try_ === 0) this.keep();
    this.awake();
    document.addEventListener("visibilitychange", () => this.awake());
  },

  // keep has the page, its plan and the core kept on this phone: what was loaded before the
  // keeper was there is asked for once more.
  keep() {
    const phone = navigator.serviceWorker;
    phone?.register("/pitch/keeper.js", { scope: "/pitch/" }).catch(() => {});
    phone?.addEventListener("controllerchange", () => { fetch(`${base}/plan.json`).catch(() => {}); });
  },

  async awake() {
    try {
      if (!document.hidden) await navigator.wakeLock?.request("screen");
    } catch {
      // it may go dark
    }
  },

  // begin fetches the plan, as it is kept where there is no signal, and looks.
  async begin() {
    try {
      const plan = await (await fetch(`${base}/plan.json`)).json();
      this.begun = plan.begun;
      this.kept.join(plan);
      const opened = await this.core.open({ document: plan.document, schedule: plan.schedule, pieces: plan.pieces });
      if (opened.error) throw new Error(opened.error);
      this.ready = true;
      this.problem = "";
      this.look();
      this.kept.listen();
      this.kept.flush();
    } catch {
      this.problem = this.told("The plan is not on this phone yet. It loads as soon as there is a signal.");
      setTimeout(() => this.begin(), 3000);
    }
  },

  // heard shows what was pressed on another phone; the first press there may have begun
  // another plan than this phone has.
  heard(fresh) {
    if (!this.begun && fresh.some((e) => e.by !== root.dataset.me)) return this.begin();
    this.look();
  },

  // tell shows what the server says of the session: who is hurt and what medical staff
  // answered, and what stands in the way of what was changed.
  tell(is) {
    this.hurt = is.hurt ?? this.hurt;
    this.trouble = is.trouble ?? "";
    this.clash = is.clash ?? "";
  },

  state() {
    this.signal = this.kept.signal();
    this.waiting = this.kept.waiting();
  },

  async look() {
    if (!this.ready || this.looking) return;
    this.looking = true;
    const view = await this.core.view(this.kept.all(), Math.round(this.clock() * 1000));
    this.looking = false;
    if (view.error) { this.problem = view.error; return; }
    this.view = view;
    this.state();
  },

  press(event, said) {
    const made = this.kept.press({ ...event, at: Math.round(this.clock() * 1000) });
    this.last = said ? { id: made.id, said } : null;
    this.problem = "";
    this.state();
    if (navigator.userActivation?.hasBeenActive) navigator.vibrate?.(30);
    this.look();
  },

  // What is pressed on a card.
  done(card) { this.press({ kind: "done", block: card.id, after: card.last }, this.told("%s is done", card.name)); },
  start(card) { this.press({ kind: "begin", block: card.id, after: card.last }, this.told("%s has started", card.name)); },
  skip(card) { this.press({ kind: "skip", block: card.id, after: card.last }, this.told("%s is skipped", card.name)); },
  repeat(card) { this.press({ kind: "again", block: card.id, after: card.last }, this.told("%s once more", card.name)); },
  tick(card, drill, cell) {
    if (cell.again || cell.count < cell.tries) { cell.again = false; cell.count += 1; }
    this.press({ kind: "tick", block: card.id, item: drill.item, cell: cell.n, tries: 1 }, this.told("%s: one try", drill.name));
  },
  comeBack(card, drill, cell) {
    cell.again = true;
    this.press({ kind: "tick", block: card.id, item: drill.item, cell: cell.n, tries: -1 }, this.told("%s: to come back to", drill.name));
  },
  write(card) {
    if (this.note.trim()) this.press({ kind: "note", block: card.id, says: this.note.trim().slice(0, 400) }, this.told("Note kept"));
    this.note = "";
  },
  writeOf() {
    const says = this.note.trim().slice(0, 400);
    if (says) for (const player of this.picked) this.press({ kind: "note", player, says }, this.told("Note kept"));
    this.note = "";
    this.asks = "";
  },
  takeBack() {
    this.press({ kind: "back", of: this.last.id });
    this.proposal = null;
  },
  tickClass(cell) { return cell.again ? "again" : cell.count >= cell.tries ? "full" : ""; },
  toggle(card) { this.open = this.open === card.id ? "" : card.id; this.note = ""; },
  opened(card) { return this.open === card.id; },

  // What is different.
  ask(what) {
    this.asks = this.asks === what ? "" : what;
    this.proposal = null;
    this.picked = [];
    this.problem = "";
  },
  asking(what) { return this.asks === what; },
  pick(id) { this.picked = this.picked.includes(id) ? this.picked.filter((p) => p !== id) : [...this.picked, id]; },
  isPicked(id) { return this.picked.includes(id); },
  noPick() { return this.picked.length === 0; },

  async consider(is) {
    this.wait = true;
    this.proposal = null;
    this.problem = "";
    const made = await this.core.propose(this.kept.all(), Math.round(this.clock() * 1000), is);
    this.wait = false;
    if (made.error) { this.problem = made.error; return; }
    this.proposal = made;
    this.$nextTick(() => document.querySelector("[data-proposal]")?.scrollIntoView({ block: "nearest" }));
  },
  move(minutes) { this.consider({ is: "start", seconds: minutes * 60, hold: this.hold }); },
  called() {
    const [h, m] = this.at.split(":").map(Number);
    if (Number.isNaN(h)) { this.problem = this.told("Say the time that the start is called for."); return; }
    const [sh, sm] = hour(this.view.start, root.dataset.zone).split(":").map(Number);
    this.move(((h - sh) * 60 + m - sm + 2160) % 1440 - 720);
  },
  late(minutes) { this.consider({ is: "late", who: this.picked, seconds: minutes * 60 }); },
  out(why) { this.consider({ is: "out", who: this.picked, why }); },
  lose(what, id) { this.consider({ is: what, id }); },
  minutes(n) { this.consider({ is: "minutes", seconds: n * 60 }); },
  weather(is) { this.consider({ is: "weather", weather: is }); },
  air() {
    const celsius = Number(this.celsius.replace(",", "."));
    if (this.celsius.trim() === "" || Number.isNaN(celsius)) { this.problem = this.told("Say what the thermometer shows."); return; }
    this.consider({ is: "weather", shows: celsius });
  },
  catchUp() { this.consider({ is: "behind" }); },
  keepMoving(who, seconds, effort) {
    const id = `top-${Array.from(crypto.getRandomValues(new Uint8Array(4)), (n) => n.toString(16)).join("")}`;
    this.consider({ is: "top-up", who, seconds, effort, id });
  },
  take() {
    const { is, placed, said, topUps } = this.proposal;
    this.press({ kind: "change", is, placed, after: this.view.last }, said);
    this.ups = is.is === "top-up" ? [] : (topUps ?? []);
    this.proposal = null;
    this.asks = "";
  },
  ups: [],
  upNow(up) { return this.view.start + up.at - this.now < 60; },
  upSoon(up) { return this.told("%s: %s from %s", up.name, this.lasting(up.seconds), this.toGoAt(up.at)); },
  shut() { // back to what was asked, or all shut
    if (!this.proposal) this.asks = "";
    this.proposal = null;
    this.problem = "";
  },
  startList(list, minutes) {
    this.press({ kind: "line", list: list.id, to: Math.floor(this.clock()) + minutes * 60 }, this.told("%s has started", list.name));
    this.asks = "";
  },

  // Words of time.
  left() {
    const s = this.view.start - this.now;
    return (s < 0 ? "+" : "") + clock(s);
  },
  caption() { return this.now > this.view.start ? this.told("since the start") : this.told("to go"); },
  leftOf(card) { return card.to > this.now ? clock(card.to - this.now) : `+${clock(this.now - card.from - (card.to - card.from))}`; },
  over(card) { return card.state === "over"; },
  until(at) { return at > this.now ? this.told("in %s", clock(at - this.now)) : this.told("now"); },
  standing(idle) { return idle.since > 0 && this.now - idle.since >= 60; },
  since(at) { return clock(this.now - at); },
  lasting(seconds) { return clock(seconds); },
  toGoAt(offset) { return `${Math.round(-offset / 60)}′`; },
  hourOf(at) { return hour(at, root.dataset.zone); },
  leftAfter() { return clock(Math.max(0, this.proposal.left)); },
  sent() {
    if (root.dataset.try > 0) return this.told("rehearsal: nothing is kept");
    if (!this.signal) return this.waiting > 0 ? this.told("no signal · %s to send", this.waiting) : this.told("no signal · nothing is lost");
    return this.waiting > 0 ? this.told("%s to send", this.waiting) : this.told("all sent");
  },
  lastSaid() { return this.last?.said ?? ""; },
  minutesOf(list) { return Math.round(list.length / 60); },
  // told is what the page says itself, in its language, with names and figures put in.
  told(says, ...put) { return put.reduce((text, one) => text.replace("%s", () => one), this.said[says] ?? says); },
  dots(...words) { return words.filter(Boolean).join(" · "); },
  words(list) { return (list ?? []).join(" · "); },
  some(list) { return (list ?? []).length > 0; },
  cellText(cell) { return cell.again ? this.told("again") : this.told("%s of %s", cell.count || "–", cell.tries); },
}));
Alpine.start();
