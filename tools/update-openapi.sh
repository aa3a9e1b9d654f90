#!/usr/bin/env bash
# Writes docs/openapi.json from what the service says of itself.
set -euo pipefail
source "$(dirname "$0")/../demo/lib.sh"
home=$(mktemp -d)
trap 'stop_all; rm -rf "$home"' EXIT
"$root/tools/build.sh" src/Nailcrow.Service >/dev/null
bin="$home" port=$(free_port)
ln -s "$root/src/Nailcrow.Service/bin/Debug/net10.0/nailcrow-service" "$home/nailcrow-service"
start_service "$port" "$home" 60
wait_for "http://127.0.0.1:$port/health/ready" "$home/service.log"
node -e 'fetch(process.argv[1]).then(r => r.text()).then(t => require("fs").writeFileSync(process.argv[2], t))' \
  "http://127.0.0.1:$port/api/openapi.json" "$root/docs/openapi.json"
echo "docs/openapi.json is what the service says of itself."
