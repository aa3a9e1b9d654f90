#!/usr/bin/env bash
# Installs what the tests need, builds everything and runs every test. The last line is the sum.
set -uo pipefail
cd "$(dirname "$0")"
export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1 NO_COLOR=1 PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1
# All that runs here lives for some minutes: watching how code is called, to compile it better, takes longer than it saves.
export DOTNET_TieredPGO=0
# A thread that waits for work spins for a while first, and on two cores takes what the process that it waits for could use.
export DOTNET_ThreadPool_UnfairSemaphoreSpinLimit=0
passed=0 failed=0
mkdir -p .build
rm -rf .build/dotnet-test.log .build/checks-failed.log .build/test-times* .build/*.ended

# What comes next, and how long all has taken: on the clock, and of the machine's processors, which others may be given for a while.
stage() {
  echo "== $1  [$(minutes $SECONDS), processors $(minutes $(($(processors) - processors_before)))]"
}
minutes() { printf '%d:%02d' $(($1 / 60)) $(($1 % 60)); }
processors() { awk '/^cpu /{ printf "%d", ($2 + $3 + $4) / 100 }' /proc/stat 2>/dev/null || echo 0; }
processors_before=$(processors)

end() {
  stage "Ended"
  what_failed
  echo "$passed passed, $failed failed"
  [ "$failed" -eq 0 ]
  exit
}

# Once more at the end, where it is read: the tests that failed, a few lines each. A fixture's trouble is told for each of its
# tests above, and once here.
what_failed() {
  [ "$failed" -gt 0 ] || return 0
  echo "== What failed"
  cat .build/checks-failed.log 2>/dev/null
  [ -s .build/dotnet-test.log ] || return 0
  grep -E -A 7 '^failed ' .build/dotnet-test.log | cut -c1-300 | awk '/Test Collection Cleanup/ && n++ { skip = 1 } /^--$/ { skip = 0 } !skip' | head -80
}

# Something that has to work before the tests mean anything.
must() {
  stage "$1"
  shift
  "$@" || { failed_check "$(basename "$1") did not end well, and nothing after it was tried"; end; }
}

# A check that counts as one test.
check() {
  local what=$1 said=.build/check.log
  stage "$what"
  shift
  if "$@" 2>&1 | tee "$said"; then passed=$((passed + 1)); else failed_check "$what:" "$said"; fi
}

# Counted, and told once more at the end with what it said: failed_check SENTENCE [LOG].
failed_check() {
  failed=$((failed + 1))
  { echo "$1"; [ -z "${2:-}" ] || tail -12 "$2" | cut -c1-300; } >>.build/checks-failed.log
}

# A browser for the console's tests; what reads PDFs and scans codes, for those of papers; a database server for those of the store.
install_tools() {
  browser && [ -x /usr/bin/pdftoppm ] && [ -x /usr/bin/zbarimg ] && ls /usr/lib/postgresql/*/bin/postgres >/dev/null 2>&1 && [ -x /usr/sbin/haproxy ] && [ -x /usr/bin/openssl ] && return
  local root=""
  [ "$(id -u)" -eq 0 ] || root=sudo
  local install="$root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq"
  $root apt-get update -qq && $install poppler-utils zbar-tools postgresql haproxy openssl >/dev/null || return
  # That part of the browser that has no window takes a fifth less of the processor; not every Debian has it by itself.
  browser || $install chromium-headless-shell >/dev/null 2>&1 || $install chromium >/dev/null
}
browser() { [ -x /usr/bin/chromium-headless-shell ] || [ -x /usr/bin/chromium ]; }

# Lines that can be read: 140 characters, laid out by a program. 'dotnet csharpier format src tests bench' mends it.
formatted() {
  dotnet tool restore >/dev/null && dotnet csharpier check src tests bench
}

console_tests() {
  (cd console && npx vitest run --no-color)
}

# Adds up what the console's tests said: "Tests  1 failed | 27 passed (28)".
add_console_tests() {
  local line
  line=$(grep -E '^ +Tests ' .build/console-tests.log | tail -1)
  passed=$((passed + $(grep -oE '[0-9]+ passed' <<<"$line" | grep -oE '[0-9]+' || echo 0)))
  failed=$((failed + $(grep -oE '[0-9]+ failed' <<<"$line" | grep -oE '[0-9]+' || echo 0)))
  [ -n "$line" ] || failed_check "The console's tests did not come to their end:" .build/console-tests.log
  grep -qE '[0-9]+ failed' <<<"$line" && grep -E '^ *(FAIL|×)' .build/console-tests.log | head -20 >>.build/checks-failed.log
}

# So many test programs at once, all of their tests or those of a filter: dotnet_tests NUMBER NAME ... [--filter-...]
dotnet_tests() {
  local part=.build/dotnet-test-part.log status=0
  stage "Tests of ${*:2}"
  test_programs "$@" 2>&1 | tee "$part" || status=$?
  add_dotnet_tests "$part" "$status" "${@:2}"
}

test_programs() {
  local modules="" at_once=$1
  shift
  for (( ; $# > 0; )); do
    [[ $1 != --* ]] || break
    modules+="tests/*/bin/Debug/net10.0/Nailcrow.$1.Tests.dll;"
    shift
  done
  dotnet test --test-modules "${modules%;}" --max-parallel-test-modules "$at_once" \
    --report-xunit-ctrf --results-directory ".build/test-times${NAILCROW_TESTED_ON:+-$NAILCROW_TESTED_ON}" --show-slowest-tests 10 "$@"
}

# What a run of test programs said is added up: add_dotnet_tests LOG STATUS NAME ...
add_dotnet_tests() {
  local part=$1 status=$2
  shift 2
  cat "$part" >>.build/dotnet-test.log
  local succeeded=$(grep -oE '^ +succeeded: [0-9]+' "$part" | tail -1 | grep -oE '[0-9]+')
  local lost=$(grep -oE '^ +failed: [0-9]+' "$part" | tail -1 | grep -oE '[0-9]+')
  passed=$((passed + ${succeeded:-0})) failed=$((failed + ${lost:-0}))
  # Ended badly without a failed test: it crashed, or found no tests.
  [ "$status" -eq 0 ] || [ "${lost:-0}" -gt 0 ] || failed_check "Tests of $* ended badly though none failed:" "$part"
}

must "Browser, scanner, database server" install_tools
must "Console" tools/build-console.sh
must "Build" tools/build.sh Nailcrow.slnx
# Beside what needs one processor; where it cannot be had, the tests take everything as it was built, and longer. Then the release
# before this one: where there is no history to build it from, the tests that need it say so.
rm -f .build/tested.whole
(tools/build-tested.sh .build/tested && touch .build/tested.whole; tools/release-before.sh) >.build/tested.log 2>&1 &
tested=$!
check "Width of the code" formatted
check "Console: types" npm --prefix console run --silent check
check "Console: lint" npm --prefix console run --silent lint
# What only reckons, two at once, and the console's own tests beside them.
console_tests >.build/console-tests.log 2>&1 &
console=$!
dotnet_tests 2 Core Store Architecture Appliances
# The same store on a server.
NAILCROW_TESTED_ON=postgres dotnet_tests 1 Store
wait "$console"
cat .build/console-tests.log
add_console_tests
wait "$tested"
if [ -e .build/tested.whole ]; then
  export NAILCROW_TESTED="$PWD/.build/tested"
else
  echo "== What is tested could not be compiled as it is released; see .build/tested.log"
fi
# Each waits for something in a quarter of its time; two at once wait beside each other. Behind the console and the terminal the service
# is tested with its record on a server: a fifth of its tests, with each commit the next, or all of them with NAILCROW_TESTED_ON_BOTH=1,
# which in a slow hour takes an hour.
whole_on_server() { [ "${NAILCROW_TESTED_ON_BOTH:-}" = 1 ]; }
next_on_server() {
  grep -rlE '\[(Fact|Theory)' tests/Nailcrow.Service.Tests --include='*.cs' | sort |
    awk -v now="$(git rev-list --count HEAD 2>/dev/null || echo 0)" 'NR % 5 == now % 5 { sub(/.*\//, ""); sub(/\.cs$/, ""); print }'
}
service_on_server() {
  local only=()
  whole_on_server || for class in $(next_on_server); do only+=(--filter-class "*.$class"); done
  # What the other run holds as well is held in one of both.
  NAILCROW_TESTED_ON=postgres NAILCROW_TESTED_ON_BOTH=1 test_programs 1 Service "${only[@]}"
}
{ test_programs 1 Console Cli; echo $? >.build/beside.ended; } >.build/beside.log 2>&1 &&
  { service_on_server; echo $? >.build/on-server.ended; } >.build/on-server.log 2>&1 &
beside=$!
dotnet_tests 1 Service
wait "$beside"
stage "Tests of Console Cli, and of Service on PostgreSQL, ran beside it"
cat .build/beside.log .build/on-server.log
add_dotnet_tests .build/beside.log "$(cat .build/beside.ended)" Console Cli
add_dotnet_tests .build/on-server.log "$(cat .build/on-server.ended)" "Service on PostgreSQL"
end
