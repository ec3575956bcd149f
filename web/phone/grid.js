// The grids of a leader's page: a press counts a try of a cell, "again" marks one to come
// back to. They stay on the phone, and are sent when there is a signal.
import { keep, kept, root, say } from "../shell/keep.js";
import { tell } from "./queue.js";

const read = (text) => Object.fromEntries(text.split(" ").filter(Boolean).map((t) => {
  const [cell, count, again] = t.split(":");
  return [cell, { count: Number(count), again: again === "a" }];
}));
const write = (ticks) => Object.entries(ticks).map(([cell, t]) => `${cell}:${t.count}${t.again ? ":a" : ""}`).join(" ");
const sending = {};

function grids() {
  const sent = Object.fromEntries(JSON.parse(root.dataset.ticks || "[]").map(({ block, item, ticks }) => [`${block} ${item}`, ticks]));
  for (const table of document.querySelectorAll("[data-grid]")) {
    const name = `${table.dataset.block} ${table.dataset.grid}`;
    const ticks = read(kept(`ticks ${name}`, sent[name] ?? ""));
    const draw = () => {
      for (const cell of table.querySelectorAll("[data-cell]")) {
        const is = ticks[cell.dataset.cell] ?? { count: 0, again: false };
        cell.firstElementChild.textContent = say("%s of %s", is.count || "–", cell.dataset.tries);
        cell.classList.toggle("full", is.count >= Number(cell.dataset.tries));
        cell.classList.toggle("again", is.again);
        table.querySelector(`[data-again="${cell.dataset.cell}"]`).setAttribute("aria-pressed", is.again);
      }
    };
    table.addEventListener("click", (event) => {
      const button = event.target.closest("button");
      if (!button) return;
      const cell = button.dataset.cell ?? button.dataset.again;
      const is = (ticks[cell] ??= { count: 0, again: false });
      if (button.dataset.again) is.again = !is.again;
      else if (is.again) [is.count, is.again] = [is.count + 1, false];
      else is.count = is.count >= Number(button.dataset.tries) ? 0 : is.count + 1;
      keep(`ticks ${name}`, write(ticks));
      draw();
      clearTimeout(sending[name]);
      sending[name] = setTimeout(() => tell("/say", { kind: "grid", block: table.dataset.block, item: table.dataset.grid, says: write(ticks) }), 1500);
    });
    draw();
  }
}
if (root) grids();
