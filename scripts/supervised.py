"""What a hall runs, for its supervisor: `supervised.py NAME PORT` prints the settings, with a
program's name behind them its command alone.

Each is started again when it dies, at once and then ever later. The database is watched over rather than run: it
outlives whoever watches.
"""

import os
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
PYTHON = f"{ROOT}/.venv/bin/python"
THREADS = 400
POOL = 12
"""Connections to the database that a web process shares between its threads."""
HEAD = """[supervisord]
nodaemon = true
logfile = /dev/null
logfile_maxbytes = 0
loglevel = warn
pidfile = {state}.supervisor.pid
{user}"""
PROGRAM = """
[program:{name}]
command = {command}
directory = {root}
priority = {priority}
autorestart = true
startsecs = 1
startretries = 1000000
stopsignal = {signal}
stopwaitsecs = {patience}
killasgroup = true
redirect_stderr = false
stdout_logfile = /dev/fd/1
stdout_logfile_maxbytes = 0
stderr_logfile = /dev/fd/2
stderr_logfile_maxbytes = 0
"""


def programs(name: str, port: str) -> dict[str, tuple[int, str, int, str]]:
    """Of each its place in the order, how it is told to stop, for how many seconds it may take, and its command."""
    temporary = os.environ.get("TMPDIR", "/tmp")
    return {
        "database": (1, "TERM", 60, f"{PYTHON} scripts/database.py watch {name}"),
        # Another hall of this machine would else take it while the server is down, and both would answer there.
        "port": (1, "TERM", 2, f"{PYTHON} scripts/ports.py hold {port}"),
        "web": (
            2, "QUIT", 10,
            # With its port shared a new one need not wait until the workers of one that was killed have noticed.
            # A screen that follows a run, or waits for something to be made, holds a thread and nothing else.
            f"env YOISHO_POOL={POOL} {PYTHON} -m gunicorn server.wsgi --bind 127.0.0.1:{port} --reuse-port --workers 2 "
            f"--threads {THREADS} --worker-connections {2 * THREADS} --preload "
            f"--no-control-socket --graceful-timeout 2 --log-level warning --worker-tmp-dir {temporary}",
        ),
        "worker": (
            3, "TERM", 10,
            # Jobs give way to answers: speech or a review may come a moment later, a page may not.
            f"nice -n 5 {PYTHON} manage.py procrastinate worker --concurrency 2 --shutdown-graceful-timeout 2",
        ),
    }  # fmt: skip


def settings(name: str, port: str) -> str:
    user = "user = root\n" if os.geteuid() == 0 else ""
    told = HEAD.format(state=f"{ROOT}/.state/{name}", user=user)
    for each, (priority, signal, patience, command) in programs(name, port).items():
        told += PROGRAM.format(
            name=each, root=ROOT, priority=priority, signal=signal, patience=patience, command=command
        )
    # What stands behind a per cent sign is supervisor's own.
    return told.replace("%", "%%")


if __name__ == "__main__":
    match sys.argv[1:]:
        case [name, port] if name.isidentifier() and port.isdigit():
            print(settings(name, port))
        case [name, port, program] if name.isidentifier() and port.isdigit() and program in programs(name, port):
            print(programs(name, port)[program][3])
        case _:
            sys.exit("usage: supervised.py NAME PORT [PROGRAM]")
