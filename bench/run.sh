#!/usr/bin/env bash
# Publishes what is measured, and its floors, the same way; then measures: bench/run.sh [start|append|append-postgres|nodes|record|move|fire|long|killed|pages|lists|console|command|verdicts|storm|import|procedures|phone|ledger|guarded|hostile ...]
set -euo pipefail
root=$(cd "$(dirname "$0")/.." && pwd)
out="$root/.build/bench"
"$root/tools/build-console.sh"
# Restored without a runtime, as the locks have it; what compiles for one comes with it.
publish() {
  dotnet restore "$root/$1" -v q "${@:3}"
  dotnet publish "$root/$1" -c Release --no-restore -r linux-x64 -o "$out/$2" -v q "${@:3}"
}
publish src/Nailcrow.Service service -p:SelfContained=false -p:PublishReadyToRun=true
publish bench/Nailcrow.Bare.Web bare-web -p:SelfContained=false -p:PublishReadyToRun=true
publish src/Nailcrow.Cli command
publish bench/Nailcrow.Bare.Command bare-command
"$root/tools/build.sh" bench/Nailcrow.Bench -c Release
exec dotnet "$root/bench/Nailcrow.Bench/bin/Release/net10.0/Nailcrow.Bench.dll" "$@"
