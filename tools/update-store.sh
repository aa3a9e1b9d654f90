#!/usr/bin/env bash
# After a change to a mapping: adds a migration and compiles the model again. tools/update-store.sh NAME_OF_THE_CHANGE
set -euo pipefail
cd "$(dirname "$0")/.."
[ $# -eq 1 ] || { echo "Say what changed, as a name: tools/update-store.sh PartsHaveAWarranty" >&2; exit 2; }
dotnet tool restore
rm -rf src/Nailcrow.Store/Migrations/SqliteModel # the design-time model must not be the compiled one
dotnet ef migrations add "$1" --project src/Nailcrow.Store --context SqliteNailcrowDb --output-dir Migrations/Sqlite
dotnet ef dbcontext optimize --project src/Nailcrow.Store --context SqliteNailcrowDb --output-dir Migrations/SqliteModel --namespace Nailcrow.Store.Migrations.SqliteModel
