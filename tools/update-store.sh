#!/usr/bin/env bash
# After a change to a mapping: adds a migration for SQLite and one for PostgreSQL, where tables change, and compiles SQLite's model
# again. tools/update-store.sh [NAME_OF_THE_CHANGE]
set -euo pipefail
cd "$(dirname "$0")/.."
[ $# -le 1 ] || { echo "Say what changed, as one name: tools/update-store.sh PartsHaveAWarranty; without a name only the model is compiled." >&2; exit 2; }
dotnet tool restore
rm -rf src/Nailcrow.Store/Migrations/SqliteModel # the design-time model must not be the compiled one
if [ $# -eq 1 ]; then
  dotnet ef migrations add "$1" --project src/Nailcrow.Store --context SqliteNailcrowDb --output-dir Migrations/Sqlite
  dotnet ef migrations add "$1" --project src/Nailcrow.Store --context PostgresNailcrowDb --output-dir Migrations/Postgres --no-build
fi
dotnet ef dbcontext optimize --project src/Nailcrow.Store --context SqliteNailcrowDb --output-dir Migrations/SqliteModel --namespace Nailcrow.Store.Migrations.SqliteModel
