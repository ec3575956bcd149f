// board sends the forms and links of the Run-in in the background and puts the
// answer in place, so that a change is seen at once and the page stays where
// it is. Without script they are ordinary forms and links.
export default () => ({
  busy: false,
  queue: Promise.resolve(),
  pressed: null,

  init() {
    // A press that is under way is let go first: were the board drawn anew
    // between down and up, it would be lost.
    let release = () => {};
    const up = () => {
      setTimeout(release);
      this.pressed = null;
    };
    addEventListener("pointerdown", () => {
      this.pressed = new Promise((done) => (release = done));
      setTimeout(release, 1000); // should it never be let go
    }, true);
    addEventListener("pointerup", up, true);
    addEventListener("pointercancel", up, true);
  },

  send(event) {
    const form = event.target;
    if (form.dataset.whole !== undefined) return;
    event.preventDefault();
    const body = new URLSearchParams(new FormData(form, event.submitter));
    this.later(() => {
      // An earlier press of a quick hand may have made a new edition meanwhile.
      const seen = this.$root.querySelector("[name=edition]");
      if (body.has("edition") && seen) body.set("edition", seen.value);
      return this.swap(form.action, { method: "POST", body });
    });
  },

  // changed sends the form of a field as soon as its value is settled.
  changed(event) {
    if (event.target.form && event.target.dataset.settles !== undefined) event.target.form.requestSubmit();
  },

  open(event) {
    const link = event.target.closest("a[data-part]");
    if (!link || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    history.replaceState(null, "", link.href.baseVal ?? link.href);
    this.later(async () => {
      await this.swap(link.href.baseVal ?? link.href, {});
      document.getElementById("chosen")?.scrollIntoView({ block: "nearest" });
    });
  },

  // later keeps requests in order: each change is made on what the one before left.
  later(job) {
    this.queue = this.queue.then(job);
  },

  async swap(url, options) {
    this.busy = true;
    const kept = document.activeElement?.id;
    const opened = [...this.$root.querySelectorAll("details[open] > summary")].map((s) => s.textContent);
    try {
      const answer = await fetch(url, { ...options, headers: { "X-Part": "board" } });
      if (answer.redirected || !answer.headers.get("X-Part")) {
        location.assign(answer.redirected ? answer.url : url);
        return;
      }
      const text = await answer.text();
      await this.pressed;
      this.$root.innerHTML = text;
      for (const summary of this.$root.querySelectorAll("details > summary")) if (opened.includes(summary.textContent)) summary.parentElement.open = true;
    } catch {
      document.getElementById("no-answer")?.removeAttribute("hidden");
    } finally {
      this.busy = false;
    }
    if (kept) document.getElementById(kept)?.focus();
  },

  key(event) {
    if (event.ctrlKey || event.metaKey || event.altKey || event.target.matches("input, select, textarea")) return;
    const button = document.querySelector(`[data-key="${CSS.escape(event.key)}"]`);
    if (button && !button.disabled) {
      event.preventDefault();
      button.focus();
      button.click();
    }
  },
});
