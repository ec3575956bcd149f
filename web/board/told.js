// told shows what is said from phones as soon as it comes in. What is being written on
// the board stays as it is.
export default () => ({
  init() {
    const news = new EventSource(`${this.$root.dataset.session}/live`);
    news.addEventListener("news", async () => {
      const answer = await fetch(`${this.$root.dataset.session}/told`, { headers: { "X-Part": "told" } });
      if (!answer.headers.get("X-Part")) return;
      const text = await answer.text();
      if (text.trim() !== this.text) this.$root.innerHTML = this.text = text.trim();
    });
    addEventListener("pagehide", () => news.close());
  },
  text: "",
});
