# A private PostgreSQL cluster on loopback. Sourced by the launcher and its scripts.

# Where Debian keeps runuser; not on everybody's PATH.
PATH=$PATH:/usr/sbin:/sbin

die() { echo "$*" >&2; exit 1; }

# PostgreSQL refuses to run as root: then everything of it runs as an unprivileged user.
as_postgres() { if [[ $(id -u) == 0 ]]; then (cd / && runuser -u postgres -- "$@"); else (cd / && "$@"); fi; }

as_root() {
  if [[ $(id -u) == 0 ]]; then "$@"; elif command -v sudo >/dev/null; then sudo "$@"; else die "PostgreSQL is missing and installing it needs root: run 'apt-get install postgresql' as root, then start again."; fi
}

postgres_bin() { ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1; }

install_postgres() {
  [[ -n $(postgres_bin) ]] && return
  command -v apt-get >/dev/null || die "PostgreSQL is missing and this is no Debian machine: install PostgreSQL 15, or set ZEITPLAN_DATABASE."
  echo "PostgreSQL is missing: installing it from Debian's packages."
  as_root mkdir -p /etc/postgresql-common/createcluster.d
  echo "create_main_cluster = false" | as_root tee /etc/postgresql-common/createcluster.d/zeitplan.conf >/dev/null
  as_root apt-get update -qq >/dev/null && as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq postgresql >/dev/null || die "PostgreSQL could not be installed."
}

free_port() { node -e "const s=require('net').createServer();s.listen(0,'127.0.0.1',()=>{console.log(s.address().port);s.close()})"; }

# cluster_start DIR kept|throwaway: makes the cluster when there is none, and starts it when it is not running.
cluster_start() {
  local dir=$1 kind=$2 bin options
  install_postgres
  bin=$(postgres_bin)
  if [[ ! -f "$dir/data/PG_VERSION" ]]; then
    mkdir -p "$dir/data"
    (umask 077 && od -An -N24 -tx1 /dev/urandom | tr -d ' \n' >"$dir/secret")
    free_port >"$dir/port"
    [[ $(id -u) == 0 ]] && chown -R postgres: "$dir"
    chmod 700 "$dir"
    as_postgres "$bin/initdb" -D "$dir/data" -U zeitplan --pwfile="$dir/secret" --auth-local=scram-sha-256 --auth-host=scram-sha-256 -E UTF8 --locale=C.UTF-8 $([[ $kind == throwaway ]] && echo --no-sync) >"/tmp/zeitplan-initdb.$$" 2>&1 ||
      { cat "/tmp/zeitplan-initdb.$$" >&2; rm -rf "$dir"; die "The database cluster could not be made in $dir. Every folder above it must be open to the user 'postgres'."; }
    rm -f "/tmp/zeitplan-initdb.$$"
  fi
  as_postgres "$bin/pg_ctl" -D "$dir/data" status >/dev/null 2>&1 && return
  local port
  port=$(cat "$dir/port")
  if (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null; then free_port >"$dir/port"; port=$(cat "$dir/port"); fi
  # Only the port on loopback is used; a socket's path could be too long for the system.
  options="-c listen_addresses=127.0.0.1 -p $port -c unix_socket_directories=''"
  [[ $kind == throwaway ]] && options+=" -c fsync=off -c full_page_writes=off -c synchronous_commit=off -c max_connections=200"
  as_postgres "$bin/pg_ctl" -D "$dir/data" -l "$dir/data/log" -w -t 30 -o "$options" start >/dev/null || die "The database does not start; its log is $dir/data/log."
}

cluster_stop() {
  local bin
  bin=$(postgres_bin)
  [[ -z $bin ]] || as_postgres "$bin/pg_ctl" -D "$1/data" -m fast -w stop >/dev/null 2>&1 || true
}

cluster_connection() { echo "Host=127.0.0.1;Port=$(cat "$1/port");Username=zeitplan;Password=$(cat "$1/secret");Database=$2;Maximum Pool Size=40"; }
