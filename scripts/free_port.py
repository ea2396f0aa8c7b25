"""Print the first free loopback port from the given one on."""

import socket
import sys


def is_free(port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            return False
    return True


def main() -> int:
    try:
        first = int(sys.argv[1])
        print(next(port for port in range(first, min(first + 200, 65536)) if port > 0 and is_free(port)))
    except (ValueError, StopIteration):
        print(
            f"It stopped: no free port from {sys.argv[1]} on.\nTo mend it: choose another, as in PORT=8300",
            file=sys.stderr,
        )
        return 1
    return 0


sys.exit(main())
