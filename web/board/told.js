// told shows what is said from phones as soon as it comes in. What is being written on
// the board stays as it is. Only a board that is looked at holds a line: a browser has
// few of them for a site.
export default () => ({
  text: "",
  news: null,

  init() {
    this.listen();
    document.addEventListener("visibilitychange", () => this.listen());
    addEventListener("pagehide", () => this.news?.close());
  },

  listen() {
    this.news?.close();
    if (document.hidden) return;
    this.news = new EventSource(`${this.$root.dataset.session}/live`);
    this.news.addEventListener("news", () => this.show());
    this.news.addEventListener("plan", (event) => dispatchEvent(new CustomEvent("plan", { detail: JSON.parse(event.data) })));
  },

  async show() {
    try {
      const answer = await fetch(`${this.$root.dataset.session}/told`, { headers: { "X-Part": "told" } });
      if (!answer.headers.get("X-Part")) return;
      const text = await answer.text();
      if (text.trim() !== this.text) this.$root.innerHTML = this.text = text.trim();
    } catch {
      // it comes with the next news
    }
  },
});
