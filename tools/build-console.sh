#!/usr/bin/env bash
# Builds the console into the service's wwwroot; does nothing where nothing changed. With --packages it only fetches what that needs.
set -euo pipefail
root=$(cd "$(dirname "$0")/.." && pwd)
cd "$root/console"
packages() { [ -d node_modules ] && [ node_modules/.package-lock.json -nt package-lock.json ] || npm ci --no-fund --no-audit; }
[ "${1:-}" != --packages ] || { packages; exit; }
stamp="$root/.build/console.stamp"
mkdir -p "$root/.build"
now=$(git ls-files -co --exclude-standard . 2>/dev/null | xargs -r sha256sum 2>/dev/null | sha256sum || find . -path ./node_modules -prune -o -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum)
now="$now $(sha256sum ../docs/openapi.json 2>/dev/null || true)"
[ -f "$stamp" ] && [ "$(cat "$stamp")" = "$now" ] && [ -f "$root/src/Nailcrow.Service/wwwroot/index.html" ] && exit 0
packages
npm run build
echo "$now" >"$stamp"
