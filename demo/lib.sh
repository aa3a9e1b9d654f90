# Shared by demo.sh, demo/load.sh and demo/walk.sh: building, starting, waiting, stopping.
root=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
bin="${NAILCROW_BIN:-$root/.build/bin}" # the tests play the walk with what they were built beside
export PATH="$bin:$PATH" DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1

say() { printf '%s\n' "$*" >&2; }

need() {
  command -v "$1" >/dev/null || { say "This needs $2 on the path; $1 was not found."; exit 2; }
}

build() {
  need dotnet "the .NET SDK 10"
  need npm "Node.js 20"
  say "Building (the first time takes two minutes) ..."
  local log="$root/.build/build.log"
  mkdir -p "$bin"
  {
    "$root/tools/build-console.sh" &&
      publish src/Nailcrow.Service service &&
      publish_command &&
      publish src/Nailcrow.StandIn standin
  } >"$log" 2>&1 || { tail -20 "$log" >&2; say "The build failed; all of it is in $log."; exit 1; }
  ln -sf ../cli/nailcrow "$bin/nailcrow"
  ln -sf ../standin/nailcrow-standin "$bin/nailcrow-standin"
  ln -sf ../service/nailcrow-service "$bin/nailcrow-service"
}

publish() {
  dotnet publish "$root/$1" -c Release -r linux-x64 --self-contained false -p:PublishReadyToRun=true -o "$root/.build/$2" -v q
}

# Ahead of time where a C toolchain is there to link it (a command then starts in 15 ms), else with the runtime.
publish_command() {
  if command -v clang >/dev/null || command -v gcc >/dev/null; then
    dotnet publish "$root/src/Nailcrow.Cli" -c Release -r linux-x64 -o "$root/.build/cli" -v q && return
    echo "Not linked ahead of time (is zlib1g-dev installed?); going on with the runtime."
  fi
  dotnet publish "$root/src/Nailcrow.Cli" -c Release -o "$root/.build/cli" -p:PublishAot=false -v q
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

# start_standin PORT SEED REBUILD_SECONDS FOLDER
start_standin() {
  nailcrow-standin run --port "$1" --seed "$2" --rebuild-seconds "$3" >>"$4/standin-$2.log" 2>&1 &
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
