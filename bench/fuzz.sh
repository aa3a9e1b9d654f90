#!/usr/bin/env bash
# Gives everything that takes what comes from outside made-up inputs, grown from what reached something new: bench/fuzz.sh [INPUTS [TARGET ...]]
set -euo pipefail
root=$(cd "$(dirname "$0")/.." && pwd)
cd "$root"
tools/build.sh bench/Nailcrow.Fuzz -c Release
rm -rf .build/fuzz/bin
mkdir -p .build/fuzz
cp -r bench/Nailcrow.Fuzz/bin/Release/net10.0 .build/fuzz/bin
dotnet bench/Nailcrow.Fuzz/bin/Release/net10.0/Nailcrow.Fuzz.dll instrument .build/fuzz/bin
exec dotnet .build/fuzz/bin/Nailcrow.Fuzz.dll run "${1:-100000}" "${@:2}"
