#!/usr/bin/env bash
# Builds with one compiler that stays from project to project and goes at the end: half of the work of a build is starting another
# for each, and where its surroundings ask for that, MSBuild does. tools/build.sh WHAT [OPTIONS OF dotnet build]
set -uo pipefail
cd "$(dirname "$0")/.."
# It lives for two minutes: watching how its own code is called and compiling that once more, to be faster later, was a third of its work.
export DOTNET_TieredPGO=0 DOTNET_TC_CallCountThreshold=400
dotnet build "$@" -v q -p:UseSharedCompilation=true
status=$?
dotnet build-server shutdown --vbcscompiler >/dev/null 2>&1
exit "$status"
