# A private PostgreSQL cluster on loopback. Sourced by the launcher and its scripts.

# Where Debian keeps runuser; not on everybody's PATH.
PATH=$PATH:/usr/sbin:/sbin

die() { echo "$*" >&2; exit 1; }

# PostgreSQL refuses to run as root: then everything of it runs as an unprivileged user.
as_postgres() { if [[ $(id -u) == 0 ]]; then (cd / && runuser -u postgres -- "$@"); else (cd / && "$@"); fi; }

# as_root WHAT COMMAND…: what is installed from Debian's packages needs root for that step only.
as_root() {
  local what=$1
  shift
  if [[ $(id -u) == 0 ]]; then "$@"; elif command -v sudo >/dev/null; then sudo "$@"; else die "$what is missing and installing it needs root: run 'apt-get install ${what,,}' as root, then try again."; fi
}

postgres_bin() { ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1; }

install_postgres() {
  [[ -n $(postgres_bin) ]] && return
  command -v apt-get >/dev/null || die "PostgreSQL is missing and this is no Debian machine: install PostgreSQL 15, or set ZEITPLAN_DATABASE."
  echo "PostgreSQL is missing: installing it from Debian's packages."
  as_root PostgreSQL mkdir -p /etc/postgresql-common/createcluster.d
  echo "create_main_cluster = false" | as_root PostgreSQL tee /etc/postgresql-common/createcluster.d/zeitplan.conf >/dev/null
  as_root PostgreSQL apt-get update -qq >/dev/null && as_root PostgreSQL env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq postgresql >/dev/null || die "PostgreSQL could not be installed."
}

# answer PORT PATH [HOST]: what a server on this computer says to a GET, or fails unless it says 200. Without starting a program: it is asked again and again.
answer() {
  local line status
  exec 4<>"/dev/tcp/127.0.0.1/$1" || return 1
  printf 'GET %s HTTP/1.0\r\nHost: %s\r\nConnection: close\r\n\r\n' "$2" "${3:-127.0.0.1:$1}" >&4
  read -r -t 20 status <&4 && while read -r -t 20 line <&4 && [[ -n ${line%$'\r'} ]]; do :; done && cat <&4
  exec 4>&-
  [[ $status == *' 200 '* ]]
} 2>/dev/null

free_port() { node -e "const s=require('net').createServer();s.listen(0,'127.0.0.1',()=>{console.log(s.address().port);s.close()})"; }

# PostgreSQL wants a folder that is its own and that it can reach: not below a private folder of somebody else, not on a disk without permissions.
can_hold_cluster() {
  local dir=$1
  mkdir -p "$dir" 2>/dev/null || return 1
  [[ $(id -u) != 0 ]] || chown postgres: "$dir" 2>/dev/null || return 1
  chmod 700 "$dir" 2>/dev/null && [[ $(stat -c %a "$dir") == 700 ]] && as_postgres test -w "$dir" 2>/dev/null
}

# cluster_home CLONE: prints where the school's database of this clone is, or is to be: in the clone where that can be, otherwise in a folder
# of its own under the system's state folder. The clone remembers that folder, so that it is found when the clone has been moved.
cluster_home() {
  local clone=$1 inside="$1/.zeitplan/database" remembered="$1/.zeitplan/database-at" state elsewhere owner
  if [[ -f $remembered ]]; then
    elsewhere=$(cat "$remembered")
    owner=$(as_postgres cat "$elsewhere/of" 2>/dev/null || true)
    # A copy of a clone has no claim to the school of the clone it was copied from.
    if [[ -n $owner && ($owner == "$clone" || ! -e "$owner/.zeitplan/database-at") ]]; then echo "$elsewhere"; return; fi
  fi
  if can_hold_cluster "$inside"; then echo "$inside"; return; fi
  rmdir "$inside" 2>/dev/null || true
  if [[ $(id -u) == 0 ]]; then state=/var/lib/zeitplan; else state=${XDG_STATE_HOME:-$HOME/.local/state}/zeitplan; fi
  elsewhere="$state/$(basename "$clone")-$(printf %s "$clone" | sha256sum | cut -c1-10)"
  mkdir -p "$state" && chmod a+x "$state"
  can_hold_cluster "$elsewhere" || die "The database can live neither in $inside nor in $elsewhere: both must be folders that $([[ $(id -u) == 0 ]] && echo "the user 'postgres'" || id -un) can write to."
  printf '%s\n' "$elsewhere" >"$remembered"
  printf '%s\n' "$clone" | as_postgres tee "$elsewhere/of" >/dev/null
  echo "$elsewhere"
}

# The process of the cluster in DIR; nothing when it is not running. After a crash or a restart of the machine the number may be another program's.
cluster_process() {
  local pid
  pid=$(as_postgres head -1 "$1/data/postmaster.pid" 2>/dev/null) || return 0
  [[ -r /proc/$pid/cmdline ]] && tr '\0' '\n' <"/proc/$pid/cmdline" | grep -qxF "$1/data" && echo "$pid" || true
}

# cluster_start DIR kept|throwaway: makes the cluster when there is none, and starts it when it is not running.
cluster_start() {
  local dir=$1 kind=$2 bin said port options try
  install_postgres
  bin=$(postgres_bin)
  can_hold_cluster "$dir" || die "The database cannot live in $dir: PostgreSQL cannot reach it."
  said=$(mktemp /tmp/zeitplan-database.XXXXXX)
  if ! as_postgres test -f "$dir/data/PG_VERSION"; then
    as_postgres mkdir -p "$dir/data"
    (umask 077 && od -An -N24 -tx1 /dev/urandom | tr -d ' \n' >"$dir/secret")
    [[ $(id -u) != 0 ]] || chown postgres: "$dir/secret"
    as_postgres "$bin/initdb" -D "$dir/data" -U zeitplan --pwfile="$dir/secret" --auth-local=scram-sha-256 --auth-host=scram-sha-256 -E UTF8 --locale=C.UTF-8 $([[ $kind == throwaway ]] && echo --no-sync) >"$said" 2>&1 ||
      { cat "$said" >&2; rm -rf "$said" "$dir/data"; die "The database could not be made in $dir."; }
  fi
  if [[ -n $(cluster_process "$dir") ]]; then rm -f "$said"; return; fi
  # A number left behind that belongs to another program now would keep PostgreSQL from starting.
  if as_postgres test -f "$dir/data/postmaster.pid" && [[ -e /proc/$(as_postgres head -1 "$dir/data/postmaster.pid") ]]; then rm -f "$dir/data/postmaster.pid"; fi
  # What served the connections of a killed PostgreSQL takes a moment to leave, and holds its memory until then.
  for try in $(seq 20); do
    port=$(cat "$dir/port" 2>/dev/null || true)
    if [[ -n $port ]] && ((try < 8)) && (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null; then sleep 0.5; continue; fi
    if [[ -z $port ]] || ((try == 8)); then
      port=$(free_port)
      echo "$port" >"$dir/port"
    fi
    # Only the port on loopback is used; a socket's path could be too long for the system.
    options="-c listen_addresses=127.0.0.1 -p $port -c unix_socket_directories=''"
    [[ $kind == throwaway ]] && options+=" -c fsync=off -c full_page_writes=off -c synchronous_commit=off -c max_connections=500"
    if as_postgres "$bin/pg_ctl" -D "$dir/data" -l "$dir/data/log" -w -t 60 -o "$options" start >"$said" 2>&1; then rm -f "$said"; return; fi
    sleep 0.5
  done
  cat "$said" >&2
  rm -f "$said"
  die "The database does not start; its log is $dir/data/log."
}

cluster_stop() {
  local bin
  bin=$(postgres_bin)
  [[ -z $bin ]] || as_postgres "$bin/pg_ctl" -D "$1/data" -m fast -w stop >/dev/null 2>&1 || true
}

cluster_connection() { echo "Host=127.0.0.1;Port=$(cat "$1/port");Username=zeitplan;Password=$(cat "$1/secret");Database=$2;Maximum Pool Size=40"; }
