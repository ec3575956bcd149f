// The core on the phone, beside the page: it answers one question after the other, and the
// page stays quick meanwhile.
/* global loader, core: where these lie comes before this. */
importScripts(loader);

const ready = (async () => {
  const go = new Go();
  const answer = await fetch(core);
  const bytes = await answer.arrayBuffer();
  const { instance } = await WebAssembly.instantiate(bytes, go.importObject);
  go.run(instance); // it stays for as long as the page does
})();

self.addEventListener("message", async ({ data: [number, call, ...args] }) => {
  try {
    await ready;
    const steps = call === "propose" ? [self.field.steps] : [];
    self.postMessage([number, JSON.parse(self.field[call](...args, ...steps))]);
  } catch (error) {
    self.postMessage([number, { error: String(error) }]);
  }
});
