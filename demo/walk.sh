#!/usr/bin/env bash
# Plays one ticket from the fault to its closing through the real command, on a service and a machine of its own.
# With NAILCROW_WALK_NODES=3 on so many services behind a proxy; the one that follows the rebuild is killed in the middle of it.
# Ends non-zero at the first thing that is not as it should be.
set -euo pipefail
source "$(dirname "$0")/lib.sh"

home=$(mktemp -d)
source "$root/demo/nodes.sh"
trap 'stop_all; stop_postgres; rm -rf "$home"' EXIT
service=$(free_port) machine=$(free_port)
export NAILCROW_HOME="$home/cli" NAILCROW_SERVICE="http://127.0.0.1:$service" NAILCROW_PASSWORD=fenwright-demo NAILCROW_FIRST_PASSWORD=fenwright-first NAILCROW_NEW_PASSWORD=fenwright-demo
nodes=${NAILCROW_WALK_NODES:-0}
# Long enough for what is refused meanwhile, also on a slow machine, and for somebody to be killed in the middle of it.
start_standin "$machine" 7 "$([ "$nodes" -eq 0 ] && echo 30 || echo 60)" "$home"
if [ "$nodes" -eq 0 ]; then
  start_service "$service" "$home" 1
else
  need_nodes
  chmod 711 "$home" # PostgreSQL runs as somebody else, and has to get to its own folder
  postgres_home="$home/postgres" syslog_first=$(free_port)
  start_nodes "$nodes" "$service" "$home" 1
fi
wait_for "$NAILCROW_SERVICE/health/ready" "$home/service.log"
wait_for "http://127.0.0.1:$machine/redfish/v1" "$home/standin-7.log"

begun=$SECONDS
output=""
told() { [ -t 1 ] && printf '\n\033[1m$ %s\033[0m\n' "$*" || printf '\n$ %s\n' "$*"; }
# Runs a command that has to succeed.
run() { told "$(quoted "$@")"; local got=0; output=$("$@" 2>&1) || got=$?; echo "$output"; [ "$got" -eq 0 ] || fail "it ended with $got, not 0"; }
# Runs a command that has to be refused with this exit code: refused 1 nailcrow ...
refused() {
  local want=$1 got=0; shift
  told "$(quoted "$@")"
  output=$("$@" 2>&1) || got=$?
  echo "$output"
  [ "$got" -eq "$want" ] || fail "it ended with $got, not $want"
}
quoted() { local word all=""; for word in "$@"; do [[ $word =~ ^[A-Za-z0-9_./:=,-]+$ ]] && all+="$word " || all+="\"$word\" "; done; echo "${all% }"; }
# What was just printed has to say this.
see() { [[ $output == *"$1"* ]] || fail "it does not say '$1'"; }
fail() { say; say "NOT AS IT SHOULD BE: $1"; exit 1; }
n() { run nailcrow "$@"; }
hand() { run nailcrow-standin "$@" --at "http://127.0.0.1:$machine"; }
chapter() { [ -t 1 ] && printf '\n\033[1;7m %s \033[0m\n' "$1" || printf '\n=== %s ===\n' "$1"; }

chapter "The firm"
n sign-in admin
n person add ilka --full-name "Ilka Fenmoor" --roles engineer
n person add sefa --full-name "Sefa Lundrel" --roles stores
n person add lioth --full-name "Lioth Marrendal" --roles lead
sed "s#http://127.0.0.1:7421#http://127.0.0.1:$machine#" "$root/demo/reference.json" >"$home/reference.json"
n admin load "$home/reference.json"
see "Loaded 13 models, 15 sites and 41 appliances."
for person in sefa lioth ilka; do
  NAILCROW_PASSWORD=$NAILCROW_FIRST_PASSWORD n sign-in $person # each chooses a password of their own
done

chapter "A fault arrives"
hand fail 2
bad=$(nailcrow bays FSC-0107 --json | value 'd.snapshot.bays.find(b=>b.label=="2").serial')
other=$(nailcrow bays FSC-0107 --json | value 'd.snapshot.bays.find(b=>b.label=="3").serial')
new=$(nailcrow-standin look --at "http://127.0.0.1:$machine" | value 'd.view.table[0].serial')
n ticket report FSC-0107 "Amber lamp on bay 2" --bay 2 --serial "$bad"
see "T-1001"
n ticket report FSC-0107 "The machine mails that vault is degraded" --serial "$bad"
see "T-1001" # a second alert of one fault joins it
n ticket take T-1001
n snapshot take T-1001
n ticket show T-1001
see "vault is degraded, 5 of 6 members"
n bays T-1001 --reasons
see "thins"

chapter "The part"
printf 'serial,model,size,depot,used-in\nHSKWALK0001,Hask H16-V,16000900661248,North depot,\nC8WALK00002,Cindral C8-R,8001563222016,North depot,\nP8WALK00003,Pellworth P8-K,8001563222016,North depot,FSC-0431\nbad row,,\n' >"$home/stock.csv"
n import drives "$home/stock.csv" --as lioth
see "line 5"
n import drives "$home/stock.csv" --write --as lioth
see "3 brought in"
n bring T-1001 --all
see "no wipe is on record"
refused 1 nailcrow part reserve T-1001 HSKWALK0001 --as sefa
see "say why this one is taken"
n desk --as lioth
refused 1 nailcrow part reserve T-1001 "$new" --model "Cindral C8" --size 4TB --depot "Main stores" --as sefa
see "are needed for the array to hold what it holds now"
n part reserve T-1001 "$new" --model "Cindral C8" --size 8001563222016 --depot "Main stores" --as sefa
refused 4 nailcrow part issue T-1001
n part issue T-1001 --as sefa

chapter "On site: find the machine"
n ticket arrive T-1001
n run start T-1001
n run step T-1001
n run answer T-1001
n run answer T-1001 no
see "no known backup"
refused 1 nailcrow run answer T-1001
n ticket call T-1001 "Nobody here knows of a backup. One more member can be lost."
refused 1 nailcrow run answer T-1001
n ticket answer T-1001 "Go on: the margin is one and the drive is already out of the array." --go-ahead --as lioth
n run answer T-1001
n run answer T-1001
n light on T-1001
n run answer T-1001
n run answer T-1001 yes
n run answer T-1001 "S/N brk12-0007"
see "the same serial"
n run answer T-1001
n light off T-1001
n run answer T-1001
refused 1 nailcrow run answer T-1001
see "There is no snapshot since you arrived; take one."
n snapshot take T-1001
n run answer T-1001
n run answer T-1001
n run answer T-1001

chapter "The bay, by two marks: and still the wrong one"
n run answer T-1001 yes
n run answer T-1001 no
n run answer T-1001 no
n run answer T-1001 no
refused 1 nailcrow run answer T-1001
see "two independent marks have to agree"
n run answer T-1001 look-again
n run answer T-1001 yes
n run answer T-1001 no
n run answer T-1001
hand pull 3
n run answer T-1001
n run answer T-1001 "$other"
see "That is the drive of bay 3, member of vault."
n run step T-1001
see "straight back"
hand insert 3 "$other"
n run answer T-1001
n snapshot take T-1001
n run answer T-1001
n run answer T-1001 yes
n run answer T-1001 no
n run answer T-1001 yes
n run answer T-1001 no
refused 1 nailcrow run answer T-1001
see "led to the wrong drive; find another one"
n run answer T-1001 look-again
n run answer T-1001 yes
n run answer T-1001 yes
n run answer T-1001

chapter "The right one"
hand pull 2
n run answer T-1001
n run answer T-1001 "${bad: -5}"
see "read the whole serial"
n run answer T-1001 "$bad"
see "the same serial"
n run answer T-1001
refused 1 nailcrow run answer T-1001
see "Wait"
sleep 5
n run answer T-1001
n run answer T-1001 "$bad"
see "$new was expected"
n run answer T-1001
n run answer T-1001 "S/N: $(echo "$new" | tr 'A-Z' 'a-z')"
see "the same serial"
n run answer T-1001
hand insert 2 "$new"
n run answer T-1001
n run answer T-1001
n snapshot take T-1001
n run answer T-1001
n run answer T-1001

chapter "The rebuild"
hand start vault 2
refused 2 nailcrow run answer T-1001
n run answer T-1001 "all of it"
see "Name the bay (2) and the serial ($new)"
n run answer T-1001 "bay 2, $new"
refused 1 nailcrow rebuild read T-1001 --percent 140
see "0 to 100"
n rebuild read T-1001
n run answer T-1001
refused 1 nailcrow run answer T-1001
see "not yet a member"
refused 1 nailcrow ticket close T-1001
see "array whole:"
if [ "$nodes" -gt 0 ]; then
  run kill_who_does FollowingRebuilds
fi
n rebuild watch T-1001 --every 1
see "done"
n rebuild show T-1001
n snapshot difference T-1001
see "Bay 2 held $bad and now holds $new."
n run answer T-1001
n run answer T-1001
n run answer T-1001
n run answer T-1001
n run step T-1001
see "at its end"

chapter "The procedure, and how it went"
n procedure check "$root/procedures/front-hot.yaml"
see "proved"
n procedure times front-hot
see "too early to tell"
sed "s/needs: bay-established/needs: snapshot-before/" "$root/procedures/fragments/find-bay-inside.yaml" >"$home/inside.yaml"
mkdir -p "$home/procedures" && cp -r "$root/procedures/." "$home/procedures" && cp "$home/inside.yaml" "$home/procedures/fragments/find-bay-inside.yaml"
refused 1 nailcrow procedure check "$home/procedures/front-hot.yaml"
see "pulls a drive before two marks have said that this is the bay"
refused 1 nailcrow procedure publish "$home/procedures/front-hot.yaml" --as lioth
sed "s/Wrong drive. Push it straight back/Wrong drive. Push it straight, without force, back/" "$root/procedures/fragments/wrong-back.yaml" >"$home/procedures/fragments/wrong-back.yaml"
cp "$root/procedures/fragments/find-bay-inside.yaml" "$home/procedures/fragments/find-bay-inside.yaml"
refused 4 nailcrow procedure publish "$home/procedures/front-hot.yaml"
word=$(nailcrow procedure check "$home/procedures/front-hot.yaml" --json | value 'd.procedures[0].trusting')
refused 2 nailcrow procedure publish "$home/procedures/front-hot.yaml" --as lioth </dev/null
n procedure publish "$home/procedures/front-hot.yaml" --trusting "$word" --as lioth
see "is published"
n procedure versions front-hot
newest=$(nailcrow procedure versions front-hot --json | value 'd.versions[0].version')
oldest=$(nailcrow procedure versions front-hot --json | value 'd.versions[1].version')
n procedure compare front-hot "$oldest" "$newest"
see "put-back"
n procedure withdraw front-hot "$newest" "The sentence is longer, not better." --as lioth

chapter "Back it goes"
refused 1 nailcrow return open T-1001 "$bad" --to-maker Pellworth --authorisation RX-311
see "it was agreed that such drives stay with them"
n return open T-1001 "$bad" --to-maker Pellworth --authorisation RX-311 --due "$(date -u -d "+20 days" +%F)" --data-agreed-by "Archivist Halda Venn"
n return send T-1001 "$bad" --carrier "Overfell Parcels" --tracking OP-1
refused 1 nailcrow ticket close T-1001
see "custody:"
n return arrive T-1001 "$bad" --in-box "$bad" --as sefa
n return show T-1001
n ticket sign-off T-1001 "Halda Venn" --statement "Opened three volumes; all there."
n ticket close T-1001

chapter "The record proves it"
n ticket journal T-1001
n tickets --all
see "closed"
n admin verify --as admin
see "are as they were written"
n admin seal --into "$home/seal.txt" --as admin
n ticket prove T-1001 --into "$home/proof.json"
run node "$root/docs/check-proof.mjs" "$home/proof.json"
see "are contained unchanged in seal 1"
[ "$nodes" -gt 0 ] || n admin backup "$home/backup.zip" --as admin
n admin rebuild-projections --as admin
run nailcrow ticket show T-1001
before=$output

if [ "$nodes" -gt 0 ]; then
  n admin verify --seal "$home/seal.txt" --as admin
  see "are what was sealed"
  printf '\nThe walk took %s seconds, on %s nodes of which one was killed; everything was as it should be.\n' $((SECONDS - begun)) "$nodes"
  exit 0
fi

chapter "After a restart, and from the backup"
stop_last
start_service "$service" "$home" 1
wait_for "$NAILCROW_SERVICE/health/ready" "$home/service.log"
run nailcrow ticket show T-1001
[ "$output" = "$before" ] || fail "the ticket is not as it was before the restart"
n admin verify --seal "$home/seal.txt" --as admin
see "are what was sealed"
stop_last
mkdir "$home/elsewhere"
run nailcrow-service restore "$home/backup.zip" "--Nailcrow:Data=$home/elsewhere/nailcrow.db"
refused 1 nailcrow-service restore "$home/backup.zip" "--Nailcrow:Data=$home/elsewhere/nailcrow.db"
see "is there already"
start_service "$service" "$home/elsewhere" 1
wait_for "$NAILCROW_SERVICE/health/ready" "$home/elsewhere/service.log"
for person in admin ilka; do n sign-in $person; done
n admin verify --seal "$home/seal.txt" --as admin
see "are what was sealed"
n ticket show T-1001 --json >/dev/null

printf '\nThe walk took %s seconds; everything was as it should be.\n' $((SECONDS - begun))
