# Sourced by `demo` and `serve`: one lock, one set-up, one server with its worker, and one way to end them.
# NAME is the database; `lock_hall`, then prepare the database, then `open_hall`.
. "$(dirname "${BASH_SOURCE[0]}")/common.sh"

export YOISHO_MAILBOX="${YOISHO_MAILBOX:-$PWD/$STATE/mail-$NAME}"

lock_hall() {
  exec 8>"$STATE/$NAME.lock"
  flock -n 8 || fail "the $NAME of this clone is already running at $(cat "$STATE/$NAME.address" 2>/dev/null)" "use it, or stop it there with Ctrl-C"
  scripts/setup 8>&-
  scripts/build 8>&-
}

server="" worker=""
stop() {
  trap '' INT TERM HUP  # a second Ctrl-C must not leave the database running
  trap - EXIT
  printf '\n'
  say "Stopping"
  [ -z "$server" ] || kill -QUIT "$server" 2>/dev/null || true
  [ -z "$worker" ] || kill -TERM "$worker" 2>/dev/null || true
  for each in $server $worker; do wait "$each" 2>/dev/null || true; done
  python3 scripts/database.py stop "$NAME" 8>&-
}
trap 'stop; exit 130' INT
trap 'stop; exit 143' TERM
trap 'stop' EXIT

# Starts the server and its worker, and waits until it answers.
open_hall() {
  local port
  port=$("$PY" scripts/free_port.py "${PORT:-8000}") || exit 1
  address="http://127.0.0.1:$port/"
  printf '%s' "$address" > "$STATE/$NAME.address"
  setsid "$PY" -m gunicorn server.wsgi --bind "127.0.0.1:$port" --workers 2 --threads 16 --preload --no-control-socket \
    --graceful-timeout 2 --log-level warning --worker-tmp-dir "${TMPDIR:-/tmp}" 8>&- &
  server=$!
  setsid "$PY" manage.py procrastinate worker --concurrency 2 --shutdown-graceful-timeout 2 8>&- &
  worker=$!
  for _ in $(seq 150); do
    kill -0 "$server" 2>/dev/null || fail "the app did not start" "read the error above"
    python3 -c "import urllib.request as u; u.urlopen('${address}readyz', timeout=2)" 2>/dev/null && break
    sleep 0.2
  done
}
