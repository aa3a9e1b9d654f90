#!/usr/bin/env bash
# Publishes what is measured, and its floors, the same way; then measures: bench/run.sh [start|append|record|long|killed|pages|console|command|verdicts|storm|import|procedures|phone|ledger|guarded|hostile ...]
set -euo pipefail
root=$(cd "$(dirname "$0")/.." && pwd)
out="$root/.build/bench"
"$root/tools/build-console.sh"
publish() { dotnet publish "$root/$1" -c Release -r linux-x64 -o "$out/$2" -v q "${@:3}"; }
publish src/Nailcrow.Service service --self-contained false -p:PublishReadyToRun=true
publish bench/Nailcrow.Bare.Web bare-web --self-contained false -p:PublishReadyToRun=true
publish src/Nailcrow.Cli command
publish bench/Nailcrow.Bare.Command bare-command
dotnet build "$root/bench/Nailcrow.Bench" -c Release -v q
exec dotnet "$root/bench/Nailcrow.Bench/bin/Release/net10.0/Nailcrow.Bench.dll" "$@"
