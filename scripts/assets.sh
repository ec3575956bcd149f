#!/bin/sh
# Builds web/assets/dist: styles by Tailwind from web/shell/app.css and the rooms'
# templates, scripts by esbuild, fonts from their packages (for paper into share/fonts). Needs Node and the
# packages of package-lock.json (npm ci). The result is committed.
set -eu
cd "$(dirname "$0")/.."
out=web/assets/dist
rm -rf "$out"
mkdir -p "$out/fonts" share/fonts
npx --no-install tailwindcss --input web/shell/app.css --output "$out/app.css" --minify 2>/dev/null
npx --no-install tailwindcss --input web/phone/phone.css --output "$out/phone.css" --minify 2>/dev/null
npx --no-install esbuild web/shell/app.js web/phone/player.js web/pitch/pitch.js web/pitch/field.js web/shell/keeper.js --bundle --minify --target=es2022 --legal-comments=none --outdir="$out" --entry-names=[name] --log-level=warning
for font in barlow-condensed-latin-600-normal atkinson-hyperlegible-latin-400-normal atkinson-hyperlegible-latin-700-normal \
            barlow-condensed-latin-ext-600-normal atkinson-hyperlegible-latin-ext-400-normal atkinson-hyperlegible-latin-ext-700-normal; do
  family=$(echo "$font" | sed 's/-latin.*//')
  cp "node_modules/@fontsource/$family/files/$font.woff2" "$out/fonts/"
done
for font in barlow-condensed/600SemiBold/BarlowCondensed_600SemiBold atkinson-hyperlegible/400Regular/AtkinsonHyperlegible_400Regular atkinson-hyperlegible/700Bold/AtkinsonHyperlegible_700Bold; do
  cp "node_modules/@expo-google-fonts/$font.ttf" share/fonts/
done
node scripts/fonts.mjs
mkdir -p e2e/testdata
cp node_modules/axe-core/axe.min.js e2e/testdata/
cp web/shell/icon.svg "$out/"
cp node_modules/@fontsource/barlow-condensed/LICENSE "$out/fonts/LICENSE-barlow-condensed"
cp node_modules/@fontsource/atkinson-hyperlegible/LICENSE "$out/fonts/LICENSE-atkinson-hyperlegible"
cp node_modules/@expo-google-fonts/barlow-condensed/LICENSE_FONT share/fonts/LICENSE-barlow-condensed
cp node_modules/@expo-google-fonts/atkinson-hyperlegible/LICENSE_FONT share/fonts/LICENSE-atkinson-hyperlegible
