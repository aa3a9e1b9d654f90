#!/usr/bin/env bash
# Fills an empty service with the demo of Fenwright Storage Care, through the real command line.
set -euo pipefail
source "$(dirname "$0")/lib.sh"
# Everybody is given a first password, and chooses their own when they first sign in.
export NAILCROW_PASSWORD=fenwright-demo NAILCROW_FIRST_PASSWORD=fenwright-first NAILCROW_NEW_PASSWORD=fenwright-demo

# The two machines stand where demo.sh puts them, unless the tests put them elsewhere.
first=${NAILCROW_DEMO_FIRST:-7421} second=${NAILCROW_DEMO_SECOND:-7422}
say_to() { nailcrow-standin "${@:2}" --at "http://127.0.0.1:$1"; }

nailcrow sign-in admin
nailcrow person add ilka --full-name "Ilka Fenmoor" --roles engineer,dispatcher,stores
nailcrow person add tamsel --full-name "Tamsel Quarrow" --roles engineer
nailcrow person add brannoc --full-name "Brannoc Toll" --roles engineer
nailcrow person add wenna --full-name "Wenna Harl" --roles engineer
nailcrow person add dorrik --full-name "Dorrik Ashvane" --roles dispatcher
nailcrow person add sefa --full-name "Sefa Lundrel" --roles stores
nailcrow person add lioth --full-name "Lioth Marrendal" --roles lead,dispatcher
reference=$(mktemp)
sed "s#http://127.0.0.1:7421#http://127.0.0.1:$first#; s#http://127.0.0.1:7422#http://127.0.0.1:$second#" "$root/demo/reference.json" >"$reference"
nailcrow admin load "$reference"
rm "$reference"
for person in brannoc wenna dorrik lioth sefa tamsel ilka; do NAILCROW_PASSWORD=$NAILCROW_FIRST_PASSWORD nailcrow sign-in $person; done

# One of the two machines asks who one is, and shows a certificate it signed itself: somebody compares that and says yes once.
if [ -n "${NAILCROW_DEMO_TLS:-}" ]; then
  nailcrow appliance correct FSC-0108 --address "https://127.0.0.1:$NAILCROW_DEMO_TLS" --as lioth
  nailcrow appliance try FSC-0108 --as lioth || true
  nailcrow appliance trust FSC-0108 "$(nailcrow appliance access FSC-0108 --json --as lioth | value d.offered.certificate.sha256)" --as lioth
  NAILCROW_MACHINE_SECRET=fenwright-machine nailcrow appliance sign-in FSC-0108 service --as lioth
  nailcrow appliance try FSC-0108 --as lioth
fi

# What has no serial is counted.
nailcrow stock supply came "drive carriers" 24 --depot "Fenwright main stores" --as sefa
nailcrow stock supply came "M3 screws" 400 --depot "Fenwright main stores" --as sefa
nailcrow stock supply came "mini cables 0.5 m" 12 --depot "North depot" --as sefa
nailcrow stock supply move "drive carriers" 4 --from "Fenwright main stores" --to "van of tamsel" --as sefa
nailcrow stock supply move "M3 screws" 40 --from "Fenwright main stores" --to "van of tamsel" --as sefa
nailcrow stock supply count "mini cables 0.5 m" 11 --depot "North depot" --as sefa

# One that is long done: a machine nobody reaches by wire, so everything is typed by hand.
nailcrow ticket report FSC-0203 "The lamp of bay 5 is off and the screen lists seven drives" --bay 5 --serial CDR12T0046157
done_one=1001
nailcrow ticket take $done_one --as tamsel
bays=()
for bay in 1 2 3 4 6 7 8; do bays+=(--bay "$bay=CDR12T004615$((bay + 2)),member,good,catalogue"); done
nailcrow snapshot write $done_one "${bays[@]}" --bay 5=CDR12T0046157,dropped,faulted,catalogue --array catalogue=degraded --as tamsel
nailcrow part reserve $done_one CDR12T0077310 --model "Cindral C12T" --size 12000138625024 --depot "Fenwright main stores" --as sefa
nailcrow part issue $done_one --as sefa
nailcrow ticket arrive $done_one --as tamsel
nailcrow run start $done_one --as tamsel
"$root/demo/by-hand.sh" $done_one tamsel CDR12T0046157 CDR12T0077310 OSTR8-31944
nailcrow return open $done_one CDR12T0046157 --to-maker Cindral --authorisation RX-20417 --due "$(date -u -d "+20 days" +%F)" --data-agreed-by "Vault keeper Norra Selmark" --as tamsel
nailcrow return send $done_one CDR12T0046157 --carrier "Overfell Parcels" --tracking OP-77120 --as tamsel
nailcrow return arrive $done_one CDR12T0046157 --in-box CDR12T0046157 --as sefa
nailcrow part used "$done_one" "drive carriers" 1 --as tamsel
nailcrow part used "$done_one" "M3 screws" 8 --as tamsel
nailcrow ticket sign-off $done_one "Norra Selmark" --statement "Catalogue opens, search works." --as tamsel
nailcrow ticket close $done_one --as tamsel

# Two that wait for a newcomer: one for the console, one for the terminal.
say_to "$first" fail 2
sleep 2 # the machine says so itself; what the keeper reports then joins it
serial=$(nailcrow bays FSC-0107 --json | value 'd.snapshot.bays.find(b=>b.label=="2").serial')
nailcrow ticket report FSC-0107 "Amber lamp on bay 2, console says a drive is missing from vault" --bay 2 --serial "$serial"
nailcrow ticket take 1002
nailcrow snapshot take 1002
nailcrow part reserve 1002 "$(say_to "$first" look | value 'd.view.table[0].serial')" --model "Cindral C8" --size 8001563222016 --depot "Fenwright main stores"
nailcrow part issue 1002

say_to "$second" fail 8
sleep 2
serial=$(nailcrow bays FSC-0108 --json | value 'd.snapshot.bays.find(b=>b.label=="8").serial')
nailcrow ticket report FSC-0108 "Mail from the machine: desk is degraded" --bay 8 --serial "$serial"
nailcrow ticket take 1003
nailcrow snapshot take 1003
nailcrow ticket evidence 1003 "medium error, bay 8, 41 times since Sunday" --kind log-lines --bay 8 --count 41
nailcrow part reserve 1003 "$(say_to "$second" look | value 'd.view.table[0].serial')" --model "Cindral C8" --size 8001563222016 --depot "Fenwright main stores"
nailcrow part issue 1003

# One that a dispatcher has to look at, and one on hold.
nailcrow ticket report FSC-0311 "Gauge screen shows 'mirror online' but the log counts read errors on one drive" --job early
say_to "$second" warn 3
sleep 2
worn=$(nailcrow bays FSC-0108 --json | value 'd.snapshot.bays.find(b=>b.label=="3").serial')
nailcrow ticket report FSC-0108 "Bay 3 warns: spare blocks nearly used up" --bay 3 --serial "$worn" --job early
nailcrow snapshot take 1005
nailcrow ticket assign 1005 tamsel
nailcrow ticket hold 1005 "The plate room is closed until the new moon."

# A depot's shelf and what stands in the machines, from lists; and the many tickets of a small firm's autumn.
nailcrow import sites "$root/demo/depots.csv" --write --as lioth # where a depot stands, for how far its parts are
nailcrow import drives "$root/demo/stock.csv" --write --as lioth
nailcrow import drives "$root/demo/drives.csv" --write --as lioth
warranties=$(mktemp)
{
  echo "until,serial,model,terms"
  echo "$(date -d '+900 days' +%F),,Cindral C8-R,exchange in advance; media may be kept for a fee"
  echo "$(date -d '+200 days' +%F),C80AHP71ND,,bought with the shelf: return first"
  echo "$(date -d '+1500 days' +%F),,Cindral C12T,exchange in advance"
  echo "$(date -d '-70 days' +%F),,Pellworth P8-K,return first"
  echo "$(date -d '+40 days' +%F),,Hask H12-A,return first"
} >"$warranties"
nailcrow import warranties "$warranties" --write --as lioth
rm "$warranties"
node "$root/demo/tickets.mjs" "$NAILCROW_SERVICE"

# Carriers and makers whom the service can ask, where they are simulated; and one drive that goes back this way.
if [ -n "${NAILCROW_DEMO_CARRIER:-}" ]; then
  nailcrow partner set "Overfell Parcels" --kind carrier --address "http://127.0.0.1:$NAILCROW_DEMO_CARRIER" --secret nailcrow-stand-in-secret --as admin
  for maker in Cindral Hask Pellworth; do
    nailcrow partner set "$maker" --kind maker --address "http://127.0.0.1:$NAILCROW_DEMO_MAKER" --secret nailcrow-stand-in-secret --as admin
  done
  going=$(nailcrow tickets --json --as lioth | value 'd.tickets.filter(t=>t.stage=="rebuilding").at(-1).number')
  old=$(nailcrow return show "$going" --json --as lioth | value 'd.held.find(h=>!h.mayKeep).serial')
  nailcrow return ask-maker "$going" "$old" --maker Cindral --for advance-exchange --as lioth
  for _ in $(seq 50); do [ -z "$(nailcrow return show "$going" --json --as lioth | value 'd.claims[0].answered ? 1 : ""')" ] || break; sleep 0.2; done
  nailcrow return open "$going" "$old" --to-maker Cindral --data-agreed-by "the keeper on duty" --as lioth
  nailcrow return fetch "$going" "$old" --carrier "Overfell Parcels" --as lioth
fi

# What goes out by mail: a report to the customer, and reminders to whoever has an address.
if [ -n "${NAILCROW_DEMO_MAIL:-}" ]; then
  nailcrow partner set Post --kind mail --address "smtp://127.0.0.1:$NAILCROW_DEMO_MAIL/care@fenwright.example" --as admin
  for person in ilka tamsel lioth sefa; do
    nailcrow person mail "$person" "$person@fenwright.example" --as admin
  done
  nailcrow document send "$done_one" service-report --to norra.selmark@vault.example --says "The report of our visit, as promised." --as tamsel
fi

# What machines say by themselves: one that is understood, one that nobody knows, one whose sender nobody knows.
if [ -n "${NAILCROW_DEMO_SYSLOG:-}" ]; then
  nailcrow-standin syslog "medium error on dk4, 9 times" --host brk12-0007 --to "$NAILCROW_DEMO_SYSLOG"
  nailcrow-standin syslog "enclosure 2: vibration 0.8 g at bay 4, limit 0.5" --host tollardt12-33 --to "$NAILCROW_DEMO_SYSLOG" --older
  nailcrow-standin syslog "fan tray 1 replaced" --host unnamed-array --to "$NAILCROW_DEMO_SYSLOG"
  nailcrow-standin syslog "session opened for service" --host brk12-0007 --to "$NAILCROW_DEMO_SYSLOG"
fi
