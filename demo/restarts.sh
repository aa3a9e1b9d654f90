#!/usr/bin/env bash
# Loads the demo, restarts the service, and holds that everything reads, verifies and is told anew as it was.
set -euo pipefail
source "$(dirname "$0")/lib.sh"
home=$(mktemp -d)
trap 'stop_all; rm -rf "$home"' EXIT
service=$(free_port) syslog=$(free_port)
export NAILCROW_DEMO_FIRST=$(free_port) NAILCROW_DEMO_SECOND=$(free_port) NAILCROW_DEMO_SYSLOG="127.0.0.1:$syslog"
export NAILCROW_HOME="$home/cli" NAILCROW_SERVICE="http://127.0.0.1:$service" NAILCROW_PASSWORD=fenwright-demo
start_standin "$NAILCROW_DEMO_FIRST" 7 60 "$home"
export NAILCROW_DEMO_TLS=$(free_port)
start_standin "$NAILCROW_DEMO_SECOND" 8 60 "$home" --tls "$NAILCROW_DEMO_TLS" --secret fenwright-machine
start() {
  start_service "$service" "$home" 3600 --Nailcrow:Intake:SyslogPort="$syslog" --Nailcrow:Intake:SubscribeEverySeconds="$1"
  wait_for "$NAILCROW_SERVICE/health/ready" "$home/service.log"
  wait_for "http://127.0.0.1:$NAILCROW_DEMO_FIRST/redfish/v1" "$home/standin-7.log"
  wait_for "http://127.0.0.1:$NAILCROW_DEMO_SECOND/redfish/v1" "$home/standin-8.log"
}
tickets() { node "$root/demo/told.mjs" "$NAILCROW_SERVICE" lioth fenwright-demo; }
as_it_was() { diff -q "$home/before" "$home/after" >/dev/null || { diff "$home/before" "$home/after" | cut -c1-600 | head -20; say "NOT AS IT WAS: $1"; exit 1; }; }

start 1
"$root/demo/load.sh"
stop_last
start 3600
tickets >"$home/before"
stop_last
start 3600
tickets >"$home/after"
as_it_was "after a restart"
nailcrow admin verify --as admin
nailcrow admin rebuild-projections --as admin
tickets >"$home/after"
as_it_was "with lists told anew"
nailcrow ticket note T-1001 "Still takes a note" --as lioth
echo "The demo is after a restart what it was before."
