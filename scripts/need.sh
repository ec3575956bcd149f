#!/bin/sh
# need.sh PROGRAM=PACKAGE...: installs the Debian packages whose programs are
# missing, as root or through sudo; else prints the one line to run.
set -eu
missing=""
for pair in "$@"; do
  program=${pair%%=*} packages=${pair#*=}
  command -v "$program" >/dev/null 2>&1 || [ -x "/usr/sbin/$program" ] || missing="$missing $(echo "$packages" | tr , ' ')"
done
[ -n "$missing" ] || exit 0
install="apt-get install -y --no-install-recommends$missing"
if [ "$(id -u)" = 0 ]; then as=""
elif command -v sudo >/dev/null 2>&1 && sudo -n true 2>/dev/null; then as="sudo"
else
  echo "Some packages are missing and this user may not install them. Run: sudo $install" >&2
  exit 1
fi
echo "Installing$missing"
log=$(mktemp)
if ! { $as apt-get update && $as env DEBIAN_FRONTEND=noninteractive $install; } >"$log" 2>&1; then
  tail -n 3 "$log" >&2
  echo "The packages could not be installed. Run: sudo $install" >&2
  exit 1
fi
rm -f "$log"
