// Asks the core as it is compiled for a browser: node ask.mjs LOADER CORE.gz < {"plan": …, "asks": [[call, …], …]}
// prints the answers in their order.
import { readFileSync } from "node:fs";
import { webcrypto } from "node:crypto";
import { runInThisContext } from "node:vm";
import { gunzipSync } from "node:zlib";

const [loader, core] = process.argv.slice(2);
globalThis.crypto ??= webcrypto;
runInThisContext(readFileSync(loader, "utf8"));
const go = new Go();
const { instance } = await WebAssembly.instantiate(gunzipSync(readFileSync(core)), go.importObject);
go.run(instance);
const { plan, asks } = JSON.parse(readFileSync(0, "utf8"));
field.open(JSON.stringify(plan));
const answers = asks.map(([call, ...args]) =>
  JSON.parse(field[call](...args.map((a) => (typeof a === "number" ? a : JSON.stringify(a))), ...(call === "propose" ? [field.steps] : []))));
process.stdout.write(JSON.stringify(answers), () => process.exit());
