# A throw-away demo school whose today is 24 November 2026. Sourced after cluster.sh and build.sh.

# demo_start: sets WORK, ZEITPLAN_BASE, ZEITPLAN_PASSWORD and ZEITPLAN_DATABASE; everything goes when the script ends.
demo_start() {
  WORK=${WORK:-$(mktemp -d /tmp/zeitplan-demo.XXXXXX)}
  chmod 711 "$WORK"
  trap demo_stop EXIT
  [[ -d "$WORK/database" ]] || cluster_start "$WORK/database" throwaway
  build_app
  local port
  port=$(free_port)
  export ZEITPLAN_DATABASE ZEITPLAN_BASE="http://127.0.0.1:$port" ZEITPLAN_PASSWORD=heron-quay-on-loopback
  ZEITPLAN_DATABASE=$(cluster_connection "$WORK/database" zeitplan_demo)
  (
    cd "$APP"
    ZEITPLAN_FIRST_PASSWORD=$ZEITPLAN_PASSWORD ZEITPLAN_TODAY=2026-11-24 ZEITPLAN_SIGN_INS_A_MINUTE=500 ASPNETCORE_URLS=$ZEITPLAN_BASE exec ./Zeitplan.Server >"$WORK/server.log" 2>&1
  ) &
  DEMO_SERVER=$!
  for _ in $(seq 300); do
    node -e "fetch('$ZEITPLAN_BASE/api/session').then(r => process.exit(r.ok ? 0 : 1), () => process.exit(1))" && return
    kill -0 "$DEMO_SERVER" 2>/dev/null || break
    sleep 0.3
  done
  cat "$WORK/server.log" >&2
  die "The demo school did not open."
}

# demo_keep: sets down the school as it is, so that every journey can begin from it; see tests/browser/journeys/school.ts.
demo_keep() {
  export ZEITPLAN_PSQL ZEITPLAN_ADMIN ZEITPLAN_JOURNEY_DATABASE=zeitplan_demo ZEITPLAN_TEMPLATE=zeitplan_kept
  ZEITPLAN_PSQL=$(postgres_bin)/psql
  ZEITPLAN_ADMIN="postgresql://zeitplan:$(cat "$WORK/database/secret")@127.0.0.1:$(cat "$WORK/database/port")/postgres"
  local sql
  for sql in "ALTER DATABASE zeitplan_demo ALLOW_CONNECTIONS false" "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = 'zeitplan_demo'" \
    "CREATE DATABASE zeitplan_kept TEMPLATE zeitplan_demo" "ALTER DATABASE zeitplan_demo ALLOW_CONNECTIONS true"; do
    "$ZEITPLAN_PSQL" -qX -v ON_ERROR_STOP=1 -c "$sql" "$ZEITPLAN_ADMIN" >/dev/null || die "The demo school could not be set down."
  done
}

demo_stop() {
  kill "${DEMO_SERVER:-}" 2>/dev/null || true
  wait "${DEMO_SERVER:-}" 2>/dev/null || true
  cluster_stop "$WORK/database"
  rm -rf "$WORK"
}
