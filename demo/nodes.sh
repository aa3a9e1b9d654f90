# For demo.sh --nodes: a PostgreSQL, several equal services on it, and a proxy in front of them.

# Not in the folder of the repository: where everything here is root's, PostgreSQL runs as somebody else, who has to get there.
postgres_home="/var/tmp/nailcrow-demo-$(id -u)"
syslog_first=7414 # the first node's; each further one listens a hundred higher

need_nodes() {
  PATH="$PATH:/usr/sbin" # where haproxy is, also for who is not root
  ls /usr/lib/postgresql/*/bin/postgres >/dev/null 2>&1 && command -v haproxy >/dev/null && command -v openssl >/dev/null && return
  local as=""
  [ "$(id -u)" -eq 0 ] || as=sudo
  say "PostgreSQL, haproxy and openssl are installed for it, from Debian."
  { $as apt-get update -qq && $as env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq postgresql haproxy openssl; } >"$root/.build/nodes.log" 2>&1 ||
    { tail -5 "$root/.build/nodes.log" >&2; say "They could not be; see $root/.build/nodes.log."; exit 1; }
}

# It ends with us, whatever becomes of us.
start_postgres() {
  tail -f /dev/null --pid=$$ | "$root/tools/postgres.sh" "$postgres_home" max_connections=400 >"$1/postgres.line" 2>"$1/postgres.log" &
  postgres=$!
  local tries
  for tries in $(seq 300); do
    [ ! -s "$1/postgres.line" ] || break
    sleep 0.2
  done
  [ -s "$1/postgres.line" ] || { cat "$1/postgres.log" >&2; say "PostgreSQL does not start."; exit 1; }
  database="$(cat "$1/postgres.line");Database=nailcrow"
  local port=${database#*Port=}
  psql -h 127.0.0.1 -p "${port%%;*}" -U nailcrow -d postgres -qc "CREATE DATABASE nailcrow TEMPLATE template0" 2>/dev/null || true # there from last time
}

# After stop_all, before its folder goes: it is waited for.
stop_postgres() {
  [ -n "${postgres:-}" ] || return 0
  pkill -P $$ -x tail || true # its standard input ends
  wait "$postgres" 2>/dev/null || true
}

# What keys are protected by in the database: the same for all nodes, and not in the database.
make_certificate() {
  [ -s "$1/keys.pem" ] || openssl req -x509 -newkey rsa:3072 -nodes -days 3650 -subj "/CN=nailcrow keys" -keyout "$1/keys.key" -out "$1/keys.pem" 2>/dev/null
}

# start_nodes COUNT PUBLIC_PORT FOLDER WATCH_EVERY_SECONDS [MORE SETTINGS]: at PUBLIC_PORT + 20 + number, and the proxy at PUBLIC_PORT
start_nodes() {
  local count=$1 public=$2 home=$3 watch=$4 number
  start_postgres "$home"
  make_certificate "$home"
  for number in $(seq "$count"); do
    mkdir -p "$home/node-$number"
    start_service "$((public + 20 + number))" "$home/node-$number" "$watch" --Nailcrow:Database="$database" \
      --Nailcrow:KeysCertificate:Certificate="$home/keys.pem" --Nailcrow:KeysCertificate:Key="$home/keys.key" \
      --Nailcrow:PublicUrl="http://127.0.0.1:$public" --Nailcrow:Proxies:0=127.0.0.1 \
      --Nailcrow:Seen:Page=true --Nailcrow:Seen:GoingDownSeconds=2 \
      --Nailcrow:Intake:SyslogPort="$((syslog_first + (number - 1) * 100))" "${@:5}"
  done
  ln -sf node-1/service.log "$home/service.log"
  {
    sed "s/:7420/:$public/" "$root/demo/nodes.cfg"
    for number in $(seq "$count"); do echo "  server node-$number 127.0.0.1:$((public + 20 + number)) cookie $number"; done
  } >"$home/proxy.cfg"
  haproxy -db -f "$home/proxy.cfg" >"$home/proxy.log" 2>&1 &
  started+=($!)
}

# kill_who_does WORK: no chance to tidy up, and no word of it to anybody
kill_who_does() {
  local port=${database#*Port=} name
  name=$(psql -h 127.0.0.1 -p "${port%%;*}" -U nailcrow -d nailcrow -Atc "SELECT n.name FROM lease l JOIN node n ON n.id = l.node WHERE l.work = '$1'")
  kill -KILL "${name##* }" && echo "$name is gone, which did: $1"
}

# Where each is, and how one is killed.
told_of_nodes() {
  [ "$1" -gt 0 ] || return 0
  local number
  echo "  Nodes               behind the proxy at $2; kill one while you look, and start the demo again to have it back"
  for number in $(seq "$1"); do
    echo "                      http://127.0.0.1:$(($2 + 20 + number))  syslog at $((syslog_first + (number - 1) * 100))  pkill -KILL -f 'urls http://127.0.0.1:$(($2 + 20 + number))'"
  done
}
