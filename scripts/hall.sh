# Sourced by `demo` and `serve`: one lock, one set-up, one server with its worker, and one way to end them.
# NAME is the database; `lock_hall`, then prepare the database, then `open_hall`.
. "$(dirname "${BASH_SOURCE[0]}")/common.sh"

export YOISHO_MAILBOX="${YOISHO_MAILBOX:-$PWD/$STATE/mail-$NAME}"

lock_hall() {
  exec 8>"$STATE/$NAME.lock"
  flock -w 1 8 || fail "the $NAME of this clone is already running at $(cat "$STATE/$NAME.address" 2>/dev/null)" "use it, or stop it there with Ctrl-C"
  # Not before: whoever finds it running has nothing to stop.
  trap 'stop; exit 130' INT
  trap 'stop; exit 143' TERM
  trap 'stop' EXIT
  scripts/setup 8>&-
  scripts/build 8>&-
}

hall=""
stop() {
  trap '' INT TERM HUP  # a second Ctrl-C must not leave the database running
  trap - EXIT
  printf '\n'
  say "Stopping"
  [ -z "$hall" ] || kill -TERM "$hall" 2>/dev/null || true
  [ -z "$hall" ] || tail --pid="$hall" -f /dev/null 2>/dev/null 8>&- || true
  "$PY" scripts/left_over.py "$NAME" --end 8>&- || true
  python3 scripts/database.py stop "$NAME" 8>&-
}

# What an earlier start left running whose script was killed: a hall that still stands is taken over, the rest ends.
take_over() {
  hall=$("$PY" scripts/left_over.py "$NAME" 8>&-) || exit 1
  [ -n "$hall" ] || return 1
  address=$(cat "$STATE/$NAME.address")
  use_database "$NAME" 8>&-  # where its supervisor dies later, it is started again with these settings
  say "The $NAME of an earlier start still runs: it is taken over"
}

# Brings the database up to what this version wants, by `prepare`. It may die just then: then it is started again, and
# what was begun, which it has taken back, is begun anew.
bring_up_to_date() {
  local tried
  for tried in 1 2 3; do
    prepare && return
    say "The database could not be brought up to date at try $tried"
    use_database "$NAME" 8>&-
  done
  return 1
}

# Database, server and worker under one supervisor, which starts again whatever dies.
start_supervisor() {
  "$PY" scripts/supervised.py "$NAME" "$1" > "$STATE/$NAME.supervisor.conf"
  YOISHO_HALL="$PWD/$STATE/$NAME" setsid "$PY" -m supervisor.supervisord -n -c "$STATE/$NAME.supervisor.conf" 8>&- &
  hall=$!
}

# Whether the app at the port answers, and its database with it.
answers() {
  (
    exec 3<>"/dev/tcp/127.0.0.1/$1" && printf 'GET /readyz HTTP/1.0\r\nHost: 127.0.0.1\r\n\r\n' >&3 \
      && read -t 5 -r said <&3 && [[ "$said" == *" 200 "* ]]
  ) 2>/dev/null
}

# Whether the supervisor ended because it was killed; of itself it ends where it cannot start, and has said why.
was_killed() {
  local ended=0
  wait "$hall" || ended=$?
  [ "$ended" -gt 128 ]
}

# Starts it all at a free port, the one it had before where that is free, and waits until it answers. A supervisor that is
# killed meanwhile is started again, as it is later.
open_hall() {
  before=$(sed -n 's|.*:\([0-9]*\)/$|\1|p' "$STATE/$NAME.address" 2>/dev/null || true)
  port=$("$PY" scripts/free_port.py "${PORT:-${before:-8000}}" 8>&-) || exit 1
  address="http://127.0.0.1:$port/"
  printf '%s' "$address" > "$STATE/$NAME.address"
  start_supervisor "$port"
  for _ in $(seq 150); do
    if ! kill -0 "$hall" 2>/dev/null; then
      was_killed || fail "the app did not start" "read the error above"
      "$PY" scripts/left_over.py "$NAME" --end 8>&-
      start_supervisor "$port"
    fi
    answers "$port" 8>&- && break
    sleep 0.2 8>&-
  done
}

# Waits until the supervisor dies, for so many seconds at the most (0: for ever). Fails where it lives still.
dies() {
  timeout "$1" tail --pid="$hall" -s 0.1 -f /dev/null 8>&- &
  wait $!
}

# Stays for as long as the hall stands. A supervisor that dies without being told to is started again, also where that
# happens twice in a moment; what it has left running serves on meanwhile, and ends once the new ones are up.
stay() {
  local left
  dies 0 || true
  while true; do
    say "What watches over the $NAME has died: it is started again"
    left=$("$PY" scripts/left_over.py "$NAME" --list 8>&-)
    port=$(sed -n 's|.*:\([0-9]*\)/$|\1|p' "$STATE/$NAME.address")
    start_supervisor "$port"
    dies 12 && sleep 0.5 8>&- && continue
    # shellcheck disable=SC2086
    [ -z "$left" ] || "$PY" scripts/left_over.py "$NAME" --end $left 8>&-
    dies 0 || true
  done
}
