import { ask } from "../shell/ask.js";

// session keeps the form of a new session in step with itself: the forecast
// follows the start and place, the count follows who is in. What was typed stays.
export default () => ({
  count: "",
  asked: 0,
  typed: false,

  init() {
    this.tally();
  },

  tally() {
    const all = [...this.$root.querySelectorAll("[data-is]")];
    this.count = `${all.filter((s) => s.value !== "out").length} of ${all.length}`;
  },

  changed(event) {
    const field = event.target;
    if (field.closest("#day")) this.typed = true;
    if (field.dataset.is !== undefined) {
      field.closest("li").querySelector("label:last-child").hidden = field.value !== "late";
      this.tally();
    }
    if (field.id === "venue") for (const label of this.$root.querySelectorAll("[data-away]")) label.hidden = field.value !== "0";
    if (field.id === "venue" || field.id === "start" || field.name === "place") this.forecast();
  },

  typing(event) {
    if (event.target.closest("#day")) this.typed = true;
  },

  async forecast() {
    const turn = ++this.asked;
    const form = new FormData(this.$root);
    const query = new URLSearchParams({ start: form.get("start"), venue: form.get("venue"), place: form.get("place"), zone: form.get("zone") });
    const answer = await ask(`/sessions/new/day?${query}`, "day");
    if (!answer?.headers.get("X-Part")) return;
    const text = await answer.text();
    // A later question has been asked, or the day was set by hand: that stays.
    if (turn === this.asked && !this.typed) this.$root.querySelector("#day").innerHTML = text;
  },

  // other opens the form for another squad, with what was filled in.
  other() {
    const form = new FormData(this.$root);
    const query = new URLSearchParams();
    for (const name of ["squad", "kind", "title", "start", "minutes", "venue", "place", "from", "method"]) query.set(name, form.get(name) ?? "");
    if (this.typed) {
      query.set("typed", "yes");
      for (const name of ["air", "wind", "day"]) for (const value of form.getAll(name)) query.append(name, value);
    }
    location.assign(`/sessions/new?${query}`);
  },
});
