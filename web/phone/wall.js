// The wall of a dressing room: groups that do the same now and next are one line, so that
// a few large lines say it all.
import { clock } from "../shell/clock.js";
import { now, root, say } from "../shell/keep.js";

const strands = JSON.parse(root?.dataset.strands || "[]");
const place = document.querySelector("[data-wall]");

// ranges writes shirt numbers as a coach does: "1–3 9", or names where there are none.
function ranges(numbers, names) {
  if (numbers.includes(0)) return names.length > 6 ? `${names.slice(0, 5).join(", ")} +${names.length - 5}` : names.join(", ");
  const sorted = [...numbers].sort((a, b) => a - b);
  const parts = [];
  for (const n of sorted) {
    const last = parts.at(-1);
    if (last && last[1] === n - 1) last[1] = n;
    else parts.push([n, n]);
  }
  return parts.map(([a, b]) => (a === b ? a : b === a + 1 ? `${a} ${b}` : `${a}–${b}`)).join(" ");
}

// looks are how the drills of a block look, for where there is room.
function looks(key) {
  const place = document.createElement("span");
  place.className = "wall-looks";
  const kept = document.querySelector(`[data-looks="${CSS.escape(key)}"]`);
  if (kept) place.append(kept.content.cloneNode(true));
  return place;
}

function cell(is, words) {
  const td = document.createElement("td");
  if (!is) return td;
  const tile = document.createElement("span");
  tile.className = `tile is-${is.phase}`;
  tile.textContent = is.letter;
  const text = document.createElement("span");
  const name = document.createElement("b");
  name.textContent = is.name;
  const small = document.createElement("span");
  small.className = "wall-small block";
  small.textContent = [is.where, words].filter(Boolean).join(" · ");
  text.append(name, small, looks(is.key));
  td.append(tile, text);
  return td;
}

let drawn = "";
export function wall() {
  const at = Math.round(now() - Number(root.dataset.start));
  const groups = new Map();
  for (const s of strands) {
    const is = s.list.find((e) => e.from <= at && at < e.to);
    const next = s.list.find((e) => e.from > at);
    const key = `${is?.key} ${next?.key} ${next?.from}`;
    const group = groups.get(key) ?? { is, next, numbers: [], names: [] };
    group.numbers.push(...s.numbers);
    group.names.push(...s.names);
    groups.set(key, group);
  }
  const all = strands.reduce((sum, s) => sum + s.names.length, 0);
  const lines = [...groups.values()].sort((a, b) => (a.is?.to ?? a.next?.from ?? 0) - (b.is?.to ?? b.next?.from ?? 0) || b.names.length - a.names.length);
  const text = JSON.stringify([Math.floor(at / 5), lines.map((g) => g.numbers)]);
  if (text === drawn) return;
  drawn = text;
  place.closest("table").classList.toggle("wall-many", lines.length > 6);
  place.closest("table").classList.toggle("wall-few", lines.length < 4);
  place.replaceChildren(...lines.map((g) => {
    const tr = document.createElement("tr");
    const who = document.createElement("th");
    who.scope = "row";
    who.textContent = g.names.length === all ? say("Everybody") : ranges(g.numbers, g.names);
    const upTo = g.is && say("%s left", clock(Math.ceil((g.is.to - at) / 5) * 5));
    tr.append(who, cell(g.is, upTo), cell(g.next, g.next && say("in %s", clock(Math.floor((g.next.from - at) / 5) * 5))));
    return tr;
  }));
}
export const onWall = strands.length > 0;
document.querySelector('[data-do="whole"]')?.addEventListener("click", () => document.documentElement.requestFullscreen?.());
