// words is a plan as lines in the coach's words, each beside what it will be. A line is a field of
// its own, so that both stay level; Enter, Backspace, arrows and pasting go across them as in one text.
export default () => ({
  asked: 0,
  timer: 0,
  refused: "",
  again: "", // what is said of words that were not planned
  planned: "", // the text as the plan has it
  past: [],
  next: [], // what undo took back
  last: "",

  init() {
    this.rows().forEach((row) => { this.ink(row, row.querySelector(".word-ink").dataset.ink); this.told(row); });
    this.last = this.text();
    this.planned = this.last;
    this.recall();
    const first = this.rows()[0];
    if (this.rows().length === 1 && !this.last) {
      this.field(first).placeholder = this.$refs.prompt.innerHTML;
      this.field(first).focus();
    }
  },

  rows() { return [...this.$root.querySelectorAll(".word-row")]; },
  field(row) { return row.querySelector("textarea"); },
  text() { return this.rows().map((row) => this.field(row).value).join("\n"); },

  // told has a screen reader say with a line what it will be.
  told(row) {
    this.field(row).setAttribute("aria-description", row.querySelector(".word-are").innerText.replace(/\s+/g, " ").trim());
  },

  // ink draws under the words what was understood of them.
  ink(row, spans) {
    const ink = row.querySelector(".word-ink");
    const text = this.field(row).value;
    ink.replaceChildren();
    let at = 0;
    for (const { from, to, gave } of JSON.parse(spans || "null") ?? []) {
      if (from < at || to > text.length) continue;
      const word = document.createElement("span");
      word.className = `ink-${gave}`;
      word.textContent = text.slice(from, to);
      ink.append(text.slice(at, from), word);
      at = to;
    }
    ink.append(text.slice(at) + "\u200b");
  },

  // recall brings back what was written here and not planned: the page was loaded anew, or left.
  recall() {
    let drafted = null;
    try {
      drafted = JSON.parse(sessionStorage.getItem(this.drawer()));
      if (drafted && (drafted.text === this.last || drafted.sent && drafted.from !== this.last)) {
        sessionStorage.removeItem(this.drawer());
        return;
      }
    } catch {
      return; // this browser keeps nothing
    }
    if (!drafted) return;
    this.past.push(drafted.from === this.last ? this.last : drafted.text);
    this.again = this.$root.dataset[drafted.from === this.last ? "toldAgain" : "toldOther"];
    if (drafted.from === this.last) this.show(drafted.text);
  },

  drawer() { return `words ${document.documentElement.dataset.account} ${location.pathname}`; }, // whoever else signs in here has none of it

  // draft keeps what is not planned yet, until it is.
  draft(sent = false) {
    try {
      sessionStorage.setItem(this.drawer(), JSON.stringify({ from: this.planned, text: this.text(), sent }));
    } catch {
      // a full browser keeps none; the words stand on the page
    }
  },

  // keep keeps the text before a step, for undo.
  keep() {
    const now = this.text();
    if (now === this.last) return;
    this.past.push(this.last);
    this.next = [];
    if (this.past.length > 200) this.past.shift();
    this.last = now;
  },

  typed(event) {
    const row = event.target.closest(".word-row");
    if (!row) return;
    if (event.target.value.includes("\n")) return this.spread(row, event.target.value.split("\n"));
    this.ink(row, "");
    this.soon();
  },

  soon() {
    this.again = "";
    clearTimeout(this.timer);
    this.timer = setTimeout(() => { this.keep(); this.read(); }, 250);
  },

  // put sets a line, or a new one after a row.
  put(text, after) {
    const row = this.$refs.row.content.firstElementChild.cloneNode(true);
    this.field(row).value = text;
    if (after) after.after(row); else this.$root.querySelector(".word-rows").append(row);
    this.ink(row, "");
    return row;
  },

  // spread puts several lines where one stood.
  spread(row, lines) {
    if (lines.length > 400) {
      this.refused = this.$root.dataset.toldMany.replace("{n}", lines.length);
      return;
    }
    this.field(row).value = lines[0];
    this.ink(row, "");
    let last = row;
    for (const line of lines.slice(1)) last = this.put(line, last);
    this.go(last, 1e6);
    this.soon();
  },

  go(row, at) {
    if (!row) return;
    const field = this.field(row);
    field.focus({ preventScroll: field.getBoundingClientRect().top > innerHeight * 1.5 }); // a pasted list is read from its top
    field.setSelectionRange(at, at);
  },

  pasted(event) {
    const row = event.target.closest(".word-row");
    const text = event.clipboardData?.getData("text/plain").replaceAll("\r", "").replace(/\n$/, "");
    if (!row || !text?.includes("\n")) return;
    event.preventDefault();
    const field = this.field(row);
    const lines = (field.value.slice(0, field.selectionStart) + text + field.value.slice(field.selectionEnd)).split("\n");
    this.spread(row, lines);
  },

  async dropped(event) {
    const file = event.dataTransfer?.files[0];
    if (!file) return;
    event.preventDefault();
    this.refused = "";
    const form = new FormData();
    form.set("file", file);
    let text;
    try {
      const answer = await fetch(this.$root.dataset.file, { method: "POST", body: form });
      text = await answer.text();
      if (!answer.ok) throw new Error(answer.status === 422 ? text : this.$root.dataset.toldFile.replace("{n}", file.name));
    } catch (problem) {
      this.refused = problem.message;
      return;
    }
    const rows = this.rows();
    const last = rows.at(-1);
    if (this.field(last).value.trim()) this.spread(this.put("", last), text.trim().split("\n"));
    else this.spread(last, text.trim().split("\n"));
  },

  press(event) {
    if (event.target.matches(".word-rows")) return this.go(this.rows().at(-1), 1e6); // below the last line
    const starts = event.target.closest("[data-starts]");
    if (starts) {
      this.$refs.starts.value = starts.dataset.starts;
      return this.read();
    }
    const answer = event.target.closest("[data-put]");
    if (!answer) return;
    const row = answer.closest(".word-row");
    this.field(row).value = answer.dataset.put;
    this.ink(row, "");
    this.keep();
    this.read();
    this.go(row, answer.dataset.put.length);
  },

  undo() {
    if (!this.past.length) return;
    this.next.push(this.last);
    this.show(this.past.pop());
  },

  redo() {
    if (!this.next.length) return;
    this.past.push(this.last);
    this.show(this.next.pop());
  },

  // show has the lines of a text stand, those that are there already left alone.
  show(text) {
    const lines = (this.last = text).split("\n");
    const rows = this.rows();
    rows.slice(lines.length).forEach((row) => row.remove());
    lines.forEach((line, n) => {
      if (!rows[n]) this.put(line);
      else if (this.field(rows[n]).value !== line) { this.field(rows[n]).value = line; this.ink(rows[n], ""); }
    });
    this.read();
  },

  key(event) {
    const row = event.target.closest(".word-row");
    if (!row || event.isComposing) return;
    const field = this.field(row);
    const { selectionStart: from, selectionEnd: to, value } = field;
    const step = (by) => { const rows = this.rows(); return rows[rows.indexOf(row) + by]; };
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z") {
      event.preventDefault();
      this.keep();
      if (event.shiftKey) this.redo(); else this.undo();
    } else if ((event.ctrlKey || event.metaKey) && event.key === "y") {
      event.preventDefault();
      this.redo();
    } else if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      this.$root.requestSubmit();
    } else if (event.key === "Enter") {
      event.preventDefault();
      field.value = value.slice(0, from);
      this.ink(row, "");
      this.go(this.put(value.slice(to), row), 0);
      this.soon();
    } else if (event.key === "Backspace" && from === 0 && to === 0 && step(-1)) {
      event.preventDefault();
      this.join(step(-1), row);
    } else if (event.key === "Delete" && from === value.length && to === from && step(1)) {
      event.preventDefault();
      this.join(row, step(1));
    } else if (event.key === "ArrowUp" && step(-1) && from === to) {
      event.preventDefault();
      this.go(step(-1), Math.min(from, this.field(step(-1)).value.length));
    } else if (event.key === "ArrowDown" && step(1) && from === to) {
      event.preventDefault();
      this.go(step(1), Math.min(from, this.field(step(1)).value.length));
    }
  },

  join(row, next) {
    const field = this.field(row);
    const at = field.value.length;
    field.value += this.field(next).value;
    next.remove();
    this.ink(row, "");
    this.go(row, at);
    this.soon();
  },

  async read() {
    this.draft();
    const asked = ++this.asked;
    let answer;
    try {
      answer = await fetch(this.$root.dataset.read, { method: "POST", body: new URLSearchParams(new FormData(this.$root)), headers: { "X-Part": "words-are" } });
      if (answer.headers.get("X-Says")) {
        this.refused = await answer.text();
        return;
      }
      if (!answer.ok) throw new Error(answer.statusText);
    } catch {
      this.refused = this.$root.dataset.toldUnread;
      return;
    }
    const part = document.createElement("template");
    part.innerHTML = await answer.text();
    if (asked !== this.asked || !this.$root.isConnected) return;
    this.refused = part.content.querySelector("[data-refused]")?.textContent ?? "";
    const rows = this.rows();
    for (const is of part.content.querySelectorAll("[data-row]")) {
      const row = rows[is.dataset.row];
      if (!row) continue;
      row.querySelector(".word-are").replaceChildren(...is.childNodes);
      this.ink(row, is.dataset.ink);
      this.told(row);
    }
    const sum = part.content.querySelector("[data-sum]");
    if (sum && !this.refused) this.$root.querySelector("#word-sum").replaceChildren(...sum.childNodes);
  },
});
