// keys opens and closes the sheet that lists the keys.
export default () => ({
  shown: false,
  key(event) {
    if (event.target.matches("input, select, textarea")) return;
    if (event.key === "?") this.shown = !this.shown;
    if (event.key === "Escape" && this.shown) {
      this.shown = false;
      event.preventDefault(); // what lies under it stays
    }
    if (event.key === "z" && !event.ctrlKey && !event.metaKey) document.querySelector("#take-back")?.click();
  },
  show() {
    this.shown = true;
  },
  hide() {
    this.shown = false;
  },
});
