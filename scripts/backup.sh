# The whole school in one file, and back. Sourced by the launcher, after cluster.sh.
# A backup is a tar of two files: the dump, and what has to come out when it is read: the kind of file, when it was made, the dump's hash, and
# for every table its rows and their hash. With a passphrase in ZEITPLAN_PASSPHRASE the tar is encrypted (openssl, AES-256, PBKDF2).

BACKUP_KIND='zeitplan backup 1'
CIPHER=(-aes-256-cbc -pbkdf2 -iter 600000 -md sha256)

# school_sql DATABASE SQL: asks one thing of the private database or of the one in ZEITPLAN_DATABASE.
# However a machine is set, what is asked for reads the same.
school_sql() { PGOPTIONS="-c TimeZone=UTC -c DateStyle=ISO -c client_min_messages=warning" "$(postgres_bin)/psql" -qXAt -v ON_ERROR_STOP=1 -d "$(school_address "$1")" -c "$2"; }

# The part of an Npgsql connection string that says WHAT; the last one counts, as there.
connection_part() { tr ';' '\n' <<<"$ZEITPLAN_DATABASE" | sed -n "s/^ *$1 *= *//Ip" | tail -1; }

# school_address DATABASE: as PostgreSQL's own programs take it, without the password.
school_address() { printf 'host=%s port=%s user=%s dbname=%s' "$(connection_part Host)" "$(connection_part Port | grep . || echo 5432)" "$(connection_part Username)" "$1"; }

# open_database: the database of this clone, started when it is not running. Sets ZEITPLAN_DATABASE, SCHOOL (its name) and STARTED when it is to be stopped again.
open_database() {
  install_postgres
  STARTED=
  if [[ -z ${ZEITPLAN_DATABASE:-} ]]; then
    local home
    home=$(cluster_home "$ROOT")
    if [[ -z $(cluster_process "$home") ]]; then cluster_start "$home" kept; STARTED=$home; fi
    ZEITPLAN_DATABASE=$(cluster_connection "$home" zeitplan)
  fi
  SCHOOL=$(connection_part Database)
  # By the environment: no list of processes shows it.
  export PGPASSWORD
  PGPASSWORD=$(connection_part Password)
}

# digest DATABASE: a line for every table of the school: name, rows, hash of its rows in order. Equal lines are equal schools.
digest() {
  local database=$1 query
  query=$(school_sql "$database" "SELECT string_agg(format('SELECT %L, count(*), md5(coalesce(string_agg(md5(t::text), '''' ORDER BY md5(t::text)), '''')) FROM %I AS t', tablename, tablename), ' UNION ALL ' ORDER BY tablename) FROM pg_tables WHERE schemaname = 'public'") || return 1
  [[ -n $query ]] || return 1
  school_sql "$database" "$query" | LC_ALL=C sort
}

# in_scratch DUMP DATABASE: reads a dump into a database of its own; all of it or nothing.
in_scratch() {
  school_sql postgres "DROP DATABASE IF EXISTS $2 WITH (FORCE)" && school_sql postgres "CREATE DATABASE $2 TEMPLATE template0" || return 1
  "$(postgres_bin)/pg_restore" --no-owner --single-transaction --exit-on-error -d "$(school_address "$2")" "$1"
}

# backup [FILE] [--keep N]: consistent while people work; read back whole before it counts as written.
backup() {
  local file='' keep='' work checked how old
  while (($#)); do
    case $1 in
      --keep) keep=${2:-}; [[ $keep =~ ^[1-9][0-9]*$ ]] || die "--keep takes a number of backups, 1 or more."; shift ;;
      -*) die "backup does not know '$1'. ./zeitplan help lists what it knows." ;;
      *) file=$1 ;;
    esac
    shift
  done
  [[ -z $keep || -z $file ]] || die "--keep is for the backups in .zeitplan/backups; a file of your own is yours to keep."
  [[ -n $file ]] || { mkdir -p -m 700 "$HOME_DIR/backups"; file="$HOME_DIR/backups/$(date -u +%Y-%m-%dT%H-%M-%S).zeitplan"; }
  [[ ! -e $file ]] || die "$file is there already; nothing is written over."
  [[ -d $(dirname "$file") ]] || die "There is no folder $(dirname "$file")."
  open_database
  [[ $(school_sql "$SCHOOL" "SELECT count(*) FROM schools" 2>/dev/null) == 1 ]] || die "There is no school of your own to back up yet; the demo school makes itself anew."
  work=$(mktemp -d "$(dirname "$file")/.zeitplan-backup.XXXXXX") || die "$(dirname "$file") cannot be written to."
  checked="zeitplan_checked_$$"
  trap 'school_sql postgres "DROP DATABASE IF EXISTS '"$checked"' WITH (FORCE)" 2>/dev/null || true; rm -rf "'"$work"'"; [[ -z $STARTED ]] || cluster_stop "$STARTED"' EXIT
  # What a device carries with it is no part of the school: whoever restores signs in anew.
  "$(postgres_bin)/pg_dump" --format=custom --no-owner --exclude-table-data=sign_ins -d "$(school_address "$SCHOOL")" -f "$work/school.dump" || die "The school could not be read; nothing was written."
  in_scratch "$work/school.dump" "$checked" 2>"$work/said" || { cat "$work/said" >&2; die "The backup cannot be read back; nothing was kept."; }
  {
    echo "$BACKUP_KIND"
    echo "made $(date -u +%Y-%m-%dT%H:%M:%SZ)"
    echo "dump $(sha256sum <"$work/school.dump" | cut -d' ' -f1)"
    digest "$checked"
  } >"$work/manifest" || die "The backup cannot be read back; nothing was kept."
  # The dump is compressed; the manifest comes first, so that what is not ours is known at once.
  seal "$work" >"$work/sealed" || die "The backup could not be written; nothing was kept."
  unseal "$work/sealed" "$work/again" && cmp -s "$work/again/school.dump" "$work/school.dump" || die "The backup cannot be read back; nothing was kept."
  chmod 600 "$work/sealed"
  mv "$work/sealed" "$file"
  # Beside the backups: numbers of those who have been erased, whom none of them brings back.
  { cat "$HOME_DIR/erased" 2>/dev/null || true; school_sql "$SCHOOL" "SELECT id FROM students WHERE erased IS NOT NULL"; } | merge_erased "$(dirname "$file")/.erased"
  [[ -n ${ZEITPLAN_PASSPHRASE:-} ]] && how='encrypted with your passphrase' || how='not encrypted: set ZEITPLAN_PASSPHRASE to encrypt the next one'
  echo "The school is in $file ($(du -h "$file" | cut -f1), $how). It was read back and is whole."
  if [[ -n $keep ]]; then
    find "$HOME_DIR/backups" -maxdepth 1 -name '*.zeitplan' -printf '%f\n' | LC_ALL=C sort -r | tail -n +$((keep + 1)) | while read -r old; do rm -f "$HOME_DIR/backups/$old"; echo "$old was let go: the newest $keep are kept."; done
  fi
}

# merge_erased FILE: adds the lines it is given to a list, each once.
merge_erased() { LC_ALL=C sort -u - <(cat "$1" 2>/dev/null || true) | grep -E '^[0-9a-f-]{36}$' >"$1.new" || true; mv "$1.new" "$1"; }

seal() { if [[ -n ${ZEITPLAN_PASSPHRASE:-} ]]; then tar -C "$1" -cf - manifest school.dump | openssl enc "${CIPHER[@]}" -salt -pass env:ZEITPLAN_PASSPHRASE; else tar -C "$1" -cf - manifest school.dump; fi; }

# unseal FILE DIR: manifest and dump of a backup in DIR, or why not, in one line. Nothing but these two is ever unpacked.
unseal() {
  mkdir -p "$2"
  if [[ $(head -c 8 "$1" 2>/dev/null) == Salted__ ]]; then
    [[ -n ${ZEITPLAN_PASSPHRASE:-} ]] || { echo "This backup is encrypted: set ZEITPLAN_PASSPHRASE to its passphrase." >&2; return 1; }
    openssl enc -d "${CIPHER[@]}" -pass env:ZEITPLAN_PASSPHRASE -in "$1" 2>/dev/null | tar -C "$2" -xf - manifest school.dump 2>/dev/null || { echo "The passphrase does not open this backup, or it is damaged." >&2; return 1; }
  else
    tar -C "$2" -xf "$1" manifest school.dump 2>/dev/null || { echo "This is no backup of Zeitplan, or it is damaged." >&2; return 1; }
  fi
  [[ -f "$2/manifest" && -f "$2/school.dump" && ! -L "$2/manifest" && ! -L "$2/school.dump" && $(head -1 "$2/manifest") == "$BACKUP_KIND" ]] || { echo "This is no backup that this Zeitplan can read." >&2; return 1; }
  [[ $(sed -n 's/^dump //p' "$2/manifest") == "$(sha256sum <"$2/school.dump" | cut -d' ' -f1)" ]] || { echo "The backup is damaged: its contents are not what was written." >&2; return 1; }
}

# restore FILE: a school equal to the row, or none. Older ones are brought up to date at the next start.
restore() {
  local file=${1:-} work coming=zeitplan_coming
  [[ -n $file && $# == 1 ]] || die "restore takes one backup file."
  [[ -f $file ]] || die "There is no file $file."
  # Of a database that is not this clone's own the database itself says whether there is a school.
  [[ -n ${ZEITPLAN_DATABASE:-} || -z $(launcher_process) ]] || die "Zeitplan is running. ./zeitplan stop ends it; then restore."
  mkdir -p "$HOME_DIR" && chmod 711 "$HOME_DIR"
  work=$(mktemp -d /tmp/zeitplan-restore.XXXXXX)
  STARTED=
  trap 'rm -rf "'"$work"'"; [[ -z $STARTED ]] || cluster_stop "$STARTED"' EXIT
  unseal "$file" "$work" || exit 1
  open_database
  if [[ $(school_sql postgres "SELECT count(*) FROM pg_database WHERE datname = '$SCHOOL'") == 1 ]]; then
    # One that was only made ready for a school holds nothing.
    [[ $(school_sql "$SCHOOL" "SELECT to_regclass('schools') IS NOT NULL") == f || $(school_sql "$SCHOOL" "SELECT count(*) FROM schools") == 0 ]] || die "There is a school here already. Restore into an empty installation; nothing was changed."
  fi
  in_scratch "$work/school.dump" "$coming" 2>"$work/said" && digest "$coming" >"$work/read" 2>>"$work/said" || { tail -3 "$work/said" >&2; school_sql postgres "DROP DATABASE IF EXISTS $coming WITH (FORCE)"; die "The backup could not be read into this database; nothing was changed."; }
  if ! diff -q <(tail -n +4 "$work/manifest") "$work/read" >/dev/null; then
    school_sql postgres "DROP DATABASE $coming WITH (FORCE)"
    die "What was read is not what was written; nothing was changed."
  fi
  # Whoever was erased since this backup was made is erased again when the school opens.
  { cat "$(dirname "$file")/.erased" 2>/dev/null || true; } | merge_erased "$HOME_DIR/erased"
  # From here on it is there, and until here it is not: a name is given in one step.
  school_sql postgres "DROP DATABASE IF EXISTS $SCHOOL" && school_sql postgres "ALTER DATABASE $coming RENAME TO $SCHOOL" || die "The school could not take its place; it is in the database $coming."
  echo "The school of $(sed -n 's/^made //p' "$work/manifest") is back: $(awk 'NR > 3' FS='|' "$work/manifest" | wc -l) tables, each equal to the row. ./zeitplan start opens it; everybody signs in anew, with the passwords of that day."
}
