// dose shows the numbers that the kind of dose needs, and only those.
export default () => ({
  init() {
    this.pick();
  },
  pick() {
    const kind = this.$refs.kind.value;
    for (const field of this.$root.querySelectorAll("[data-for]")) {
      const kinds = field.dataset.for.split(" ");
      field.hidden = field.dataset.for !== "" && !kinds.includes(kind);
    }
  },
});
