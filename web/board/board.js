import { ask, unanswered } from "../shell/ask.js";

// board sends the forms and links of the Run-in in the background and puts the
// answer in place, so that a change is seen at once and the page stays where
// it is. Without script they are ordinary forms and links.
const phone = matchMedia("(max-width: 47.99rem)");
const wide = matchMedia("(min-width: 80rem)");

// revisions of the plan are counted in its forms.
export default () => ({
  busy: false,
  queue: Promise.resolve(),
  pressed: null,
  settling: false, // a field's value
  settled: null, // the form that was sent for it last, and when
  newest: null, // what is in force, as the server said

  init() {
    this.seek();
    addEventListener("plan", (event) => {
      this.newest = event.detail;
      this.later(() => this.catchUp());
    });
    addEventListener("focusout", () => this.later(() => this.catchUp()));
    this.fit();
    for (const width of [phone, wide]) width.addEventListener("change", () => this.fit());
    addEventListener("resize", () => {
      clearTimeout(this.sizing);
      this.sizing = setTimeout(() => this.widen(), 300);
    });
    this.widen();
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

  // catchUp shows what somebody else changed, unless something is being written or dragged.
  async catchUp() {
    const seen = this.$root.querySelector("[name=revision]");
    if (!this.newest || !seen || this.writing() || document.querySelector("[data-dragged]")) return;
    const { revision, says } = this.newest;
    this.newest = null;
    if (revision <= Number(seen.value)) return;
    await this.swap(location.href, {});
    const did = document.getElementById("did");
    did.textContent = says;
    did.hidden = !says;
    clearTimeout(this.told);
    this.told = setTimeout(() => (did.hidden = true), 8000);
  },

  // writing tells whether a field is half written.
  writing() {
    const field = document.activeElement;
    const offered = field?.dataset.was !== undefined && !field.value; // pressed, and nothing typed
    return field?.id !== "say" && field?.matches?.("#board input, #board textarea") && !offered && field.value !== field.defaultValue;
  },

  send(event) {
    const form = event.target;
    if (form.dataset.whole !== undefined) return;
    event.preventDefault();
    const body = new URLSearchParams(new FormData(form, event.submitter));
    // Enter in a field sends its form twice: as the value settles, and as it is pressed.
    const is = `${form.action} ${body}`;
    if (this.settled?.is === is && performance.now() - this.settled.at < 50) return;
    this.settled = this.settling ? { is, at: performance.now() } : null;
    this.later(() => {
      // An earlier press of a quick hand may have made a new revision meanwhile.
      const seen = this.$root.querySelector("[name=revision]");
      if (body.has("revision") && seen && form.dataset.ownRevision === undefined) body.set("revision", seen.value);
      return this.swap(form.action, { method: "POST", body });
    });
  },

  // changed sends the form of a field as soon as its value is settled.
  changed(event) {
    if (!event.target.form || event.target.dataset.settles === undefined) return;
    this.settling = true;
    event.target.form.requestSubmit();
    this.settling = false;
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

  // fit has the board drawn for the room there is, and for that alone.
  fit() {
    const screen = phone.matches ? "phone" : wide.matches ? "wide" : "narrow";
    document.cookie = `screen=${screen}; path=/; max-age=31536000; samesite=lax`;
    const drawn = this.$root.querySelector("[data-screen]").dataset.screen;
    if (drawn !== screen && !(drawn === "" && screen === "wide")) this.later(() => this.swap(location.href, {}, true));
  },

  // widen tells the server what room there is for the chart, and has it drawn anew where it
  // would be a good deal wider or narrower.
  widen() {
    const plot = this.$root.querySelector(".board-plot [x-data=ruler]");
    if (!plot || !wide.matches || !plot.querySelector("svg.chart")) return;
    const { clientWidth, clientHeight } = plot;
    const kept = /(?:^|; )plot=(\d+)x(\d+)/.exec(document.cookie);
    const was = kept ? kept[1] / kept[2] : 1.6;
    if (Math.abs(clientWidth / clientHeight / was - 1) < 0.05) return;
    document.cookie = `plot=${clientWidth}x${clientHeight}; path=/; max-age=31536000; samesite=lax`;
    this.later(() => this.swap(location.href, {}, true));
  },

  // offer clears a part of a block's sentence as it is pressed, so that all that may be said there is
  // offered; nothing chosen and nothing typed leaves it as it was.
  offer(event) {
    const field = event.target;
    if (!field.matches(".sentence input")) return;
    if (event.type === "focusin") {
      field.dataset.was = field.value;
      field.placeholder = field.value || field.placeholder;
      field.value = "";
    } else if (!field.value) {
      field.value = field.dataset.was ?? "";
    }
  },

  // toggled has a drawer filled when it is opened first.
  toggled(event) {
    const drawer = event.target;
    if (drawer.open && drawer.dataset.empty !== undefined) this.later(() => this.swap(location.href, {}));
  },

  // seek has a better fit looked for, once the board has been still for a while.
  seek() {
    clearTimeout(this.seeking);
    this.seeking = setTimeout(async () => {
      const place = this.$root.querySelector("[data-better]");
      if (!place || document.hidden) return;
      if (document.querySelector("[data-dragged]")) return this.seek(); // the hand goes first
      try {
        const answer = await fetch(place.dataset.better, { headers: { "X-Part": "better" } });
        const text = answer.headers.get("X-Part") ? await answer.text() : "";
        const found = new DOMParser().parseFromString(text, "text/html").querySelector("[name=revision]");
        if (place.isConnected && found?.value === this.$root.querySelector("[name=revision]").value) place.innerHTML = text;
      } catch {
        // it is but an offer
      }
    }, 1500);
  },

  // later keeps requests in order: each change is made on what the one before left.
  later(job) {
    this.queue = this.queue.then(job).catch(unanswered); // one that fails stops none after it
  },

  // swap puts an answer in place; one that only draws anew leaves a field that is half written.
  async swap(url, options, spare) {
    this.busy = true;
    this.$root.setAttribute("aria-busy", "true");
    let kept = "";
    const opened = [...this.$root.querySelectorAll("details[open]")];
    const drawers = opened.map((d) => d.dataset.drawer).filter(Boolean);
    try {
      const headers = { "X-Open": drawers.join() };
      if (options.method) headers["X-Tab"] = this.$root.querySelector("[data-tab]").dataset.tab; // a change is seen where it was made
      const answer = await ask(url, "board", { ...options, headers });
      if (!answer) return;
      if (answer.redirected || !answer.headers.get("X-Part")) {
        location.assign(answer.redirected ? answer.url : url);
        return;
      }
      const text = await answer.text();
      await this.pressed;
      if (spare && this.writing()) return;
      kept = document.activeElement?.id; // whoever went on meanwhile is left there
      // A line that is half written stays, unless it is the one that was sent.
      const written = url.endsWith("/write") ? null : this.$root.querySelector("#say")?.value;
      this.$root.innerHTML = text;
      const field = this.$root.querySelector("#say");
      if (written && field && !field.value) field.value = written;
      this.seek();
      for (const { id } of opened) document.getElementById(id)?.setAttribute("open", "");
    } finally {
      this.busy = false;
      this.$root.removeAttribute("aria-busy");
    }
    if (kept) document.getElementById(kept)?.focus();
  },

  // rule has the ruler shown, or taken away, that lies over the chart.
  rule() {
    dispatchEvent(new Event("ruler"));
  },

  key(event) {
    if (event.ctrlKey || event.metaKey || event.altKey || event.target.matches("input, select, textarea")) return;
    if (event.key === "Escape") {
      const busy = event.defaultPrevented || document.querySelector("[data-dragged], .moment:not([hidden])");
      if (!busy) this.$root.querySelector("#close-tab, #close-block")?.click();
      return;
    }
    const button = document.querySelector(`[data-key="${CSS.escape(event.key)}"]`);
    if (button && !button.disabled) {
      event.preventDefault();
      button.focus();
      button.click();
      button.select?.();
    }
  },
});
