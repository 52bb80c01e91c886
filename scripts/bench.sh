#!/usr/bin/env bash
# Measures on a throw-away demo school; each figure beside a reference taken in the same run.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
source scripts/cluster.sh
source scripts/build.sh
source scripts/demo.sh
install_packages tests/browser
demo_start
dotnet build bench -c Release -v quiet >"$WORK/log" 2>&1 || { grep error "$WORK/log" | sort -u >&2; die "The benchmarks do not build."; }
measures() { [[ $parts == "  " || $parts == *" $1 "* ]]; }
parts=" $* " rest=()
for part; do [[ $part == @(browser|hall|backup) ]] || rest+=("$part"); done
[[ $# != 0 && ${#rest[@]} == 0 ]] || dotnet bench/bin/Release/net10.0/linux-x64/Zeitplan.Bench.dll "${rest[@]}"
if [[ $parts == *" years "* ]]; then
  kill "$SERVER" && wait "$SERVER" || true
  serve zeitplan_demo
  export ZEITPLAN_SERVER_PID=$SERVER
  dotnet bench/bin/Release/net10.0/linux-x64/Zeitplan.Bench.dll opening
fi
# The backup of what the measurements before this one left behind, beside what the database alone takes to be written down.
backed_up() {
  source scripts/backup.sh
  local HOME_DIR=$WORK from
  # The cluster of the measurement is running, and no launcher is.
  launcher_process() { :; }
  install_postgres() { :; }
  timed() { local name=$1 from; shift; from=$(date +%s%N); "$@" >"$WORK/log" || { cat "$WORK/log" >&2; exit 1; }; echo "$name: $(awk "BEGIN { printf \"%.2f\", ($(date +%s%N) - $from) / 1e9 }")"; }
  open_database
  echo "rows backed up: $(school_sql "$SCHOOL" "SELECT (SELECT count(*) FROM students) || ' students, ' || (SELECT count(*) FROM observations) || ' observations'")"
  echo "$(timed 'the database alone, written down' "$(postgres_bin)/pg_dump" --format=custom -d "$(school_address "$SCHOOL")" -f "$WORK/alone") s"
  in_itself() { ("$@"); }
  echo "$(timed 'backup, read back' in_itself backup "$WORK/kept.zeitplan") s of at most 30"
  ZEITPLAN_DATABASE=$(cluster_connection "$WORK/database" zeitplan_again)
  echo "$(timed 'restore, compared to the row' in_itself restore "$WORK/kept.zeitplan") s of at most 30"
}
if measures backup; then backed_up; fi
measures browser || measures hall || exit 0
[[ -x /usr/bin/chromium ]] || die "What is measured in the browser needs Debian's chromium: apt-get install chromium."
cd tests/browser
if measures browser; then node bench.mjs; fi
if measures hall; then node bench-hall.mjs; fi
