#!/bin/sh
# Rebuild what is committed under static/ from its sources. With --check: fail where the committed style differs.
set -e
cd "$(dirname "$0")"
[ -d node_modules ] || npm ci --ignore-scripts >&2
static=../src/bootmark/web/static
if [ "$1" = "--check" ]; then
    npx @tailwindcss/cli -i app.css -o /tmp/bootmark-app.css --minify >/dev/null 2>&1
    cmp /tmp/bootmark-app.css $static/app.css && echo "The committed style matches its source."
    exit
fi
npx @tailwindcss/cli -i app.css -o $static/app.css --minify
python3 digest.py
cp node_modules/@alpinejs/csp/dist/cdn.min.js $static/js/alpine-csp.min.js
node world.mjs $static/world.json
cp node_modules/idb/build/index.js $static/js/lib/idb.js
for weight in 400 600 700; do
    cp node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-$weight-normal.woff2 $static/fonts/
done
cp node_modules/axe-core/axe.min.js ../tests/browser/vendor/
