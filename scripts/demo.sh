# A throw-away demo school whose today is 24 November 2026. Sourced after cluster.sh and build.sh.

# serve DATABASE [NAME=VALUE…]: opens the school in this database, with these settings; its process is in SERVER, its port in PORT.
serve() {
  local database=$1
  shift
  PORT=${PORT:-$(free_port)}
  (
    cd "$APP"
    export ZEITPLAN_DATABASE ZEITPLAN_FIRST_PASSWORD=$ZEITPLAN_PASSWORD ZEITPLAN_TODAY=2026-11-24 ZEITPLAN_SIGN_INS_A_MINUTE=500 ASPNETCORE_URLS="http://127.0.0.1:$PORT" "$@"
    ZEITPLAN_DATABASE=$(cluster_connection "$WORK/database" "$database")
    exec ./Zeitplan.Server >"$WORK/server.log" 2>&1
  ) &
  SERVER=$!
  # It takes as long as the machine lets it, which beside a whole test run can be minutes.
  for _ in $(seq 1000); do
    answer "$PORT" /api/session >/dev/null && return
    kill -0 "$SERVER" 2>/dev/null || break
    sleep 0.3
  done
  cat "$WORK/server.log" >&2
  die "The school $database did not open."
}

# until_it_answers HOST: connections of a database that was set down are still in the server's pool; each is noticed by using it.
until_it_answers() {
  local good=0
  for _ in $(seq 100); do
    if answer "$PORT" /api/session "$1:$PORT" >/dev/null; then good=$((good + 1)); else good=0; fi
    ((good < 5)) || return 0
  done
  die "The school at $1 does not answer."
}

demo_prepare() {
  export ZEITPLAN_PASSWORD=heron-quay-on-loopback
  WORK=${WORK:-$(mktemp -d /tmp/zeitplan-demo.XXXXXX)}
  chmod 711 "$WORK"
  trap demo_stop EXIT
  [[ -d "$WORK/database" ]] || cluster_start "$WORK/database" throwaway
  build_app
}

# demo_start: sets WORK, ZEITPLAN_BASE, ZEITPLAN_PASSWORD and ZEITPLAN_DATABASE; everything goes when the script ends.
demo_start() {
  demo_prepare
  serve zeitplan_demo
  export ZEITPLAN_SERVER_PID=$SERVER ZEITPLAN_BASE="http://127.0.0.1:$PORT" ZEITPLAN_DATABASE
  ZEITPLAN_DATABASE=$(cluster_connection "$WORK/database" zeitplan_demo)
}

# demo_schools COUNT: the schools of a test run, all served by one server: the demo school beside which nobody has begun their own (ZEITPLAN_ALONE_BASE), an
# empty one (ZEITPLAN_EMPTY_BASE), one to be measured (as demo_start leaves it), and COUNT that begin every journey as the demo school is kept
# (ZEITPLAN_SCHOOLS); see tests/browser/journeys/school.ts.
demo_schools() {
  local at urls=() databases=(zeitplan_empty zeitplan_demo)
  demo_prepare
  export ZEITPLAN_PSQL ZEITPLAN_ADMIN ZEITPLAN_TEMPLATE=zeitplan_kept ZEITPLAN_SCHOOLS='' ZEITPLAN_EMPTY_BASE ZEITPLAN_ALONE_BASE ZEITPLAN_SERVER_PID ZEITPLAN_BASE ZEITPLAN_DATABASE
  ZEITPLAN_PSQL=$(postgres_bin)/psql
  ZEITPLAN_ADMIN="postgresql://zeitplan:$(cat "$WORK/database/secret")@127.0.0.1:$(cat "$WORK/database/port")/postgres"
  for at in $(seq "$1"); do databases+=("zeitplan_walked_$at"); done
  # All of 127/8 is this computer: each school has an address of its own there, without anybody having to be asked for a name. Browsers know every name
  # under localhost by themselves; what needs a name finds 127.0.0.4 at school-4.localhost.
  PORT=$(free_port)
  for at in $(seq 0 ${#databases[@]}); do urls+=("http://127.0.0.$((at + 1)):$PORT"); done
  for at in "${!databases[@]}"; do
    printf '%s = %s\n' "127.0.0.$((at + 2))" "$(cluster_connection "$WORK/database" "${databases[at]}")" \
      "school-$((at + 2)).localhost" "$(cluster_connection "$WORK/database" "${databases[at]}")"
  done >"$WORK/hosts"
  serve zeitplan_own ZEITPLAN_DEMO_DATABASE=zeitplan_beside ZEITPLAN_HOSTS_FILE="$WORK/hosts" ASPNETCORE_URLS="$(IFS=';'; echo "${urls[*]}")"
  for at in "ALTER DATABASE zeitplan_beside ALLOW_CONNECTIONS false" "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = 'zeitplan_beside'" \
    "CREATE DATABASE $ZEITPLAN_TEMPLATE TEMPLATE zeitplan_beside" "ALTER DATABASE zeitplan_beside ALLOW_CONNECTIONS true" \
    "DROP DATABASE zeitplan_demo WITH (FORCE)" "CREATE DATABASE zeitplan_demo TEMPLATE $ZEITPLAN_TEMPLATE"; do
    "$ZEITPLAN_PSQL" -qX -v ON_ERROR_STOP=1 -c "$at" "$ZEITPLAN_ADMIN" >/dev/null || die "The demo school could not be set down."
  done
  ZEITPLAN_ALONE_BASE=${urls[0]} ZEITPLAN_EMPTY_BASE=${urls[1]} ZEITPLAN_BASE=${urls[2]}
  for at in $(seq "$1"); do ZEITPLAN_SCHOOLS+="zeitplan_walked_$at=${urls[at + 2]} "; done
  until_it_answers 127.0.0.1
  until_it_answers 127.0.0.3
  ZEITPLAN_SERVER_PID=$SERVER
  ZEITPLAN_DATABASE=$(cluster_connection "$WORK/database" zeitplan_demo)
}

demo_stop() {
  if [[ -n ${SERVER:-} ]]; then kill "$SERVER" 2>/dev/null || true; wait "$SERVER" 2>/dev/null || true; fi
  cluster_stop "$WORK/database"
  rm -rf "$WORK"
}
