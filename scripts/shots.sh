#!/usr/bin/env bash
# Refreshes docs/screenshots/ from a throw-away demo school.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
source scripts/cluster.sh
source scripts/build.sh
source scripts/demo.sh
install_packages tests/browser
[[ -x /usr/bin/chromium ]] || die "Pictures need Debian's chromium: apt-get install chromium."
demo_start
cd tests/browser && node shots.mjs ../../docs/screenshots
