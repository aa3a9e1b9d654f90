#!/usr/bin/env bash
# Writes the locks of .NET packages (packages.lock.json) anew, after Directory.Packages.props or a project's references have changed:
# read the difference before it is committed. tools/update-packages.sh
set -euo pipefail
cd "$(dirname "$0")/.."
[ $# -eq 0 ] || { echo "It takes no words: tools/update-packages.sh" >&2; exit 2; }
dotnet restore Nailcrow.slnx --force-evaluate -p:RestoreLockedMode=false -v q
git --no-pager diff --stat -- '*packages.lock.json'
