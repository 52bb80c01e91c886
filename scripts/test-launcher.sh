#!/usr/bin/env bash
# The launcher in the places and accidents it meets: private folders, odd names, long paths, two clones, processes that are killed.
# Each of them is a clone of these sources with the build that is there already. Ends with a line: N passed, N failed.
set -uo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
# A database of somebody's own is not meant: each clone makes its own.
unset ZEITPLAN_DATABASE
source scripts/cluster.sh
source scripts/build.sh
source scripts/backup.sh
build_app
SPOT=$(mktemp -d /tmp/zeitplan-launcher.XXXXXX)
passed=0 failed=0
CLONES=()

tidy() {
  local clone elsewhere
  for clone in "${CLONES[@]}"; do
    (cd "$clone" && ./zeitplan stop >/dev/null 2>&1)
    elsewhere=$(cat "$clone/.zeitplan/database-at" 2>/dev/null) && [[ -n $elsewhere ]] && rm -rf "$elsewhere"
  done
  rm -rf "$SPOT"
}
trap tidy EXIT

# clone DIR [USER]: the sources and the build in DIR.
clone() {
  mkdir -p "$1/.zeitplan/builds"
  git ls-files -coz --exclude-standard | tar --null -T - -cf - | tar -xf - -C "$1"
  cp -r "$APP" "$1/.zeitplan/builds/"
  [[ -z ${2:-} ]] || chown -R "$2": "$1"
  CLONES+=("$1")
}

# open CLONE [AS…]: starts the school in the background and waits for its welcome. Sets SAID.
open() {
  local clone=$1 from=$SECONDS
  shift
  # Whoever still writes into the earlier one keeps it.
  rm -f "$clone/said"
  (cd "$clone" && exec "$@" setsid ./zeitplan start --empty >"$clone/said" 2>&1) &
  until grep -qa 'Ctrl-C stops it' "$clone/said" 2>/dev/null; do
    ((SECONDS - from < 300)) || { echo "It did not open:"; cat "$clone/said"; return 1; }
    sleep 0.2
  done
  SAID=$(cat "$clone/said")
}

answers() { answer "$(grep -aoP 'http://[0-9.]*:\K[0-9]+' "$1/said" | tail -1)" /api/session >/dev/null; }

processes() { cat "$1/.zeitplan/launcher.pid" "$1/.zeitplan/server.pid"; cluster_process "$(database_of "$1")"; }
database_of() { if [[ -f "$1/.zeitplan/database-at" ]]; then cat "$1/.zeitplan/database-at"; else echo "$1/.zeitplan/database"; fi; }

# Nothing of what happened before may be read as trouble now, and nothing is built again.
# Where the database had to go elsewhere, it is said why; that is no trouble.
calm() { ! grep -v '^The database of this school lives in' <<<"$SAID" | grep -iE 'error|fail|refuse|kill|lock|cannot|could not|warn|orphan|building' || { echo "$SAID"; return 1; }; }

# refused COMMAND…: "!" alone ends no scenario.
refused() { ! "$@"; }

# scenario NAME COMMAND…: the first thing in it that does not hold ends it. It is waited for, because nothing ends a command that is itself a condition.
scenario() {
  local name=$1 from=$SECONDS
  shift
  (set -e; "$@") >"$SPOT/log" 2>&1 &
  if wait $!; then passed=$((passed + 1)); echo "ok: $name ($((SECONDS - from)) s)"; else failed=$((failed + 1)); echo "failed: $name"; cat "$SPOT/log"; fi
}

long=$(printf 'a-long-name-%.0s' $(seq 8))
PRIVATE="$SPOT/Heron Quay Übung ä/$long/zeitplan"
clone "$PRIVATE"

in_a_private_folder() {
  [[ $(stat -c %a "$SPOT") == 700 ]]
  ((${#PRIVATE} > 150))
  open "$PRIVATE"
  answers "$PRIVATE"
  [[ $(id -u) != 0 ]] || [[ $SAID == *"lives in $(database_of "$PRIVATE")"* && $(database_of "$PRIVATE") == /var/lib/zeitplan/* ]]
}
started_twice() { (cd "$PRIVATE" && ! ./zeitplan start --empty >"$SPOT/twice" 2>&1) && grep -q 'running already' "$SPOT/twice" && answers "$PRIVATE"; }
after_launcher() { kill -KILL "$(cat "$PRIVATE/.zeitplan/launcher.pid")"; open "$PRIVATE"; calm; answers "$PRIVATE"; }
after_server() {
  kill -KILL "$(cat "$PRIVATE/.zeitplan/server.pid")"
  open "$PRIVATE"; calm; answers "$PRIVATE"
}
after_database() {
  kill -KILL "$(cluster_process "$(database_of "$PRIVATE")")"
  for _ in $(seq 100); do answers "$PRIVATE" && return 0; sleep 0.2; done
  return 1
}
after_everything() { kill -KILL $(processes "$PRIVATE"); open "$PRIVATE"; calm; answers "$PRIVATE"; }
a_number_of_another_program() {
  local data
  data=$(database_of "$PRIVATE")/data
  kill -KILL $(processes "$PRIVATE")
  sleep 0.5
  sed -i "1s/.*/$$/" "$data/postmaster.pid"
  echo $$ >"$PRIVATE/.zeitplan/server.pid"
  echo $$ >"$PRIVATE/.zeitplan/launcher.pid"
  open "$PRIVATE"; calm; answers "$PRIVATE"
}
stopped() { (cd "$PRIVATE" && ./zeitplan stop) && ! answers "$PRIVATE" && [[ -z $(cluster_process "$(database_of "$PRIVATE")") ]]; }
moved() {
  local before to="$SPOT/moved"
  before=$(database_of "$PRIVATE")
  mv "$PRIVATE" "$to"
  open "$to"; answers "$to"
  [[ $(id -u) != 0 ]] || [[ $(database_of "$to") == "$before" && -z $(ls -d /var/lib/zeitplan/moved-* 2>/dev/null) ]]
  (cd "$to" && ./zeitplan stop)
  mv "$to" "$PRIVATE"
}

# The school as PostgreSQL would write it down, without what a device carries with it.
rows_of() {
  (
    ROOT=$1
    unset ZEITPLAN_DATABASE
    open_database
    digest "$SCHOOL" | grep -v '^sign_ins|'
    [[ -z $STARTED ]] || cluster_stop "$STARTED"
  )
}
lost_and_restored() {
  local kept="$SPOT/kept.zeitplan" before
  export ZEITPLAN_PASSPHRASE='lanterns over the quay'
  open "$PRIVATE"
  (cd "$PRIVATE" && ./zeitplan backup "$kept" && ! ./zeitplan backup "$kept" && ! ./zeitplan restore "$kept")
  before=$(rows_of "$PRIVATE")
  [[ $before == *'schools|1|'* ]]
  for _ in 1 2 3; do (cd "$PRIVATE" && ZEITPLAN_PASSPHRASE= ./zeitplan backup --keep 2); sleep 1; done
  [[ $(ls "$PRIVATE/.zeitplan/backups" | wc -l) == 2 ]]
  (cd "$PRIVATE" && ./zeitplan stop && ! ./zeitplan restore "$kept")
  [[ $(rows_of "$PRIVATE") == "$before" ]]
  # No room for it, as on a full disk: nothing is left behind, and it is said.
  (cd "$PRIVATE" && ulimit -f 16 && ! ./zeitplan backup "$SPOT/full.zeitplan")
  [[ ! -e "$SPOT/full.zeitplan" && -z $(find "$SPOT" -maxdepth 1 -name '.zeitplan-backup.*') ]]
  # Everything is lost but the backup.
  rm -rf "$(database_of "$PRIVATE")" "$PRIVATE/.zeitplan/database-at"
  head -c 90000 "$kept" >"$SPOT/cut.zeitplan"
  echo 'no backup at all' >"$SPOT/other.zeitplan"
  for bad in cut other; do (cd "$PRIVATE" && ! ./zeitplan restore "$SPOT/$bad.zeitplan"); done
  # One that was killed in the middle has left what it was reading into behind, and no school; the next one is whole.
  (ROOT=$PRIVATE; unset ZEITPLAN_DATABASE; open_database; school_sql postgres "CREATE DATABASE zeitplan_coming"; [[ -z $STARTED ]] || cluster_stop "$STARTED")
  (cd "$PRIVATE" && ! ZEITPLAN_PASSPHRASE=wrong ./zeitplan restore "$kept" && ./zeitplan restore "$kept")
  [[ $(rows_of "$PRIVATE") == "$before" ]]
  open "$PRIVATE"; answers "$PRIVATE"
  (cd "$PRIVATE" && ./zeitplan stop)
}

a_running_build_stays() {
  local builds="$SPOT/builds" runs
  mkdir -p "$builds"/{oldest,older,newer,newest}
  touch -d '-4 hours' "$builds/oldest"; touch -d '-3 hours' "$builds/older"; touch -d '-2 hours' "$builds/newer"; touch -d '-1 hours' "$builds/newest"
  (cd "$builds/oldest" && exec sleep 60) &
  runs=$!
  sleep 0.3
  forget_old_builds "$builds"
  [[ $(ls "$builds" | sort | xargs) == "newer newest oldest" ]]
  kill "$runs"
  wait "$runs" 2>/dev/null || true
  forget_old_builds "$builds"
  [[ $(ls "$builds" | sort | xargs) == "newer newest" ]]
}

a_build_lets_go() {
  mkdir -p "$SPOT/building"
  cd "$SPOT/building"
  fingerprint() { echo sources; }
  build_to() { mkdir -p "$1"; sleep 60 & echo $! >left_running; }
  build_app
  # Less than a minute, but longer than a process takes to become another program.
  flock -w 20 .zeitplan/builds.lock true
  kill "$(cat left_running)"
}

# What a technician unpacks: it finds neither SDK nor Node, and keeps its state where it is told.
a_release() {
  local at port pid with
  ./zeitplan release "$SPOT/release"
  refused ./zeitplan release "$SPOT/release"
  at=$(ls -d "$SPOT"/release/zeitplan-*-linux-x64)
  tar -tzf "$at.tar.gz" >/dev/null
  mkdir -p "$SPOT/state"
  chmod 711 "$SPOT"
  cluster_start "$SPOT/database" throwaway
  port=$(free_port)
  with=(env -i PATH=/usr/bin:/bin DOTNET_ROOT=/nowhere "ZEITPLAN_STATE=$SPOT/state" ZEITPLAN_PASSPHRASE=lanterns ZEITPLAN_FIRST_PASSWORD=heron-quay-here
    "ZEITPLAN_DATABASE=$(cluster_connection "$SPOT/database" zeitplan)" "ASPNETCORE_URLS=http://127.0.0.1:$port")
  "${with[@]}" "$at/zeitplan" serve >"$SPOT/served" 2>&1 &
  pid=$!
  for _ in $(seq 1500); do ! answer "$port" /health/ready >/dev/null || break; sleep 0.2; done
  answer "$port" /api/session >/dev/null || { cat "$SPOT/served"; return 1; }
  "${with[@]}" "$at/zeitplan" backup
  [[ $(stat -c %a "$SPOT/state/keys.pfx") == 600 ]]
  refused grep -q heron-quay-here "$SPOT/served"
  kill "$pid"; wait "$pid" || true
  "${with[@]}" "ZEITPLAN_DATABASE=$(cluster_connection "$SPOT/database" zeitplan_again)" "$at/zeitplan" restore "$SPOT"/state/backups/*.zeitplan
  cluster_stop "$SPOT/database"
}

scenario "an old build goes, unless a school runs from it" a_running_build_stays
scenario "what a build leaves running keeps nobody from the next one" a_build_lets_go
scenario "a private folder, a name with a space and an ä, a path of 150 characters" in_a_private_folder
scenario "a second start beside the first says so and disturbs nothing" started_twice
scenario "the launcher was killed" after_launcher
scenario "the server was killed" after_server
scenario "PostgreSQL was killed: it comes back while the school is open" after_database
scenario "launcher, server and PostgreSQL were killed" after_everything
scenario "numbers left behind belong to another program now" a_number_of_another_program
scenario "stop leaves nothing running" stopped
scenario "a clone that was moved finds its school" moved
scenario "a release runs without SDK and Node, is backed up and restored" a_release
scenario "backed up, everything lost, restored: equal to the row; what is damaged or foreign is refused whole" lost_and_restored

# An ordinary user; where this one is ordinary already, every scenario above was one.
if [[ $(id -u) == 0 ]]; then
  chmod 711 "$SPOT"
  ORDINARY="$SPOT/ordinary"
  clone "$ORDINARY" nobody
  ordinary_user() {
    open "$ORDINARY" runuser -u nobody -- env HOME="$ORDINARY"
    answers "$ORDINARY"
    [[ $(database_of "$ORDINARY") == "$ORDINARY/.zeitplan/database" && $(stat -c %U "$ORDINARY/.zeitplan/database") == nobody ]]
  }
  scenario "an ordinary user" ordinary_user
fi

BESIDE="$SPOT/beside"
clone "$BESIDE"
beside_another() {
  open "$PRIVATE"
  open "$BESIDE"
  answers "$PRIVATE"
  answers "$BESIDE"
  [[ $(grep -ao 'http://[0-9.:]*' "$PRIVATE/said") != $(grep -ao 'http://[0-9.:]*' "$BESIDE/said") ]]
}
scenario "two clones side by side" beside_another

echo "$passed passed, $failed failed"
((failed == 0))
