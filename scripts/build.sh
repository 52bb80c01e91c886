# Building, only when something changed. Sourced by the launcher and its scripts.

# fingerprint PATH…: one word for the contents of these sources. Contents and not times, so that neither a checkout nor a test run makes anything build again.
fingerprint() {
  find "$@" \( -name node_modules -o -name bin -o -name obj -o -path client/public/engine -o -path server/wwwroot \) -prune -o -type f ! -name '*.test.*' ! -path 'client/src/testing/*' -print0 |
    LC_ALL=C sort -z | xargs -0 sha256sum | sha256sum | cut -c1-16
}

install_packages() {
  local dir=$1 wanted
  wanted=$(sha256sum <"$dir/package-lock.json")
  [[ -f "$dir/node_modules/.installed" && $(cat "$dir/node_modules/.installed") == "$wanted" ]] && return
  echo "Installing the packages of $dir."
  (cd "$dir" && npm ci --no-audit --no-fund --loglevel=error >/dev/null) || die "The packages of $dir could not be installed."
  echo "$wanted" >"$dir/node_modules/.installed"
}

# The rules of the job for the page: core compiled to WebAssembly, laid where the client takes it from.
build_engine() {
  local to=client/public/engine log=$1 made=client/engine/bin/made-from wanted
  wanted=$(fingerprint core client/engine global.json Directory.*.props)
  [[ -f "$to/dotnet.js.br" && -f $made && $(cat "$made") == "$wanted" ]] && return
  rm -rf client/engine/bin/page
  dotnet publish client/engine -c Release -o client/engine/bin/page -v quiet >"$log" 2>&1 || { grep -E 'error' "$log" | sort -u | head -20 >&2; die "The page's engine does not build."; }
  rm -rf "$to" && mkdir -p "$to"
  find client/engine/bin/page/wwwroot/_framework -type f -not -name '*.gz' -exec cp {} "$to" \;
  echo "$wanted" >"$made"
}

# build_app: the client, then the server that serves it, in a folder named after their sources. Sets APP. A build that fails or is stopped leaves the
# earlier ones as they are, and a running school keeps the one it runs from.
build_app() {
  local builds=$PWD/.zeitplan/builds
  mkdir -p "$builds"
  exec 9>"$builds.lock"
  flock 9
  APP="$builds/$(fingerprint core arranger server client global.json Directory.*.props)"
  # What the build leaves running, such as the compiler's server, must not hold on to the lock: the next one would wait for that to go.
  [[ -d $APP ]] || build_to "$APP" "$builds" "$PWD/.zeitplan/build.log" 9>&-
  exec 9>&-
}

build_to() {
  local app=$1 builds=$2 log=$3 made
  made=$(mktemp -d "$builds/unfinished.XXXXXX")
  chmod 755 "$made"
  install_packages client
  echo "Building Zeitplan."
  build_engine "$log"
  (cd client && npm run --silent build >"$log" 2>&1) || { tail -30 "$log" >&2; die "The client does not build."; }
  dotnet publish server -c Release -o "$made" -v quiet >"$log" 2>&1 || { grep -E 'error|warn' "$log" | sort -u | head -20 >&2; die "The server does not build."; }
  mv "$made" "$app" 2>/dev/null || rm -rf "$made"
  forget_old_builds "$builds"
}

# Keeps the newest two builds and whatever a school is running from.
forget_old_builds() {
  local build in_use
  # Not every process may be looked into; that is no reason to take its folder away.
  in_use=$(readlink /proc/[0-9]*/cwd 2>/dev/null || true)
  for build in $(ls -t "$1" | tail -n +3); do
    grep -qxF "$1/$build" <<<"$in_use" || rm -rf "${1:?}/$build"
  done
}
