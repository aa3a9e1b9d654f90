#!/usr/bin/env bash
# The command, the service and the stand-in compiled ahead of time, as releases are, for tests: those start some hundred processes of
# them, and as they are built each takes one to three seconds of the processor before it answers. tools/build-tested.sh FOLDER
set -euo pipefail
cd "$(dirname "$0")/.."
[ $# -eq 1 ] || { echo "Say where it goes: tools/build-tested.sh FOLDER" >&2; exit 2; }
if ! command -v clang >/dev/null && ! command -v gcc >/dev/null || [ ! -e /usr/include/zlib.h ]; then
  root=""
  [ "$(id -u)" -eq 0 ] || root=sudo
  $root apt-get update -qq && $root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq clang zlib1g-dev >/dev/null
fi
export DOTNET_TieredPGO=0 DOTNET_TC_CallCountThreshold=400 # as in build.sh
# What they are made of is restored and built already.
publish() {
  dotnet publish "src/Nailcrow.$1" -c Debug --no-restore -r linux-x64 -v q -m:1 -p:BuildProjectReferences=false -p:RunAnalyzers=false "${@:2}"
}
publish Cli -o "$1" -p:OptimizationPreference= # for speed of compiling
for project in Service StandIn; do
  dotnet restore "src/Nailcrow.$project" -v q -p:PublishReadyToRun=true
  publish "$project" -o "$1" -p:SelfContained=false -p:PublishReadyToRun=true
done
