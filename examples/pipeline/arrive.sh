#!/bin/sh
# Sends what ship.sh let pass to where it is served, empties the caches of what changed, and waits until all of it has arrived.
# Its exit status is that of the look at the address: 0 arrived, 1 not as built, more is trouble.
#
#   ARTEFACTS      where results go, and where ship.sh left its own   artefacts
#   SITE_DIR       the folder that was built                          dist
#   TARGET         the directory that the host serves
#   PURGE          the command that empties the cache of one path, which it gets as its last word; none without it
#   LAST_RELEASE   the record of the release before, when there is one
#   WAIT           how many seconds a release may take to arrive      300
#   INSTEAD        where the address is answered, when that is elsewhere: https://a.example=http://127.0.0.1:8080
set -eu
: "${ARTEFACTS:=artefacts}" "${SITE_DIR:=dist}" "${PURGE:=}" "${LAST_RELEASE:=}" "${WAIT:=300}" "${INSTEAD:=}"
: "${TARGET:?names the directory that the host serves}"

# Files under new names first, pages last: nobody gets a page whose files are not there yet. Old files stay for pages that are open.
mkdir -p "$TARGET"
TARGET=$(cd "$TARGET" && pwd)
(cd "$SITE_DIR" && find . -type d ! -name . -exec mkdir -p "$TARGET/{}" \;)
(cd "$SITE_DIR" && find . -type f ! -name '*.html' -exec cp {} "$TARGET/{}" \;)
(cd "$SITE_DIR" && find . -type f -name '*.html' -exec cp {} "$TARGET/{}" \;)

if [ -n "$PURGE" ] && [ -f "$ARTEFACTS/purge.txt" ]; then
  while IFS= read -r path; do
    $PURGE "$path"
  done <"$ARTEFACTS/purge.txt"
fi

set -- live . --folder "$SITE_DIR" --wait "$WAIT" --format json --out "$ARTEFACTS/live.json" --format text
[ -z "$INSTEAD" ] || set -- "$@" --instead "$INSTEAD"
[ -z "$LAST_RELEASE" ] || [ ! -f "$LAST_RELEASE" ] || set -- "$@" --before "$LAST_RELEASE"
wardoscope "$@"
