#!/usr/bin/env bash
# Builds the service of the release before this one from our own history, once, and prints where it is: it has to run beside this one
# while nodes are upgraded one after the other. Ends with 3 where there is no history to build it from.
# tools/release-before.sh
set -euo pipefail
cd "$(dirname "$0")/.."
export DOTNET_TieredPGO=0 DOTNET_TC_CallCountThreshold=400 # as in build.sh
[ $# -eq 0 ] || { echo "It takes no words: tools/release-before.sh" >&2; exit 2; }
said() { sed -nE "s/.*const string $1 = \"(.*)\";/\1/p" src/Nailcrow.Store/Nodes/Release.cs; }
version=$(said Before) sources=$(said SourcesBefore)
place="$PWD/.build/release-$version-${sources:0:8}"
if [ ! -s "$place/nailcrow-service.dll" ]; then
  git cat-file -e "$sources^{commit}" 2>/dev/null ||
    { echo "The sources of $version ($sources) are not in this copy's history; 'git fetch --unshallow' brings them." >&2; exit 3; }
  draft="$place.sources"
  rm -rf "$draft" && mkdir -p "$draft"
  git archive "$sources" | tar -x -C "$draft"
  # As it was locked then, without the console: it answers calls here, and nobody looks at it. Its code was looked through then.
  (cd "$draft" && dotnet publish src/Nailcrow.Service -v q -c Release -o "$draft/out" -p:PublishReadyToRun=false -p:RunAnalyzers=false -p:UseSharedCompilation=true) >&2
  rm -rf "$place" && mv "$draft/out" "$place" && rm -rf "$draft"
fi
[ -s "$place/openapi.json" ] || git show "$sources:docs/openapi.json" >"$place/openapi.json"
echo "$place/nailcrow-service.dll"
