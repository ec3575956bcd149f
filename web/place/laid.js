import { ask } from "../shell/ask.js";

// laid arranges a ground: a place is dragged where it lies, and saved at once. How far
// stands in the form, in the club's unit; the server draws it anew.
export default () => ({
  held: null,

  point(event) {
    const svg = this.$root.querySelector("svg.ground");
    return new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
  },

  grab(event) {
    const place = event.target.closest("[data-zone]");
    if (!place || event.button > 0 || this.$root.querySelector("fieldset").disabled) return;
    event.preventDefault();
    this.held = { place, from: this.point(event), dx: 0, dy: 0 };
    this.$root.setPointerCapture(event.pointerId);
  },

  drag(event) {
    const { held } = this;
    if (!held) return;
    const to = this.point(event);
    held.dx = to.x - held.from.x;
    held.dy = to.y - held.from.y;
    held.place.setAttribute("transform", `translate(${held.dx} ${held.dy})`);
  },

  drop(event) {
    const { held } = this;
    this.held = null;
    if (!held || event.type === "pointercancel") return;
    const each = Number(this.$root.querySelector("svg.ground").dataset.each);
    const { zone } = held.place.dataset;
    for (const [name, by] of [["x", held.dx], ["y", held.dy]]) {
      const field = document.getElementById(`${name}-${zone}`);
      field.value = Math.round((Number(field.value.replace(",", ".")) + by / each) * 2) / 2;
    }
    if (Math.hypot(held.dx, held.dy) > 2) this.$root.querySelector("form").requestSubmit();
  },

  changed(event) {
    if (event.target.dataset.settles !== undefined) event.target.form.requestSubmit();
  },

  async send(event) {
    event.preventDefault();
    const form = event.target;
    const kept = document.activeElement?.id;
    const answer = await ask(form.action, "laid", { method: "POST", body: new URLSearchParams(new FormData(form, event.submitter)) });
    if (!answer) return; // what was written still stands in the form
    if (answer.redirected || !answer.headers.get("X-Part")) return location.reload();
    this.$root.innerHTML = await answer.text();
    if (kept) document.getElementById(kept)?.focus();
  },
});
