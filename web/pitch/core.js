// core asks the core beside the page; each call answers what the server would.
export default function core(script) {
  const worker = new Worker(script);
  const waiting = new Map();
  let last = 0;
  worker.addEventListener("message", ({ data: [number, answer] }) => {
    waiting.get(number)?.(answer);
    waiting.delete(number);
  });
  worker.addEventListener("error", () => {
    for (const done of waiting.values()) done({ error: "The core could not be loaded. Open the page once with a signal." });
    waiting.clear();
  });
  const ask = (...call) => new Promise((done) => {
    waiting.set(++last, done);
    worker.postMessage([last, ...call]);
  });
  return {
    open: (plan) => ask("open", JSON.stringify(plan)),
    view: (events, now) => ask("view", JSON.stringify(events), now),
    propose: (events, now, is) => ask("propose", JSON.stringify(events), now, JSON.stringify(is)),
  };
}
