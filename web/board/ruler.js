import { ask } from "../shell/ask.js";

// ruler goes through all lanes at one second: what everybody does then, where, how warm they
// are, and the plan of the ground. It follows the pointer on the scale of time and on the
// warmth, stays where it is pressed, moves with the arrow keys, and plays the run-in.
const beat = 350; // milliseconds between two steps while it plays
const stride = 15; // seconds of the run-in in each

export default () => ({
  at: null,
  pinned: false,
  busy: false,
  next: null,
  playing: null,
  carried: null, // what is dragged from one place to another

  init() {
    const kept = sessionStorage.getItem("ruler");
    if (this.panel && (kept || this.slider)) this.pin(Number(kept) || this.earliest() / 2);
  },

  get svg() {
    return this.$root.querySelector("svg.chart");
  },
  get panel() {
    return this.$root.querySelector("[data-panel]");
  },
  get slider() {
    return this.$root.querySelector("input[data-second]");
  },

  earliest() {
    return Number(this.$root.dataset.from);
  },

  // second is the moment under a pointer, if it is on the scale or on the warmth.
  second(event) {
    const { svg } = this;
    if (!svg || !svg.contains(event.target) || this.$root.querySelector("[data-dragged]")) return null;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
    const { from, left, line, top, bottom } = svg.dataset;
    if ((y > Number(top) && y < Number(bottom)) || x < Number(left) || x > Number(line)) return null;
    return Math.round((Number(from) * (Number(line) - x)) / (Number(line) - Number(left)) / 5) * 5;
  },

  over(event) {
    const at = this.second(event);
    if (this.pinned || this.carried) return;
    if (at !== null) this.show(at);
    else this.hide();
  },

  press(event) {
    const at = this.second(event);
    if (at === null) return;
    if (this.pinned && Math.abs(at - this.at) < 20) this.close();
    else this.pin(at);
  },

  out() {
    if (!this.pinned) this.hide();
  },

  toggle() {
    if (this.pinned) this.close();
    else this.pin(this.at ?? this.earliest() / 2);
  },

  pin(at) {
    this.pinned = true;
    this.show(at);
  },

  close() {
    this.pinned = false;
    this.stop();
    this.hide();
    sessionStorage.removeItem("ruler");
  },

  hide() {
    if (!this.panel || this.slider) return;
    this.panel.hidden = true;
    this.next = null;
    this.svg?.querySelector(".ruler")?.remove();
  },

  // show draws the ruler and asks what everybody does then, one question at a time.
  show(at) {
    this.at = Math.max(this.earliest(), Math.min(0, at));
    this.next = this.at;
    if (this.pinned) sessionStorage.setItem("ruler", this.at);
    if (this.slider) this.slider.value = this.at;
    const { svg } = this;
    if (svg) {
      const { from, left, line } = svg.dataset;
      const x = Number(line) - ((Number(line) - Number(left)) * this.at) / Number(from);
      let ruler = svg.querySelector(".ruler");
      if (!ruler) {
        ruler = document.createElementNS("http://www.w3.org/2000/svg", "path");
        ruler.setAttribute("class", "ruler");
        svg.append(ruler);
      }
      ruler.setAttribute("d", `M${x} 52V${svg.viewBox.baseVal.height}`);
    }
    this.ask();
  },

  async ask() {
    if (this.busy) return;
    this.busy = true;
    while (this.next !== null) {
      const at = this.next;
      this.next = null;
      const answer = await ask(`${this.$root.dataset.moment}?at=${at}${this.slider ? "&wide=yes" : ""}`, "moment");
      if (!answer?.headers.get("X-Part")) break;
      const text = await answer.text();
      if (this.panel && (this.pinned || this.svg?.querySelector(".ruler"))) {
        this.panel.querySelector("[data-moment-is]").innerHTML = text;
        this.panel.hidden = false;
      }
    }
    this.busy = false;
  },

  nothing() {}, // a press in the panel is none on the chart

  slid() {
    this.pin(Number(this.slider.value));
  },

  play() {
    if (this.playing) return this.stop();
    if (this.at === null || this.at >= 0) this.at = this.earliest();
    this.pinned = true;
    this.playing = setInterval(() => {
      if (!this.$root.isConnected || this.at >= 0) return this.stop();
      this.show(this.at + stride);
    }, beat);
  },

  stop() {
    clearInterval(this.playing);
    this.playing = null;
  },

  destroy() {
    this.stop();
  },

  key(event) {
    if (!this.pinned || event.ctrlKey || event.metaKey || event.altKey || event.target.matches("input, select, textarea")) return;
    const step = { ArrowLeft: -30, ArrowRight: 30 }[event.key];
    if (step) {
      event.preventDefault();
      this.show(this.at + (event.shiftKey ? step / 6 : step));
    } else if (event.key === "Escape") {
      this.close();
    }
  },

  // lift begins to carry a block from the place where it is done.
  lift(event) {
    const part = event.target.closest("[data-move]");
    if (!part || event.button > 0) return;
    event.preventDefault();
    this.carried = { part, zone: null };
    part.classList.add("carried");
    this.panel.setPointerCapture(event.pointerId);
  },

  async carry(event) {
    if (!this.carried) return;
    const under = document.elementFromPoint(event.clientX, event.clientY)?.closest("[data-zone]")?.dataset.zone;
    const label = this.$root.querySelector("[data-carries]");
    label.hidden = false;
    label.style.transform = `translate(${Math.max(8, Math.min(innerWidth - 430, event.clientX + 12))}px, ${event.clientY + 18}px)`;
    const { carried } = this;
    if (under === carried.zone) return;
    carried.zone = under;
    carried.refused = true;
    label.textContent = `${carried.part.textContent}: drop it on another place`;
    if (!under || under === carried.part.dataset.zoneOf) return;
    const asks = new URLSearchParams({ does: "goes", block: carried.part.dataset.move, zone: under });
    const answer = await fetch(`${this.$root.dataset.drag}?${asks}`).catch(() => null); // no signal: it stays where it is
    if (!answer?.ok || this.carried !== carried || carried.zone !== under) return;
    const { says, refused } = await answer.json();
    carried.refused = Boolean(refused);
    label.textContent = says;
    label.toggleAttribute("data-refused", Boolean(refused));
  },

  put() {
    const { carried } = this;
    this.carried = null;
    this.$root.querySelector("[data-carries]").hidden = true;
    if (!carried) return;
    carried.part.classList.remove("carried");
    if (!carried.zone || carried.refused) return;
    const form = this.$root.querySelector("form[data-goes]");
    form.querySelector("[name=block]").value = carried.part.dataset.move;
    form.querySelector("[name=zone]").value = carried.zone;
    form.requestSubmit();
  },
});
