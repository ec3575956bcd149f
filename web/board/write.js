import { say } from "../shell/ask.js";

// write has a line read by the server while it is typed, and shows what it would become.
// Enter puts one line in; in several lines Control and Enter does.
export default () => ({
  asked: 0,
  timer: 0,

  init() {
    this.grow();
  },

  read() {
    this.grow();
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.hear(), 200);
  },

  // grow makes the field as high as its lines, up to eight.
  grow() {
    const field = this.$root.querySelector("textarea");
    const lines = field.value.split("\n").length;
    field.rows = Math.max(field.dataset.least ?? (field.dataset.least = field.rows), Math.min(lines, 8));
  },

  async hear() {
    const asked = ++this.asked;
    const shown = this.$root.querySelector("[data-heard]");
    const field = this.$root.querySelector("textarea");
    if (!field.value.trim()) {
      shown.replaceChildren();
      return;
    }
    try {
      const body = new URLSearchParams(new FormData(this.$root));
      const answer = await fetch(this.$root.dataset.hear, { method: "POST", body, headers: { "X-Part": "heard" } });
      if (answer.headers.get("X-Says")) return say(await answer.text());
      if (!answer.ok || asked !== this.asked || !this.$root.isConnected) return;
      shown.innerHTML = await answer.text();
    } catch {
      shown.replaceChildren(); // it can be put in unread
    }
  },

  close() {
    this.$root.querySelector("[data-heard]").replaceChildren();
  },

  key(event) {
    const field = event.target;
    if (event.key === "Escape") return this.close();
    if (event.key !== "Enter" || event.shiftKey || event.isComposing) return;
    if (field.value.includes("\n") && !event.ctrlKey && !event.metaKey) return;
    event.preventDefault();
    this.$root.requestSubmit();
  },
});
