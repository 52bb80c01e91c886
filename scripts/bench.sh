#!/usr/bin/env bash
# Measures on a throw-away demo school; each figure beside a reference taken in the same run.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
source scripts/cluster.sh
source scripts/build.sh
source scripts/demo.sh
install_packages tests/browser
demo_start
dotnet build bench -c Release -v quiet >"$WORK/log" 2>&1 || { grep error "$WORK/log" | sort -u >&2; die "The benchmarks do not build."; }
[[ $* == browser ]] || dotnet bench/bin/Release/net10.0/linux-x64/Zeitplan.Bench.dll "$@"
[[ $# == 0 || " $* " == *" browser "* ]] || exit 0
[[ -x /usr/bin/chromium ]] || die "What is measured in the browser needs Debian's chromium: apt-get install chromium."
(cd tests/browser && node bench.mjs)
