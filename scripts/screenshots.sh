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
printf '#!/bin/sh\nexec node %s "$@"\n' "$PWD/dist/cli/bin.cjs" >"$work/bin/wardoscope"
chmod +x "$work/bin/wardoscope"

# terminal <file> <directory> <command…>: the command as typed, and what comes back
terminal() {
  local file=$1 directory=$2
  shift 2
  local typed="${shown:-$*}" run="$*"
  [ -z "${top:-}" ] || run="script -qec '$*' /dev/null | head -31"
  printf '#!/bin/sh\ncd %s\nprintf "\\033[1m$\\033[0m %%s\\n\\n" "%s"\n%s\nsleep 60\n' "$directory" "$typed" "$run" >"$work/run.sh"
  PATH="$work/bin:$PATH" xvfb-run -a -s '-screen 0 1280x800x24' bash -c '
    xterm -fa "DejaVu Sans Mono" -fs '${size:-13}' -geometry '${cells:-113x35}'+0+0 -bg "#10171a" -fg "#d9e2e4" -b 14 \
      -xrm "XTerm*color1: #ff7b72" -xrm "XTerm*color9: #ff7b72" -xrm "XTerm*color10: #7ee787" -xrm "XTerm*color11: #f2b632"  -xrm "XTerm*color2: #7ee787" -xrm "XTerm*color3: #f2b632" -xrm "XTerm*color6: #7fc0c4" \
      +sb -e sh '"$work"'/run.sh & sleep '${wait:-4}'; import -window root '"$out/$file"'; kill %1'
}

# A repository of four: a site, its documentation, a library, and the server behind them.
repository() {
  mkdir -p "$work/skerry/"{apps/docs/.vitepress,packages/parts,services/api,.pipeline}
  cp -r dist/demo/sound "$work/skerry/apps/site"
  echo '{ "name": "skerry", "private": true, "workspaces": ["apps/*", "packages/*", "services/*"] }' >"$work/skerry/package.json"
  echo '{ "name": "@skerry/docs", "scripts": { "build": "vitepress build" }, "devDependencies": { "vitepress": "1.6.4" } }' >"$work/skerry/apps/docs/package.json"
  echo 'export default { base: "/handbook/" }' >"$work/skerry/apps/docs/.vitepress/config.mjs"
  echo '{ "name": "@skerry/parts", "scripts": { "build": "rollup -c" }, "devDependencies": { "rollup": "4.52.5" } }' >"$work/skerry/packages/parts/package.json"
  echo '{ "name": "@skerry/api", "dependencies": { "fastify": "5.6.1" } }' >"$work/skerry/services/api/package.json"
  printf 'ship:\n  publish_dir: apps/site/public\n' >"$work/skerry/.pipeline/ship.yml"
  touch "$work/skerry/package-lock.json"
}

only=${1:-}
want() { [ -z "$only" ] || [ "$only" = "$1" ]; }

want check-held && terminal check-held.png dist/demo "wardoscope wrong-base --site $site --host fallback"
# The rules to paste are longer than a window: what stands above them is shown.
if want check-routes; then
  # Published with an nginx that a container copies, and that has no fallback.
  cp -r dist/demo/no-fallback "$work/site"
  printf 'FROM nginx:stable\nCOPY dist /srv/crossings\nCOPY nginx.conf /etc/nginx/conf.d/default.conf\n' >"$work/site/Dockerfile"
  printf 'server {\n    listen 80;\n    root /srv;\n\n    location /crossings/assets/ {\n        expires 1y;\n    }\n\n    location /crossings/ {\n        index index.html;\n    }\n}\n' >"$work/site/nginx.conf"
  terminal check-routes.png "$work" "wardoscope site --site $site"
fi
if want live; then
  # The address has the page of the release before, and lacks a file.
  mkdir -p "$work/www"
  cp -r dist/demo/sound/dist "$work/www/crossings"
  rm "$work/www/crossings/mark.svg"
  sed -i 's/index-[A-Za-z0-9_-]*\.js/index-B4f0Re12.js/' "$work/www/crossings/index.html"
  node scripts/serve-folder.mjs "$work/www" 5198 &
  sleep 1
  terminal live.png dist/demo "wardoscope live sound --host fallback --site $site --instead https://skerryline.example=http://127.0.0.1:5198"
fi
want variables && terminal variables.png dist/demo "wardoscope environment-absent --site $site --host fallback"
if want reach; then
  node scripts/serve-stand-in.mjs http://localhost:5173 >"$work/address" &
  sleep 1
  terminal reach.png dist/demo "wardoscope reach sound --site $site --instead https://api.skerryline.example=$(cat "$work/address")"
fi
if want rehearse; then
  echo '{ "https://api.skerryline.example": { "/v1/sailings": [] } }' >"$work/answers.json"
  wait=45 terminal rehearse.png dist/demo "wardoscope rehearse sound --site $site --host fallback --browser"
fi
if want rehearse-pages; then
  node dist/cli/bin.cjs rehearse dist/demo/sound --site "$site" --host fallback --browser --shots "$work/shots" >/dev/null
  convert "$work/shots/crossings-tickets-new-"{390,820,1280}.png -resize x640 -bordercolor '#10171a' -border 12 +append "$out/rehearse-pages.png"
fi
if want setup; then
  cp -r dist/demo/no-fallback "$work/begin"
  rm -f "$work/begin"/wardoscope.config.*
  sed -i 's#"private"#"homepage": "https://skerryline.example/crossings/",\n  "private"#' "$work/begin/package.json"
  cp scripts/answer-questions.mjs "$work/answer.mjs"
  printf '#!/bin/sh\nexec node %s 5 "wardoscope setup"\n' "$work/answer.mjs" >"$work/bin/answered"
  chmod +x "$work/bin/answered"
  wait=12 shown="wardoscope setup" terminal setup.png "$work/begin" answered
fi
if want all-projects; then
  repository
  cp -r dist/demo/endpoint-left "$work/skerry/apps/tickets"
  sed -i 's/"name": "[^"]*"/"name": "tickets"/' "$work/skerry/apps/tickets/package.json"
  for app in site tickets; do
    echo "{ \"site\": \"$site\", \"host\": \"fallback\" }" >"$work/skerry/apps/$app/wardoscope.config.json"
  done
  top=1 terminal all-projects.png "$work/skerry" "wardoscope --all"
fi
if want survey-repository; then
  repository
  size=12 cells=127x39 terminal survey-repository.png "$work/skerry" "wardoscope survey --project apps/site"
fi
if want demo-site; then
  node scripts/serve-demo.mjs 5199 &
  sleep 1
  chromium --headless --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking \
    --disable-component-update --disable-sync --hide-scrollbars --virtual-time-budget=3000 \
    --user-data-dir="$work/profile" --window-size=1280,800 --screenshot="$out/demo-site.png" \
    http://127.0.0.1:5199/crossings/ >/dev/null 2>&1
fi

if want report; then
  node dist/cli/bin.cjs dist/demo/wrong-base --site "$site" --host fallback --format html --out "$work/held.html" || true
  node dist/cli/bin.cjs dist/demo/sound --site "$site" --site https://www.skerryline.example/ --site https://preview.test/pr-17/ --host fallback \
    --format html --out "$work/addresses.html" || true
  node scripts/shoot-page.mjs "$work/held.html" "$out/report-causes.png"
  node scripts/shoot-page.mjs "$work/held.html" "$out/map.png" map
  node scripts/shoot-page.mjs "$work/addresses.html" "$out/report-addresses.png" addresses
  node scripts/shoot-page.mjs "$work/addresses.html" "$out/report-weight.png" weight 1280 dark
fi
if want fix; then
  cp -r dist/demo/wrong-base "$work/line"
  ln -s "$PWD/node_modules" "$work/line/node_modules"
  wait=12 terminal fix.png "$work" "wardoscope fix line --site $site --host fallback"
fi
if want compare; then
  node dist/cli/bin.cjs dist/demo/sound --site "$site" --host fallback --record "$work/release.json" >/dev/null
  cp "$work/release.json" dist/demo/release.json
  top=1 terminal compare.png dist/demo "wardoscope compare release.json environment-absent --site $site --host fallback"
  rm dist/demo/release.json
fi
if want desk; then
  npm run build -w folder-desk >/dev/null
  node scripts/shoot-examples.mjs "$out" desk
fi
if want log; then
  npm run build -w release-log >/dev/null
  node scripts/shoot-examples.mjs "$out" log
fi
