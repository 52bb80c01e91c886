# A throw-away demo school whose today is 24 November 2026. Sourced after cluster.sh and build.sh.

# open_school DATABASE EMPTY [DEMO]: serves it, with a demo beside it where its database is named; its address is in OPENED.
open_school() {
  local port pid
  port=$(free_port)
  OPENED="http://127.0.0.1:$port"
  (
    cd "$APP"
    export ZEITPLAN_DATABASE ZEITPLAN_EMPTY=$2 ZEITPLAN_FIRST_PASSWORD=$ZEITPLAN_PASSWORD ZEITPLAN_TODAY=2026-11-24 ZEITPLAN_SIGN_INS_A_MINUTE=500 ASPNETCORE_URLS=$OPENED
    export ZEITPLAN_DEMO_DATABASE=${3:-}
    ZEITPLAN_DATABASE=$(cluster_connection "$WORK/database" "$1")
    exec ./Zeitplan.Server >"$WORK/$1.log" 2>&1
  ) &
  pid=$!
  OPEN_SCHOOLS+=("$pid")
  for _ in $(seq 300); do
    answer "$port" /api/session >/dev/null && return
    kill -0 "$pid" 2>/dev/null || break
    sleep 0.3
  done
  cat "$WORK/$1.log" >&2
  die "The school $1 did not open."
}

# demo_start: sets WORK, ZEITPLAN_BASE, ZEITPLAN_PASSWORD and ZEITPLAN_DATABASE; everything goes when the script ends.
demo_start() {
  OPEN_SCHOOLS=()
  WORK=${WORK:-$(mktemp -d /tmp/zeitplan-demo.XXXXXX)}
  chmod 711 "$WORK"
  trap demo_stop EXIT
  [[ -d "$WORK/database" ]] || cluster_start "$WORK/database" throwaway
  build_app
  export ZEITPLAN_DATABASE ZEITPLAN_BASE ZEITPLAN_PASSWORD=heron-quay-on-loopback
  ZEITPLAN_DATABASE=$(cluster_connection "$WORK/database" zeitplan_demo)
  open_school zeitplan_demo false
  export ZEITPLAN_SERVER_PID=${OPEN_SCHOOLS[-1]}
  ZEITPLAN_BASE=$OPENED
}

# demo_keep COUNT: sets down the school as it is, so that every journey can begin from it, and opens it COUNT times, so that as many can be walked at once; see tests/browser/journeys/school.ts.
demo_keep() {
  export ZEITPLAN_PSQL ZEITPLAN_ADMIN ZEITPLAN_TEMPLATE=zeitplan_kept ZEITPLAN_SCHOOLS="zeitplan_demo=$ZEITPLAN_BASE"
  ZEITPLAN_PSQL=$(postgres_bin)/psql
  ZEITPLAN_ADMIN="postgresql://zeitplan:$(cat "$WORK/database/secret")@127.0.0.1:$(cat "$WORK/database/port")/postgres"
  local sql at
  for sql in "ALTER DATABASE zeitplan_demo ALLOW_CONNECTIONS false" "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = 'zeitplan_demo'" \
    "CREATE DATABASE zeitplan_kept TEMPLATE zeitplan_demo" "ALTER DATABASE zeitplan_demo ALLOW_CONNECTIONS true"; do
    "$ZEITPLAN_PSQL" -qX -v ON_ERROR_STOP=1 -c "$sql" "$ZEITPLAN_ADMIN" >/dev/null || die "The demo school could not be set down."
  done
  for at in $(seq 2 "$1"); do
    "$ZEITPLAN_PSQL" -qX -v ON_ERROR_STOP=1 -c "CREATE DATABASE zeitplan_demo_$at TEMPLATE zeitplan_kept" "$ZEITPLAN_ADMIN" || die "The demo school could not be copied."
    open_school "zeitplan_demo_$at" false
    ZEITPLAN_SCHOOLS+=" zeitplan_demo_$at=$OPENED"
  done
}

# demo_alone: a demo school beside which nobody has begun their own; its address is in OPENED.
demo_alone() {
  "$ZEITPLAN_PSQL" -qX -v ON_ERROR_STOP=1 -c "CREATE DATABASE zeitplan_beside TEMPLATE zeitplan_kept" "$ZEITPLAN_ADMIN" || die "The demo school could not be copied."
  open_school zeitplan_own false zeitplan_beside
}

demo_stop() {
  local pid
  for pid in "${OPEN_SCHOOLS[@]}"; do kill "$pid" 2>/dev/null || true; wait "$pid" 2>/dev/null || true; done
  cluster_stop "$WORK/database"
  rm -rf "$WORK"
}
