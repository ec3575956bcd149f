// figure draws a drill by hand: it tells the server where a joint is dragged, and shows what
// comes back. What a body does, the server knows. Without script the buttons and the numbers
// work as they are.
const step = 3; // of an arrow key, in hundredths of the body's height

export default () => ({
  past: [],
  future: [],
  joint: "",
  busy: false,
  waiting: null,

  get form() {
    return this.$root.querySelector("form");
  },

  // now is the figure as it is on the page.
  now() {
    return { figure: this.form.elements.figure.value, at: this.form.elements.at.value };
  },

  // point is where a pointer is on the stage, up being up.
  point(event) {
    const stage = this.$root.querySelector(".bench");
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(stage.getScreenCTM().inverse());
    return { x: at.x.toFixed(1), y: (-at.y).toFixed(1) };
  },

  grab(event) {
    const handle = event.target.closest("[data-joint]");
    if (!handle || event.button > 0) return;
    event.preventDefault();
    this.$root.setPointerCapture(event.pointerId);
    this.joint = handle.dataset.joint;
    this.before = this.now();
  },

  drag(event) {
    if (!this.joint) return;
    this.ask({ ...this.now(), do: "drag", joint: this.joint, ...this.point(event) });
  },

  drop() {
    if (!this.joint) return;
    const joint = this.joint;
    this.joint = "";
    this.keep(this.before);
    this.$root.querySelector(`[data-joint="${joint}"]`)?.focus();
  },

  key(event) {
    const handle = event.target.closest("[data-joint]");
    const move = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key];
    if (handle && move) {
      event.preventDefault();
      this.keep(this.now());
      this.ask({ ...this.now(), do: "drag", joint: handle.dataset.joint, x: Number(handle.dataset.x) + move[0], y: Number(handle.dataset.y) + move[1] });
    } else if (event.key === "z" && (event.ctrlKey || event.metaKey) && !event.target.matches("input, textarea")) {
      event.preventDefault();
      this.go(event.shiftKey ? this.future : this.past, event.shiftKey ? this.past : this.future);
    }
  },

  // press asks the server what a button does; saving goes the plain way.
  press(event) {
    const button = event.submitter;
    if (!button?.formAction.endsWith("/try")) return;
    event.preventDefault();
    this.keep(this.now());
    const fields = new FormData(this.form);
    fields.append(button.name, button.value);
    this.ask(fields);
  },

  // settle takes a field that was changed, but for the two that wait for a press.
  settle(event) {
    if (["text", "like"].includes(event.target.name)) return;
    this.keep(this.now());
    const fields = new FormData(this.form);
    fields.append("do", "fields");
    this.ask(fields);
  },

  // keep writes down what undo comes back to.
  keep(before) {
    this.past.push(before);
    this.future = [];
    this.mark();
  },

  go(from, to) {
    const was = from.pop();
    if (!was) return;
    to.push(this.now());
    this.ask({ ...was, do: "show" });
  },

  mark() {
    const [back, again] = ["[data-back]", "[data-again]"].map((name) => this.$root.querySelector(name));
    if (!back) return;
    back.disabled = !this.past.length;
    again.disabled = !this.future.length;
    back.onclick = () => this.go(this.past, this.future);
    again.onclick = () => this.go(this.future, this.past);
  },

  // ask sends one question at a time; of those that wait the newest counts.
  async ask(fields) {
    if (this.busy) {
      this.waiting = fields;
      return;
    }
    this.busy = true;
    const body = new URLSearchParams(fields instanceof FormData ? [...fields] : Object.entries(fields));
    try {
      const answer = await fetch(this.form.dataset.try, { method: "POST", body, headers: { "X-Part": "drawing" } });
      if (answer.headers.get("X-Part")) this.show(await answer.text());
      else location.reload();
    } catch {
      this.waiting = null; // no signal: what is on the page stays
    }
    this.busy = false;
    if (this.waiting) {
      const next = this.waiting;
      this.waiting = null;
      if (next.figure) Object.assign(next, this.now());
      this.ask(next);
    }
  },

  show(text) {
    const focused = document.activeElement;
    const [joint, name, value] = [focused?.dataset?.joint, focused?.name, focused?.value];
    const open = [...this.$root.querySelectorAll("details")].map((d) => d.open);
    this.$root.querySelector("[data-drawing]").innerHTML = text;
    this.$root.querySelectorAll("details").forEach((d, i) => (d.open ||= open[i]));
    const again = joint ? `[data-joint="${joint}"]` : name ? `[name="${name}"]${focused.type === "submit" ? `[value="${value}"]` : ""}` : "";
    if (again) this.$root.querySelector(again)?.focus();
    this.mark();
  },
});
