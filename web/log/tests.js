// tests puts a reading of the gate into the field that was used last, and goes on to the
// next player.
export default () => ({
  field: null,
  reading: false,
  problem: "",

  pick(event) { if (event.target.matches("[data-tries]")) this.field = event.target; },

  async read(device) {
    this.reading = true;
    this.problem = "";
    try {
      const answer = await fetch(this.$root.dataset.gate, { method: "POST", body: new URLSearchParams({ device, unit: this.unit() }) });
      const is = await answer.json();
      if (is.problem) this.problem = is.problem;
      else this.put(is.value);
    } catch {
      this.problem = this.$root.dataset.told;
    }
    this.reading = false;
  },

  // unit is what the test is measured in.
  unit() { return this.$root.querySelector("[name=unit]")?.value.trim() ?? ""; },

  put(value) {
    const field = this.field ?? this.$root.querySelector("[data-tries]");
    this.field = field;
    field.value = [field.value.trim(), value].filter(Boolean).join("  ");
    field.focus();
  },
});
