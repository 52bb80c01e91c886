#!/usr/bin/env bash
# Everything that is checked, in one run, ending with one line: total: N passed, N failed.
set -uo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1
# Nothing lives long here: counting what runs often, and collecting memory on every processor, costs a third more than it brings.
export DOTNET_TieredPGO=0 DOTNET_gcServer=0
# One compiler for all projects, and gone with this run: starting one for each takes as long again.
export UseSharedCompilation=true SharedCompilationId="zeitplan-test-$$"
source scripts/cluster.sh
source scripts/build.sh
source scripts/demo.sh
WORK=$(mktemp -d /tmp/zeitplan-test.XXXXXX)
chmod 711 "$WORK"
passed=0 failed=0
declare -A LANES
# process_tree PID: it and all it has started.
process_tree() { local child; echo "$1"; for child in $(pgrep -P "$1"); do process_tree "$child"; done; }
# A run that breaks off leaves nobody working.
end() {
  local lane
  for lane in "${LANES[@]}"; do kill $(process_tree "$lane") 2>/dev/null; done
  pkill -f "VBCSCompiler.*$SharedCompilationId"
  demo_stop
}
trap end EXIT

# check NAME COMMAND…: one thing that holds or does not.
check() {
  local name=$1 from=$SECONDS log
  log=$(mktemp "$WORK/log.XXXXXX")
  shift
  if "$@" >"$log" 2>&1; then passed=$((passed + 1)); echo "ok    $name ($((SECONDS - from)) s)"; else failed=$((failed + 1)); echo "FAIL  $name" | tee -a "$WORK/failed"; tail -60 "$log"; fi
}

# suite NAME COMMAND…: a runner that says how many tests passed and failed; a run without tests is a failure.
suite() {
  local name=$1 from=$SECONDS status=0 good bad log
  log=$(mktemp "$WORK/log.XXXXXX")
  shift
  "$@" >"$log" 2>&1 || status=$?
  good=$(count "$log" 'succeeded: \K[0-9]+|\K[0-9]+(?= passed)')
  bad=$(count "$log" '^\s*failed: \K[0-9]+|\K[0-9]+(?= failed)')
  ((status != 0 && bad == 0)) || ((good == 0)) && bad=$((bad + 1))
  passed=$((passed + good)) failed=$((failed + bad))
  echo "$([[ $bad == 0 ]] && echo ok || echo FAIL)    $name: $good passed, $bad failed ($((SECONDS - from)) s)"
  [[ $bad == 0 ]] || { grep -v '^$' "$log" | tail -150; names_of_failed "$name" "$log" >>"$WORK/failed"; }
}

# names_of_failed NAME LOG: what did not hold, as each runner names it, and what its page showed.
names_of_failed() {
  echo "FAIL  $1"
  sed 's/\x1b\[[0-9;]*m//g' "$2" | grep -P '^\s*(failed \w+\.|failed: [a-z]|✘|FAIL\s|saw: )' | awk '!told[$0]++' | cut -c1-700
}

count() { local n; n=$(sed 's/\x1b\[[0-9;]*m//g' "$1" | grep -oP "$2" | tail -1); echo "${n:-0}"; }

code_is_laid_out() { dotnet tool restore && dotnet csharpier check .; }

api_matches() {
  cp client/src/api/schema.d.ts "$WORK/schema.d.ts" && (cd client && npx openapi-typescript ../server/obj/openapi.json -o "$WORK/new.d.ts") && diff "$WORK/schema.d.ts" "$WORK/new.d.ts" ||
    { echo "The server's API and client/src/api/schema.d.ts differ: run 'npm run api' in client and commit."; return 1; }
}

# What a browser fetches before Today can be read: the page's own script and everything it cannot do without; the other rooms come when they are entered.
script_is_small() {
  local bytes=0 file
  for file in $(grep -oP '(?:src|href)="/\K[^"]+\.js' "$APP/wwwroot/index.html"); do bytes=$((bytes + $(gzip -9 <"$APP/wwwroot/$file" | wc -c))); done
  echo "compressed script: $bytes bytes"
  ((bytes > 0 && bytes <= 160 * 1024))
}

install_browser() {
  [[ -x /usr/bin/chromium ]] && return
  echo "Chromium is missing: installing it from Debian's packages."
  as_root Chromium apt-get update -qq && as_root Chromium env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium
}

# lane NAME COMMAND…: several checks beside whatever follows; joined, they are told and counted as if they had been run there.
lane() {
  local name=$1
  shift
  (
    passed=0 failed=0
    trap - EXIT
    "$@"
    echo "$passed $failed" >"$WORK/$name.counts"
  ) >"$WORK/$name.said" 2>&1 &
  LANES[$name]=$!
}
join() {
  local good=0 bad=1
  wait "${LANES[$1]}"
  unset "LANES[$1]"
  cat "$WORK/$1.said"
  read -r good bad <"$WORK/$1.counts" || echo "FAIL  $1 ended before its end"
  passed=$((passed + good)) failed=$((failed + bad))
}

client_checks() {
  check "the client's types hold and it lints" bash -c 'cd client && npx oxlint'
  check "the client is laid out by Prettier" bash -c 'cd client && npm run --silent layout:check'
  suite "client" bash -c 'cd client && npx vitest run'
}

what_is_built() {
  suite "core" dotnet test --project tests/Core.Tests -c Release --no-build
  suite "the arranger" dotnet test --project tests/Arranger.Tests -c Release --no-build
  suite "server" dotnet test --project tests/Server.Tests -c Release --no-build
}

# Waits for processes to come and go more than it works: beside the others it costs next to nothing.
the_launcher() { suite "the launcher" bash scripts/test-launcher.sh; }

the_benchmarks() { check "the benchmarks still run" dotnet bench/bin/Release/net10.0/linux-x64/Zeitplan.Bench.dll --once; }

echo "Preparing."
install_browser >"$WORK/browser.log" 2>&1 &
browser=$!
install_packages client &
client=$!
install_packages tests/browser
wait "$client" || die "The client's packages could not be installed."
wait "$browser" || { cat "$WORK/browser.log"; die "Chromium could not be installed."; }
cluster_start "$WORK/database" throwaway
export ZEITPLAN_TEST_DATABASE
ZEITPLAN_TEST_DATABASE=$(cluster_connection "$WORK/database" postgres)

# The client's own checks need nothing that is built, and what a browser sees needs nothing of the other tests.
lane client client_checks
check "the code is laid out by CSharpier" code_is_laid_out
check "the code builds without a warning" dotnet build Zeitplan.slnx -c Release -v quiet
check "the client's types are the server's" api_matches
check "the application is published" build_app
check "the first page needs at most 160 kB of compressed script" script_is_small
lane built what_is_built
lane launcher the_launcher
# What a browser sees comes after the client's own checks: more at once than there are processors only waits for one another.
join client
# As many journeys at once as there are processors, up to three.
demo_schools $(($(nproc) < 3 ? $(nproc) : 3))
trap end EXIT
suite "browser" bash -c 'cd tests/browser && npx playwright test'
# They press the same server as hard as they can: nothing that is walked there at the same time would come through.
lane benchmarks the_benchmarks
join built
join launcher
join benchmarks

# At the end too, where whoever comes back looks first.
[[ -s $WORK/failed ]] && { echo "What did not hold:"; cat "$WORK/failed"; }
echo "total: $passed passed, $failed failed"
((failed == 0))
