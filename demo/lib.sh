# Shared by demo.sh, demo/load.sh and demo/walk.sh: building, starting, waiting, stopping.
root=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
bin="${NAILCROW_BIN:-$root/.build/bin}" # the tests play the walk with what they were built beside
export PATH="$bin:$PATH" DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1

say() { printf '%s\n' "$*" >&2; }

need() {
  command -v "$1" >/dev/null || { say "This needs $2 on the path; $1 was not found."; exit 2; }
}

# Each stage is told with its time: nobody likes a silent machine.
stage() {
  local began=$SECONDS what=$1
  shift
  printf '  %-46s' "$what" >&2
  "$@" >>"$root/.build/build.log" 2>&1 || { say "failed"; tail -20 "$root/.build/build.log" >&2; say "All of it is in $root/.build/build.log."; exit 1; }
  say "$((SECONDS - began)) s"
}

# Compiled as it is run first: ahead of time is for releases and for bench/run.sh, which nobody waits for here.
build() {
  need dotnet "the .NET SDK 10"
  need npm "Node.js 20"
  mkdir -p "$bin"
  : >"$root/.build/build.log"
  say "Building; the first time takes two to three minutes."
  # The packages of both come over the network, and then each needs the machine for itself.
  "$root/tools/build-console.sh" --packages >"$root/.build/packages.log" 2>&1 &
  local packages=$!
  stage "packages of the service" dotnet restore "$root/Nailcrow.slnx" -v q
  stage "packages of the console" wait_packages "$packages"
  stage "console" "$root/tools/build-console.sh"
  stage "service, command, stand-in" "$root/tools/build.sh" demo/demo.slnf -c Release --no-restore
  ln -sf "$root/src/Nailcrow.Cli/bin/Release/net10.0/nailcrow" "$bin/nailcrow"
  ln -sf "$root/src/Nailcrow.StandIn/bin/Release/net10.0/nailcrow-standin" "$bin/nailcrow-standin"
  ln -sf "$root/src/Nailcrow.Service/bin/Release/net10.0/nailcrow-service" "$bin/nailcrow-service"
}

wait_packages() {
  wait "$1" || { cat "$root/.build/packages.log"; return 1; }
}

free_port() {
  local port
  while :; do
    port=$((20000 + RANDOM % 20000))
    (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null || { echo "$port"; return; }
  done
}

# start_service PORT FOLDER WATCH_EVERY_SECONDS [MORE SETTINGS]
start_service() {
  (cd "$(dirname "$(readlink -f "$bin/nailcrow-service")")" && exec ./nailcrow-service --urls "http://127.0.0.1:$1" \
    --Nailcrow:Data="$2/nailcrow.db" --Nailcrow:Procedures="$root/procedures" --Nailcrow:WatchEverySeconds="$3" \
    --Nailcrow:FirstAdmin:Name=admin --Nailcrow:FirstAdmin:Password=fenwright-demo "${@:4}") >>"$2/service.log" 2>&1 &
  started+=($!)
}

# start_standin PORT SEED REBUILD_SECONDS FOLDER [MORE OPTIONS]
start_standin() {
  nailcrow-standin run --port "$1" --seed "$2" --rebuild-seconds "$3" "${@:5}" >>"$4/standin-$2.log" 2>&1 &
  started+=($!)
}

# start_partner carrier|maker|mail PORT FOLDER [MORE OPTIONS]
start_partner() {
  nailcrow-standin "$1" --port "$2" "${@:4}" >>"$3/$1.log" 2>&1 &
  started+=($!)
}

# wait_for URL LOG: until it answers, at most a minute
wait_for() {
  local tries
  for tries in $(seq 300); do
    curl_ok "$1" && return
    sleep 0.2
  done
  tail -5 "$2" >&2
  say "Nothing answers at $1; its log is $2."
  exit 1
}

# curl is not on every machine; bash itself can ask.
curl_ok() {
  local rest=${1#http://} host port path line
  host=${rest%%:*} rest=${rest#*:} port=${rest%%/*} path=/${rest#*/}
  { exec 3<>"/dev/tcp/$host/$port"; } 2>/dev/null || return 1
  printf 'GET %s HTTP/1.0\r\nHost: %s\r\n\r\n' "$path" "$host" >&3
  read -r -t 5 line <&3
  exec 3>&-
  [[ $line == *" 200 "* ]]
}

# What an expression of JavaScript says of the JSON on standard input, d: value 'd.view.table[0].serial'
value() {
  node -e 'const said = new Function("d", `return ${process.argv[1]}`)(JSON.parse(require("fs").readFileSync(0))); console.log(said ?? "")' "$1"
}

# stop_last: the last that was started, as an operator stops it
stop_last() {
  kill -TERM "${started[-1]}"
  wait "${started[-1]}" 2>/dev/null || true
  unset "started[-1]"
}

started=()
stop_all() {
  [ ${#started[@]} -eq 0 ] || kill "${started[@]}" 2>/dev/null || true
  wait "${started[@]}" 2>/dev/null || true
}
