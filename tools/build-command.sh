#!/usr/bin/env bash
# The command as it is released, compiled ahead of time, for tests: each of them starts it hundreds of times, and as it is built it
# takes two seconds of the processor each time. tools/build-command.sh FOLDER
set -euo pipefail
cd "$(dirname "$0")/.."
[ $# -eq 1 ] || { echo "Say where it goes: tools/build-command.sh FOLDER" >&2; exit 2; }
if ! command -v clang >/dev/null && ! command -v gcc >/dev/null || [ ! -e /usr/include/zlib.h ]; then
  root=""
  [ "$(id -u)" -eq 0 ] || root=sudo
  $root apt-get update -qq && $root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq clang zlib1g-dev >/dev/null
fi
# What it is made of is restored and built already, and compiled for speed of compiling.
exec dotnet publish src/Nailcrow.Cli -c Debug --no-restore -r linux-x64 -o "$1" -v q -m:1 -p:BuildProjectReferences=false -p:OptimizationPreference=
