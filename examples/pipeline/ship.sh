#!/bin/sh
# Builds the site, looks at it as its host and a stranger's browser will, and keeps what was found for those who read it
# later. The same on a desk and in a pipeline. Its exit status is that of the look: 0 may ship, 1 held, more is trouble.
#
#   ARTEFACTS      where results go                                 artefacts
#   SITE_DIR       where the build goes                             dist
#   LAST_RELEASE   the record of the release before, when there is  $ARTEFACTS/release.json of the run before
#   BRANCH         the branch that a change goes into, when one is reviewed: what the change touches comes first
set -eu
: "${ARTEFACTS:=artefacts}" "${SITE_DIR:=dist}" "${LAST_RELEASE:=}" "${BRANCH:=}"
export SITE_DIR
mkdir -p "$ARTEFACTS"

npm run build

status=0
[ -z "$BRANCH" ] || set -- --changed-since "$BRANCH"
wardoscope check . "$@" --folder "$SITE_DIR" --hold-on caution --record "$ARTEFACTS/release.json" \
  --format sarif --out "$ARTEFACTS/findings.sarif" \
  --format markdown --out "$ARTEFACTS/comment.md" \
  --format html --out "$ARTEFACTS/report.html" \
  --format lines --out "$ARTEFACTS/lines.txt" \
  --format text || status=$?
# What could not be looked at leaves nothing to compare.
[ "$status" -le 1 ] || exit "$status"

if [ -n "$LAST_RELEASE" ] && [ -f "$LAST_RELEASE" ]; then
  wardoscope compare "$LAST_RELEASE" . --folder "$SITE_DIR" --format text --out "$ARTEFACTS/changes.txt" || true
  # What the step that empties the cache reads, a path a line.
  wardoscope compare "$LAST_RELEASE" . --folder "$SITE_DIR" --print purge >"$ARTEFACTS/purge.txt"
fi
exit "$status"
