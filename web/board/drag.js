// drag moves blocks by hand: while one is dragged the server says where it would stand and
// what else would move; dropped with Shift, or up on the scale of time, it is held there.
const reach = 6; // pixels that tell a drag from a press

export default () => ({
  held: null,
  busy: false,
  waiting: false,

  get svg() {
    return this.$root.querySelector("svg.chart");
  },

  // geometry of the chart: seconds to the start, and its own lengths.
  scale() {
    const { from, left, line } = this.svg.dataset;
    return { from: Number(from), left: Number(left), each: (Number(line) - Number(left)) / -Number(from) };
  },

  place(event) {
    return new DOMPoint(event.clientX, event.clientY).matrixTransform(this.svg.getScreenCTM().inverse());
  },

  grab(event) {
    const block = event.target.closest("a[data-start]");
    if (!block || event.button > 0 || event.ctrlKey || event.metaKey) return;
    this.held = { block, at: this.place(event), x: event.clientX, y: event.clientY, moved: false, pointer: event.pointerId };
  },

  drag(event) {
    const held = this.held;
    if (!held || event.pointerId !== held.pointer) return;
    if (!held.moved) {
      if (Math.abs(event.clientX - held.x) < reach) return;
      held.moved = true;
      this.$root.dataset.dragged = "";
      this.svg.append(held.block, ...this.svg.querySelectorAll(`[data-words="${CSS.escape(held.block.dataset.block)}"]`)); // over the others
      this.$root.setPointerCapture(event.pointerId);
    }
    event.preventDefault();
    const to = this.place(event);
    const { each } = this.scale();
    held.dx = to.x - held.at.x;
    held.start = Math.round(Number(held.block.dataset.start) + held.dx / each);
    held.hold = event.shiftKey || to.y < Number(this.svg.dataset.top);
    this.shift(held.block.dataset.block, held.dx);
    this.tell(event);
    this.ask();
  },

  // ask sends one question at a time.
  async ask() {
    if (this.busy) {
      this.waiting = true;
      return;
    }
    this.busy = true;
    const held = this.held;
    try {
      const query = new URLSearchParams({ block: held.block.dataset.block, at: Math.min(0, held.start), ...(held.hold && { hold: "yes" }) });
      const answer = await fetch(`${this.$root.dataset.drag}?${query}`);
      if (answer.ok && this.held === held) this.show(await answer.json());
    } catch {
      // no signal: it may still be dropped
    }
    this.busy = false;
    if (this.waiting && this.held) {
      this.waiting = false;
      this.ask();
    }
  },

  // show puts the others where they would go, and marks where the block itself would land.
  show(says) {
    const { left, each, from } = this.scale();
    const held = this.held;
    held.says = says.says;
    held.refused = says.refused;
    const label = this.$root.querySelector("[data-says]");
    label.textContent = says.says;
    label.toggleAttribute("data-refused", Boolean(says.refused));
    this.back(held.block.dataset.block);
    for (const move of says.moves ?? []) {
      const block = this.svg.querySelector(`a[data-block="${CSS.escape(move.id)}"]`);
      if (!block) continue;
      if (move.id !== held.block.dataset.block) {
        this.shift(move.id, (move.start - Number(block.dataset.start)) * each);
        block.classList.toggle("going", Boolean(move.gone));
        continue;
      }
      for (const piece of block.querySelectorAll("rect.tint")) {
        const mark = document.createElementNS("http://www.w3.org/2000/svg", "rect");
        mark.setAttribute("class", "landing");
        mark.setAttribute("x", left + (move.start - from) * each);
        mark.setAttribute("width", (move.end - move.start) * each);
        mark.setAttribute("y", piece.getAttribute("y"));
        mark.setAttribute("height", piece.getAttribute("height"));
        this.svg.append(mark);
      }
    }
  },

  // shift moves a block and its words along the time.
  shift(id, dx) {
    for (const part of this.svg.querySelectorAll(`[data-block="${CSS.escape(id)}"], [data-words="${CSS.escape(id)}"]`)) part.setAttribute("transform", `translate(${dx} 0)`);
  },

  // back puts everything where it was, but for one block.
  back(but) {
    for (const part of this.svg.querySelectorAll("[data-block], [data-words]")) {
      part.classList.remove("going");
      if (part.dataset.block !== but && part.dataset.words !== but) part.removeAttribute("transform");
    }
    this.svg.querySelectorAll(".landing").forEach((mark) => mark.remove());
  },

  // tell has the words follow the pointer.
  tell(event) {
    const label = this.$root.querySelector("[data-says]");
    label.hidden = false;
    const wide = label.offsetWidth;
    label.style.left = `${Math.max(8, Math.min(innerWidth - wide - 8, event.clientX - wide / 2))}px`;
    label.style.top = `${event.clientY + 24}px`;
  },

  drop(event) {
    const held = this.held;
    this.stop();
    if (!held?.moved || event.type === "pointercancel") return;
    // What follows the drag is no press on a block.
    const press = (click) => {
      click.preventDefault();
      click.stopPropagation();
    };
    addEventListener("click", press, true);
    setTimeout(() => removeEventListener("click", press, true), 50);
    if (held.refused) return;
    const form = this.$root.querySelector("form");
    form.elements.block.value = held.block.dataset.block;
    form.elements.at.value = Math.min(0, held.start);
    form.elements.hold.value = held.hold ? "yes" : "";
    form.requestSubmit();
  },

  key(event) {
    if (event.key === "Escape" && this.held) this.stop();
  },

  stop() {
    delete this.$root.dataset.dragged;
    this.held = null;
    this.waiting = false;
    this.back();
    this.$root.querySelector("[data-says]").hidden = true;
  },
});
