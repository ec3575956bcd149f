// session keeps the form of a new session in step with itself: the forecast
// follows the start and place, the count follows who is there.
export default () => ({
  count: "",

  init() {
    this.tally();
  },

  tally() {
    const all = [...this.$root.querySelectorAll("[data-is]")];
    this.count = `${all.filter((s) => s.value !== "out").length} of ${all.length}`;
  },

  changed(event) {
    const field = event.target;
    if (field.dataset.is !== undefined) {
      field.closest("li").querySelector("label:last-child").hidden = field.value !== "late";
      this.tally();
    }
    if (field.id === "venue") for (const label of this.$root.querySelectorAll("[data-away]")) label.hidden = field.value !== "0";
    if (field.id === "venue" || field.id === "start" || field.name === "place") this.forecast();
  },

  async forecast() {
    const form = new FormData(this.$root);
    const query = new URLSearchParams({ start: form.get("start"), venue: form.get("venue"), place: form.get("place"), zone: form.get("zone") });
    const answer = await fetch(`/sessions/new/day?${query}`, { headers: { "X-Part": "day" } });
    if (answer.headers.get("X-Part")) this.$root.querySelector("#day").innerHTML = await answer.text();
  },

  other(event) {
    location.assign(`/sessions/new?squad=${event.target.value}`);
  },
});
