#!/bin/sh
# Compiles the core for the browser into web/assets/built, where something of it is newer
# than what is there.
set -eu
cd "$(dirname "$0")/.."
out=web/assets/built
[ -f "$out/field.wasm.gz" ] && [ -z "$(find core field go.mod scripts/field.sh -newer "$out/field.wasm.gz" ! -name '*_test.go' -type f | head -n 1)" ] && exit 0
GOOS=js GOARCH=wasm CGO_ENABLED=0 go build -trimpath -buildvcs=false -ldflags="-s -w" -o "$out/field.wasm" ./field/wasm
cp "$(go env GOROOT)/lib/wasm/wasm_exec.js" "$out/wasm_exec.js"
gzip -9 -n -f "$out/field.wasm"
