"""What an earlier start of a hall left running: `left_over.py NAME` prints the process of its supervisor where that
still stands, and else ends everything that is the hall's own; with `--end` the supervisor too, or only these processes.

It is known by the mark that a hall sets for all it starts, which holds the place of the clone: never by a name.
"""

import glob
import os
import signal
import sys
import time
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
MARK = "YOISHO_HALL"
PATIENCE_S = 4.0


def marked(name: str) -> list[int]:
    """Living processes of this clone's hall of that name."""
    wanted = f"{MARK}={ROOT}/.state/{name}".encode()
    found = []
    for place in glob.glob("/proc/[0-9]*/environ"):
        pid = int(place.split("/")[2])
        try:
            if pid != os.getpid() and wanted in Path(place).read_bytes().split(b"\0"):
                found.append(pid)
        except OSError:
            continue
    return found


def supervisor(name: str) -> int | None:
    """The process of its supervisor, where it lives."""
    try:
        pid = int((ROOT / ".state" / f"{name}.supervisor.pid").read_text())
    except (OSError, ValueError):
        return None
    return pid if pid in marked(name) else None


def watches(pid: int) -> bool:
    """Whether it watches over the database: told to stop it would stop that too."""
    try:
        told = Path(f"/proc/{pid}/cmdline").read_bytes().split(b"\0")
    except OSError:
        return False
    return b"watch" in told


def end(name: str, only: list[int] | None = None) -> None:
    """End what is the hall's own, or of it only these; the database goes on."""
    wanted = set(marked(name)) if only is None else set(only)

    def left() -> list[int]:
        return [pid for pid in marked(name) if pid in wanted]

    for told in (signal.SIGTERM, signal.SIGKILL):
        for pid in left():
            try:
                os.kill(pid, signal.SIGKILL if watches(pid) else told)
            except ProcessLookupError:
                continue
        deadline = time.monotonic() + PATIENCE_S
        while left() and time.monotonic() < deadline:
            time.sleep(0.1)
        if not left():
            return
    pids = " ".join(map(str, left()))
    sys.exit(f"It stopped: what an earlier start left running does not end\nTo mend it: kill {pids}")


if __name__ == "__main__":
    match sys.argv[1:]:
        case [hall, "--end", *pids] if hall.isidentifier():
            end(hall, [int(pid) for pid in pids] or None)
        case [hall, "--list"] if hall.isidentifier():
            print(*marked(hall))
        case [hall] if hall.isidentifier():
            stands = supervisor(hall)
            if stands is None:
                end(hall)
            else:
                print(stands)
        case _:
            sys.exit("usage: left_over.py NAME [--list|--end [PID ...]]")
