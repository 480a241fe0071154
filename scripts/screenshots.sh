#!/usr/bin/env bash
# Makes the pictures in docs/screenshots anew, from the demo data: terminals in a real terminal window under Xvfb,
# pages in headless Chromium. Needs Debian's xvfb, xterm, imagemagick and chromium. Run after: npm run demo
set -euo pipefail
cd "$(dirname "$0")/.."
out=$PWD/docs/screenshots
mkdir -p "$out"
site=https://skerryline.example/crossings/
work=$(mktemp -d)
trap 'rm -rf "$work"; kill $(jobs -p) 2>/dev/null || true' EXIT
mkdir -p "$work/bin"
printf '#!/bin/sh\nexec node %s "$@"\n' "$PWD/dist/cli/bin.js" >"$work/bin/wardoscope"
chmod +x "$work/bin/wardoscope"

# terminal <file> <directory> <command…>: the command as typed, and what comes back
terminal() {
  local file=$1 directory=$2
  shift 2
  printf '#!/bin/sh\ncd %s\nprintf "\\033[1m$\\033[0m %%s\\n\\n" "%s"\n%s\nsleep 20\n' "$directory" "$*" "$*" >"$work/run.sh"
  PATH="$work/bin:$PATH" xvfb-run -a -s '-screen 0 1280x800x24' bash -c '
    xterm -fa "DejaVu Sans Mono" -fs 14 -geometry 103x32+0+0 -bg "#10171a" -fg "#d9e2e4" -b 14 \
      -xrm "XTerm*color1: #ff7b72" -xrm "XTerm*color9: #ff7b72" -xrm "XTerm*color10: #7ee787" -xrm "XTerm*color11: #f2b632"  -xrm "XTerm*color2: #7ee787" -xrm "XTerm*color3: #f2b632" -xrm "XTerm*color6: #7fc0c4" \
      +sb -e sh '"$work"'/run.sh & sleep 4; import -window root '"$out/$file"'; kill %1'
}

only=${1:-}
want() { [ -z "$only" ] || [ "$only" = "$1" ]; }

want check-held && terminal check-held.png dist/demo "wardoscope wrong-base --site $site --host fallback"
want check-clear && terminal check-clear.png dist/demo "wardoscope sound --site $site --host fallback"
want survey && terminal survey.png dist/demo "wardoscope survey sound"
if want demo-site; then
  node scripts/serve-demo.mjs 5199 &
  sleep 1
  chromium --headless --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking \
    --disable-component-update --disable-sync --hide-scrollbars --virtual-time-budget=3000 \
    --user-data-dir="$work/profile" --window-size=1280,800 --screenshot="$out/demo-site.png" \
    http://127.0.0.1:5199/crossings/ >/dev/null 2>&1
fi
