// drag moves things on the board by hand: a block along the time, its edge, a lane's name
// onto a block, a fixed event. While something is dragged the server says what dropping it
// would bring; what it refuses is not dropped.
const reach = 6; // pixels that tell a drag from a press
const edges = { mouse: 7, pen: 10, touch: 14 }; // pixels at a side that are its edge

export default () => ({
  held: null,
  busy: false,
  waiting: false,

  get svg() {
    return this.$root.querySelector("svg.chart");
  },

  // scale of the chart: seconds to the start, and its own lengths.
  scale() {
    const { from, left, line } = this.svg.dataset;
    return { from: Number(from), left: Number(left), each: (Number(line) - Number(left)) / -Number(from) };
  },

  place(event) {
    return new DOMPoint(event.clientX, event.clientY).matrixTransform(this.svg.getScreenCTM().inverse());
  },

  // grip is what a pointer is on: a part that may be dragged, and its edge, if it is there.
  grip(event) {
    const part = event.target.closest?.("a[data-start], [data-event], [data-lane]");
    if (!part || part.dataset.lane) return { part, side: "" };
    const boxes = [...part.querySelectorAll(".tint, .fixed")].map((rect) => rect.getBoundingClientRect());
    const box = boxes.find((b) => event.clientY >= b.top && event.clientY <= b.bottom) ?? boxes[0];
    const near = Math.min(edges[event.pointerType] ?? edges.mouse, box.width / 4);
    return { part, side: event.clientX > box.right - near ? "end" : event.clientX < box.left + near ? "start" : "" };
  },

  grab(event) {
    if (event.button > 0 || event.ctrlKey || event.metaKey) return;
    const { part, side } = this.grip(event);
    if (part) this.held = { part, side, at: this.place(event), x: event.clientX, y: event.clientY, moved: false, pointer: event.pointerId };
  },

  drag(event) {
    const held = this.held;
    if (!held) {
      this.svg.toggleAttribute("data-edge", Boolean(this.grip(event).side));
      return;
    }
    if (event.pointerId !== held.pointer) return;
    if (!held.moved) {
      const upDown = held.part.dataset.lane || this.svg.dataset.by;
      if (Math.hypot(event.clientX - held.x, upDown ? event.clientY - held.y : 0) < reach) return;
      held.moved = true;
      this.$root.dataset.dragged = "";
      const { block } = held.part.dataset;
      if (block) this.svg.append(held.part, ...this.svg.querySelectorAll(`[data-words="${CSS.escape(block)}"]`)); // over the others
      this.$root.setPointerCapture(event.pointerId);
    }
    event.preventDefault();
    held.asks = this.asks(event);
    this.tell(event);
    if (held.asks) this.ask();
  },

  // asks is what dropping here would do, as a question to the server; null: nothing.
  asks(event) {
    const held = this.held;
    const { block, event: fixed, lane: people, start } = held.part.dataset;
    const to = this.place(event);
    const { each, left } = this.scale();
    const dx = to.x - held.at.x;
    const by = Math.round(dx / each);
    if (people) {
      const under = document.elementsFromPoint(event.clientX, event.clientY).map((e) => e.closest("a[data-start]")).find(Boolean);
      return under ? { does: "join", block: under.dataset.block, who: people } : null;
    }
    if (fixed) {
      if (!held.side) held.part.setAttribute("transform", `translate(${dx} 0)`);
      return { does: { start: "earlier", end: "longer", "": "shift" }[held.side], event: fixed, by };
    }
    if (held.side) return { does: "doses", block, by: held.side === "end" ? by : -by };
    this.shift(block, dx);
    if (to.x < left * 0.4) return { does: "out", block };
    const lane = this.laneAt(to.y);
    if (lane !== undefined && lane !== this.laneAt(held.at.y)) return { does: this.svg.dataset.by === "place" ? "goes" : "leads", block, zone: lane, leader: lane };
    const hold = event.shiftKey || to.y < Number(this.svg.dataset.top);
    return { does: hold ? "hold" : "order", block, at: Math.min(0, Math.round(Number(start) + dx / each)) };
  },

  // laneAt is which place or leader a height of the chart belongs to; undefined: none.
  laneAt(y) {
    const under = [...this.svg.querySelectorAll("[data-key-of]")].filter((lane) => Number(lane.dataset.y) <= y).pop();
    return y < Number(this.svg.dataset.bottom) ? under?.dataset.keyOf : undefined;
  },

  // ask sends one question at a time.
  async ask() {
    if (this.busy) {
      this.waiting = true;
      return;
    }
    this.busy = true;
    const label = this.$root.querySelector("[data-says]");
    label.ariaBusy = "true"; // what it says is not yet about here
    const { held } = this;
    const { asks } = held;
    try {
      const answer = await fetch(`${this.$root.dataset.drag}?${new URLSearchParams(asks)}`);
      if (answer.ok && this.held === held && held.asks) this.show(await answer.json(), asks.block);
    } catch {
      // no signal: it may still be dropped
    }
    this.busy = false;
    if (this.waiting && this.held?.asks) {
      this.waiting = false;
      this.ask();
    } else label.ariaBusy = null;
  },

  // show puts the others where they would go, and marks where the block itself would land.
  // Only what changes is touched: a board of forty blocks is painted anew with each step.
  show({ says, refused, moves }, own) {
    const { left, each, from } = this.scale();
    this.held.refused = refused;
    const label = this.$root.querySelector("[data-says]");
    label.textContent = says;
    label.toggleAttribute("data-refused", Boolean(refused));
    const to = new Map();
    let landing = "";
    for (const move of moves ?? []) {
      const block = this.svg.querySelector(`a[data-block="${CSS.escape(move.id)}"]`);
      if (!block) continue;
      if (move.id !== own) to.set(move.id, [(move.start - Number(block.dataset.start)) * each, Boolean(move.gone)]);
      else {
        const x = left + (move.start - from) * each;
        for (const piece of block.querySelectorAll("rect.tint")) landing += `M${x} ${piece.getAttribute("y")}h${(move.end - move.start) * each}v${piece.getAttribute("height")}H${x}z`;
      }
    }
    this.others(to, this.held.side ? "" : this.held.part.dataset.block);
    this.land(landing);
  },

  // others stand where they would go, and all that would not where they are, but for one.
  others(to, but) {
    for (const part of this.svg.querySelectorAll("[data-block], [data-words]")) {
      const id = part.dataset.block ?? part.dataset.words;
      if (id === but) continue;
      const [dx, gone] = to.get(id) ?? [0, false];
      this.move(part, dx);
      if (part.classList.contains("going") !== gone) part.classList.toggle("going", gone);
    }
  },

  // land marks where a block would stand; "": nowhere.
  land(path) {
    let mark = this.svg.querySelector(".landing");
    if (!mark) {
      mark = document.createElementNS("http://www.w3.org/2000/svg", "path");
      mark.setAttribute("class", "landing");
      this.svg.append(mark);
    }
    mark.setAttribute("d", path);
  },

  move(part, dx) {
    const is = dx ? `translate(${dx} 0)` : null;
    if (part.getAttribute("transform") === is) return;
    if (is) part.setAttribute("transform", is);
    else part.removeAttribute("transform");
  },

  // shift moves a block and its words along the time.
  shift(id, dx) {
    for (const part of this.svg.querySelectorAll(`[data-block="${CSS.escape(id)}"], [data-words="${CSS.escape(id)}"]`)) this.move(part, dx);
  },

  // back puts everything where it was.
  back() {
    this.others(new Map());
    this.svg.querySelector(".landing")?.remove();
  },

  // tell has the words follow the pointer.
  tell(event) {
    const label = this.$root.querySelector("[data-says]");
    label.hidden = false;
    if (!this.held.asks) {
      label.textContent = this.held.part.dataset.drags;
      label.removeAttribute("data-refused");
      this.back();
    }
    label.style.transform = `translate(${Math.max(8, Math.min(innerWidth - 430, event.clientX - 120))}px, ${event.clientY + 24}px)`;
  },

  drop(event) {
    const held = this.held;
    const refused = held?.refused && !this.busy; // an answer on its way is the server's to give
    this.stop();
    if (!held?.moved || event.type === "pointercancel") return;
    // What follows the drag is no press on a block.
    const press = (click) => {
      click.preventDefault();
      click.stopPropagation();
    };
    addEventListener("click", press, true);
    setTimeout(() => removeEventListener("click", press, true), 50);
    if (refused || !held.asks) return;
    const form = this.$root.querySelector("form");
    for (const field of ["does", "block", "event", "at", "by", "who", "zone", "leader"]) form.elements[field].value = held.asks[field] ?? "";
    form.requestSubmit();
  },

  key(event) {
    if (event.key === "Escape" && this.held) this.stop();
  },

  stop() {
    if (this.held?.moved) this.back();
    this.held?.part.dataset.event && this.held.part.removeAttribute("transform");
    delete this.$root.dataset.dragged;
    this.held = null;
    this.waiting = false;
    this.$root.querySelector("[data-says]").hidden = true;
  },
});
