#!/usr/bin/env bash
# ./zeitplan release [DIR]: one folder, and the same packed, that runs on a machine with neither SDK nor Node. Sourced by the launcher.

release() {
  local to=${1:-release} name work
  [[ $# -le 1 && $to != -* ]] || die "release takes one folder to put it in, or none."
  need_tools
  name="zeitplan-$(git log -1 --format=%cd --date=format:%Y.%m.%d 2>/dev/null || date -u +%Y.%m.%d)-linux-x64"
  [[ ! -e "$to/$name" ]] || die "$to/$name is there already; nothing is written over."
  build_app
  mkdir -p "$to"
  work=$(mktemp -d "$to/.zeitplan-release.XXXXXX")
  trap 'rm -rf "'"$work"'"' EXIT
  mkdir -p "$work/$name/lib"
  echo "Packing Zeitplan with everything it runs on."
  dotnet publish server -c Release --self-contained -o "$work/$name/app" -v quiet >"$work/log" 2>&1 || { grep -E 'error|warn' "$work/log" | sort -u | head -20 >&2; die "The release could not be made."; }
  cp -r scripts/release/. "$work/$name/"
  cp scripts/cluster.sh scripts/backup.sh "$work/$name/lib/"
  cp docs/running.md LICENSE "$work/$name/"
  chmod 755 "$work/$name/zeitplan" "$work/$name/app/Zeitplan.Server"
  tar -C "$work" -czf "$work/$name.tar.gz" "$name"
  mv "$work/$name.tar.gz" "$to/" && mv "$work/$name" "$to/"
  echo "The release is in $to/$name, and packed beside it ($(du -h "$to/$name.tar.gz" | cut -f1)). running.md in it says what a technician does first."
}
