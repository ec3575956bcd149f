// My run-in keeps its own time: the page holds every moment, so that it counts
// down with no signal. Only what is shown as now and next changes.
const root = document.querySelector("[data-start]");
const start = Number(root?.dataset.start);
const items = [...document.querySelectorAll("[data-from]")];
const countdown = document.querySelector("[data-countdown]");
const caption = document.querySelector("[data-caption]");

const two = (n) => String(n).padStart(2, "0");
function clock(seconds) {
  const s = Math.abs(seconds);
  if (s >= 86400) return `${Math.floor(s / 86400)} d ${Math.floor((s % 86400) / 3600)} h`;
  if (s >= 3600) return `${Math.floor(s / 3600)}:${two(Math.floor((s % 3600) / 60))}:${two(s % 60)}`;
  return `${Math.floor(s / 60)}′${two(s % 60)}″`;
}

let shown = null;

function tick() {
  const at = Math.round(Date.now() / 1000) - start;
  countdown.textContent = at > 0 ? `+${clock(at)}` : clock(at);
  caption.textContent = at > 0 ? "since the start" : -at >= 86400 ? "to go" : -at >= 3600 ? "hours to go" : "minutes to go";
  const next = items.find((item) => Number(item.dataset.to) > at);
  if (next !== shown) {
    // Only when it changes, so that what was tapped open stays so.
    if (shown) shown.open = false;
    if (next) next.open = true;
    shown = next;
  }
  for (const item of items) {
    const from = Number(item.dataset.from);
    const to = Number(item.dataset.to);
    item.classList.toggle("past", to <= at);
    item.classList.toggle("now", item === next && from <= at);
    item.classList.toggle("next", item === next && from > at);
    const left = item.querySelector("[data-left]");
    if (left) left.textContent = item !== next ? "" : from <= at ? `${clock(to - at)} left` : `in ${clock(from - at)}`;
    const bar = item.querySelector("progress");
    if (bar) bar.value = from <= at ? at - from : 0;
  }
}
if (root) {
  tick();
  setInterval(tick, 1000);
}
