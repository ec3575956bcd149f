import { ask } from "../shell/ask.js";

// finder finds as one types: it asks for the list by itself and puts it in
// place. Without script the form and the links work as they are.
export default () => ({
  wait: 0,
  asked: 0,

  look() {
    clearTimeout(this.wait);
    this.wait = setTimeout(() => {
      const form = this.$root.querySelector("#find");
      const query = new URLSearchParams(new FormData(form));
      for (const [name, value] of [...query]) if (!value) query.delete(name);
      const open = new URLSearchParams(location.search).get("drill");
      if (open) query.set("drill", open);
      this.show(`${form.action}?${query}`);
    }, 90);
  },

  open(event) {
    const link = event.target.closest("a[data-found]");
    if (!link || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    this.show(link.href, true);
  },

  async show(url, picked) {
    const turn = ++this.asked;
    const answer = await ask(url, "found");
    if (!answer) return;
    if (!answer.headers.get("X-Part")) return location.assign(url);
    const text = await answer.text();
    if (turn !== this.asked) return; // a later question was faster
    history.replaceState(null, "", url);
    this.$root.querySelector("#found").innerHTML = text;
    if (picked) this.$root.querySelector("#found [aria-current]")?.focus({ preventScroll: matchMedia("(min-width: 64rem)").matches });
  },

  key(event) {
    if (event.key !== "/" || event.target.matches("input, select, textarea")) return;
    event.preventDefault();
    this.$root.querySelector("#q").focus();
  },
});
