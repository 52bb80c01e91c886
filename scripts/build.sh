# Building, only when something changed. Sourced by the launcher and its scripts.

install_packages() {
  local dir=$1
  [[ -f "$dir/node_modules/.package-lock.json" && "$dir/node_modules/.package-lock.json" -nt "$dir/package-lock.json" ]] && return
  echo "Installing the packages of $dir."
  (cd "$dir" && npm ci --no-audit --no-fund --loglevel=error >/dev/null) || die "The packages of $dir could not be installed."
  touch "$dir/node_modules/.package-lock.json"
}

# build_app DIR: the client, then the server that serves it.
build_app() {
  local out=$1
  if [[ -f "$out/built" && -z $(find core server client global.json Directory.*.props -newer "$out/built" -type f -not -path '*/node_modules/*' -not -path '*/bin/*' -not -path '*/obj/*' -not -path 'server/wwwroot/*' -print -quit) ]]; then
    return
  fi
  install_packages client
  echo "Building Zeitplan."
  mkdir -p "$out"
  (cd client && npm run --silent build >"$out/../build.log" 2>&1) || { tail -30 "$out/../build.log" >&2; die "The client does not build."; }
  dotnet publish server -c Release -r linux-x64 --no-self-contained -o "$out" -v quiet >"$out/../build.log" 2>&1 || { grep -E 'error|warn' "$out/../build.log" | sort -u | head -20 >&2; die "The server does not build."; }
  touch "$out/built"
}
