// Makes the fonts of phones small: the letters of western Europe and the signs that the
// pages use. Whatever else a name holds comes from the larger files, by its range.
import { readFile, writeFile } from "node:fs/promises";
import subset from "subset-font";

const signs = "‘’“”„…–—·×′″°€−→←±";
let letters = signs;
for (let code = 0x20; code < 0x7f; code++) letters += String.fromCodePoint(code);
for (let code = 0xa1; code <= 0xff; code++) letters += String.fromCodePoint(code);

for (const name of ["barlow-condensed-latin-600-normal", "atkinson-hyperlegible-latin-400-normal"]) {
  const family = name.replace(/-latin.*/, "");
  const font = await readFile(`node_modules/@fontsource/${family}/files/${name}.woff2`);
  const small = await subset(font, letters, { targetFormat: "woff2", noHinting: true });
  await writeFile(`web/assets/dist/fonts/${name.replace("latin", "small")}.woff2`, small);
}
