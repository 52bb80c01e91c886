# Building, only when something changed. Sourced by the launcher and its scripts.

install_packages() {
  local dir=$1
  [[ -f "$dir/node_modules/.package-lock.json" && "$dir/node_modules/.package-lock.json" -nt "$dir/package-lock.json" ]] && return
  echo "Installing the packages of $dir."
  (cd "$dir" && npm ci --no-audit --no-fund --loglevel=error >/dev/null) || die "The packages of $dir could not be installed."
  touch "$dir/node_modules/.package-lock.json"
}

# The rules of the job for the page: core compiled to WebAssembly, laid where the client takes it from.
build_engine() {
  local to=client/public/engine log=$1
  [[ -f "$to/dotnet.js" && -z $(find core client/engine global.json Directory.*.props -newer "$to/dotnet.js" -type f -not -path '*/bin/*' -not -path '*/obj/*' -print -quit) ]] && return
  dotnet publish client/engine -c Release -o client/engine/bin/page -v quiet >"$log" 2>&1 || { grep -E 'error' "$log" | sort -u | head -20 >&2; die "The page's engine does not build."; }
  rm -rf "$to" && mkdir -p "$to"
  find client/engine/bin/page/wwwroot/_framework -type f -not -name '*.br' -not -name '*.gz' -exec cp {} "$to" \;
  touch "$to/dotnet.js"
}

# build_app DIR: the client, then the server that serves it.
build_app() {
  local out=$1
  if [[ -f "$out/built" && -z $(find core server client global.json Directory.*.props -newer "$out/built" -type f -not -path '*/node_modules/*' -not -path '*/bin/*' -not -path '*/obj/*' -not -path 'server/wwwroot/*' -not -path 'client/public/engine/*' -print -quit) ]]; then
    return
  fi
  install_packages client
  echo "Building Zeitplan."
  mkdir -p "$out"
  build_engine "$out/../build.log"
  (cd client && npm run --silent build >"$out/../build.log" 2>&1) || { tail -30 "$out/../build.log" >&2; die "The client does not build."; }
  dotnet publish server -c Release -r linux-x64 --no-self-contained -o "$out" -v quiet >"$out/../build.log" 2>&1 || { grep -E 'error|warn' "$out/../build.log" | sort -u | head -20 >&2; die "The server does not build."; }
  touch "$out/built"
}
