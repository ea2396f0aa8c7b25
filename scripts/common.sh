# Sourced by every script: where things are, how to speak, how to fail.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
STATE=.state
mkdir -p "$STATE"
unset PYTHONDONTWRITEBYTECODE
export PYTHONUNBUFFERED=1 UV_PYTHON_DOWNLOADS=never DJANGO_SETTINGS_MODULE=server.settings
PY=.venv/bin/python

say() { printf '\033[1m%s\033[0m\n' "$*"; }
fail() { printf '\nIt stopped: %s\nTo mend it: %s\n' "$1" "$2" >&2; exit 1; }

# The app's settings for one of this clone's databases (demo, test).
use_database() {
  YOISHO_DATABASE=$(python3 scripts/database.py start "$1") || exit 1
  [ -s "$STATE/secret" ] || (umask 077 && head -c 48 /dev/urandom | base64 | tr -d '\n' > "$STATE/secret")
  YOISHO_SECRET=$(cat "$STATE/secret")
  export YOISHO_DATABASE YOISHO_SECRET
}

# Debian's Chromium for tests, benchmarks and pictures: the shell without a window takes a fifth less time.
use_chromium() {
  CHROMIUM=$(command -v chromium-headless-shell || command -v chromium) \
    || fail "Chromium is missing" "as root, run: apt-get install chromium-headless-shell"
  export CHROMIUM
}
