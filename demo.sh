#!/usr/bin/env bash
# Builds Nailcrow and starts it with demo data: ./demo.sh
# Plays one ticket through the command line, on its own: ./demo.sh --walk
# Throws the demo data away and starts afresh: ./demo.sh --fresh
# Several equal services on a PostgreSQL, behind a proxy: ./demo.sh --nodes 3 [--fresh]
set -euo pipefail
source "$(dirname "$0")/demo/lib.sh"

source "$root/demo/nodes.sh"

nodes=0 fresh=
while [ $# -gt 0 ]; do
  case $1 in
    --fresh) fresh=yes ;;
    --walk) build && exec "$root/demo/walk.sh" ;;
    --nodes)
      [[ ${2:-} =~ ^[2-5]$ ]] || { say "--nodes takes how many, 2 to 5."; exit 2; }
      nodes=$2
      shift
      ;;
    *) say "'$1' is not understood; accepted: --walk, --fresh, --nodes NUMBER, or nothing."; exit 2 ;;
  esac
  shift
done

home="$root/.demo"
[ "$nodes" -eq 0 ] || home="$root/.demo-nodes"
[ -z "$fresh" ] || rm -rf "$home"
[ -z "$fresh" ] || [ "$nodes" -eq 0 ] || rm -rf "$postgres_home"
service=7420
if curl_ok "http://127.0.0.1:$service/health/live"; then
  say "Something answers at port $service already; is the demo running elsewhere? Stop it first."
  exit 1
fi
build
[ "$nodes" -eq 0 ] || need_nodes
mkdir -p "$home"
trap 'stop_all; stop_postgres' EXIT
trap 'exit 0' INT TERM
start_standin 7421 7 60 "$home"
start_standin 7422 8 60 "$home" --tls 7423 --secret fenwright-machine --certificate "$home/standin-8.pfx"
start_partner carrier 7431 "$home" --moves-every 60 --tells "http://127.0.0.1:$service/api/partners/Overfell%20Parcels/events"
start_partner maker 7432 "$home"
start_partner mail 7433 "$home" --takes-at 7434
if [ "$nodes" -eq 0 ]; then
  start_service "$service" "$home" 3 --Nailcrow:Intake:SyslogPort=7414 --Nailcrow:Intake:SubscribeEverySeconds=5
else
  start_nodes "$nodes" "$service" "$home" 3 --Nailcrow:Intake:SubscribeEverySeconds=5
fi
wait_for "http://127.0.0.1:$service/health/ready" "$home/service.log"
wait_for "http://127.0.0.1:$service/" "$home/service.log" # the console, and not only the service
wait_for "http://127.0.0.1:7421/redfish/v1" "$home/standin-7.log"
wait_for "http://127.0.0.1:7422/redfish/v1" "$home/standin-8.log"
wait_for "http://127.0.0.1:7431/aisle/" "$home/carrier.log"
wait_for "http://127.0.0.1:7432/aisle/" "$home/maker.log"
wait_for "http://127.0.0.1:7433/aisle/" "$home/mail.log"
export NAILCROW_HOME="$home/cli" NAILCROW_SERVICE="http://127.0.0.1:$service"
if [ ! -f "$home/loaded" ]; then
  say "Filling it with demo data, through the real command; the console shows it as it comes: http://127.0.0.1:$service"
  began=$SECONDS
  NAILCROW_DEMO_TLS=7423 NAILCROW_DEMO_SYSLOG=127.0.0.1:7414 NAILCROW_DEMO_CARRIER=7431 NAILCROW_DEMO_MAKER=7432 NAILCROW_DEMO_MAIL=7434 "$root/demo/load.sh" >"$home/load.log" 2>&1 || { tail -20 "$home/load.log" >&2; say "The demo data could not be loaded; see $home/load.log. --fresh starts afresh."; exit 1; }
  touch "$home/loaded"
  say "Filled in $((SECONDS - began)) s."
fi
cat <<EOF

Nailcrow runs.
  Console             http://127.0.0.1:$service
                      sign in as  ilka  (engineer; she also dispatches and keeps stores)
                      or          lioth (lead)       all with the password  fenwright-demo
  Two demo machines   http://127.0.0.1:7421 and http://127.0.0.1:7422  (pull and insert their drives here)
                      the second asks who one is: service, with the secret fenwright-machine
  A carrier, a maker  http://127.0.0.1:7431 and http://127.0.0.1:7432  (nailcrow-standin parcel, warranty, behave)
  A mail server       http://127.0.0.1:7433/aisle/  (what it took; it delivers nothing)
  Syslog              127.0.0.1:7414, UDP and TCP  (nailcrow-standin syslog, nailcrow-standin storm)
  Command line        export PATH="$bin:\$PATH" NAILCROW_HOME="$home/cli"
                      nailcrow tickets

$(told_of_nodes "$nodes" "$service" "$home")
Ctrl-C stops it; the data stays in $home.
EOF
wait
