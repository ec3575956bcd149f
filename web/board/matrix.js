import { ask, unanswered } from "../shell/ask.js";

// matrix puts people into blocks in the background, so that the page stays where it is;
// presses are sent one after the other. Without script the form works as it is.
export default () => ({
  queue: Promise.resolve(),

  put(event) {
    event.preventDefault();
    const form = event.target;
    const value = event.submitter.value;
    this.queue = this.queue.then(() => this.send(form.action, value)).catch(unanswered); // one that fails stops none after it
  },

  async send(address, value) {
    const seen = this.$root.querySelector("[name=revision]");
    const body = new URLSearchParams({ revision: seen.value, put: value });
    const answer = await ask(address, "matrix", { method: "POST", body });
    if (!answer) return;
    if (!answer.headers.get("X-Part")) return location.reload();
    const [across, down] = [this.$root.querySelector("[data-across]").scrollLeft, scrollY];
    const at = value.slice(value.indexOf(" "));
    this.$root.innerHTML = await answer.text();
    this.$root.querySelector("[data-across]").scrollLeft = across;
    scrollTo(0, down);
    this.$root.querySelector(`[name=put][value="in${CSS.escape(at)}"], [name=put][value$="${CSS.escape(at)}"]`)?.focus();
  },
});
