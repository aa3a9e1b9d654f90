#!/usr/bin/env bash
# A PostgreSQL of one's own in FOLDER, on a socket there and on loopback: tools/postgres.sh FOLDER [SETTING=VALUE ...]
# Without port=NUMBER among the settings it looks for a free one.
# Says in one line how it is reached once it answers, and ends with its standard input: with whoever started it, however that ends. A
# line on it throws it away: it ends at once, and FOLDER goes with it.
set -euo pipefail
[ $# -ge 1 ] || { echo "Say where: tools/postgres.sh FOLDER [SETTING=VALUE ...]" >&2; exit 2; }
folder=$1
shift
bin=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1)
[ -n "$bin" ] || { echo "PostgreSQL is not installed; on Debian: apt-get install postgresql" >&2; exit 1; }
mkdir -p "$folder"
folder=$(cd "$folder" && pwd)
as=()
if [ "$(id -u)" -eq 0 ]; then # it refuses to run as root
  chown postgres: "$folder"
  as=(setpriv --reuid=postgres --regid=postgres --clear-groups)
fi
cd "$folder"
# Sorted as people sort: what compares by the numbers of characters has to say so.
[ -s data/PG_VERSION ] ||
  "${as[@]}" "$bin/initdb" -D "$folder/data" -U nailcrow -A trust -E UTF8 --locale=C.UTF-8 --locale-provider=icu --icu-locale=en-US --no-sync >initdb.log 2>&1 ||
  { cat initdb.log >&2; exit 1; }
settings=() ports=$(shuf -i 20000-31999 -n 20)
for setting in "$@"; do
  case $setting in
    port=*) ports=${setting#port=} ;;
    *) settings+=(-c "$setting") ;;
  esac
done
for port in $ports; do
  "${as[@]}" "$bin/postgres" -D "$folder/data" -k "$folder" -p "$port" -c listen_addresses=127.0.0.1 "${settings[@]}" >>"$folder/server.log" 2>&1 &
  server=$!
  trap 'kill -INT $server 2>/dev/null || true; wait $server || true' EXIT
  until "$bin/pg_isready" -q -h "$folder" -p "$port" || ! kill -0 $server 2>/dev/null; do sleep 0.05; done
  if kill -0 $server 2>/dev/null; then
    echo "Host=127.0.0.1;Port=$port;Username=nailcrow"
    # Until whoever started it has gone, who does not have to wait for what follows.
    if read -r _; then
      trap '' PIPE # what it started may still say a word to whoever has gone
      trap - EXIT
      kill -QUIT $server && wait $server || true
      cd / && rm -rf "$folder"
    fi
    exit 0
  fi
done
echo "PostgreSQL does not start; the end of $folder/server.log:" >&2
tail -5 "$folder/server.log" >&2
exit 1
