#!/usr/bin/env bash
# A PostgreSQL of one's own in FOLDER, on a socket there and on loopback: tools/postgres.sh FOLDER [SETTING=VALUE ...]
# Without port=NUMBER among the settings it looks for a free one.
# Says in one line how it is reached once it answers, and ends with its standard input: with whoever started it, however that ends. A
# line on it ends it at once, as what is thrown away may end.
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
    # Until whoever started it has gone. A word before that says that nothing of it is kept, and nothing has to be put in order.
    ! read -r _ || kill -QUIT $server
    exit 0
  fi
done
echo "PostgreSQL does not start; the end of $folder/server.log:" >&2
tail -5 "$folder/server.log" >&2
exit 1
