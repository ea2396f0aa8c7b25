"""Free ports of the loopback address; `ports.py hold PORT` keeps one for a hall whose server is being started again."""

import signal
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


def any_free() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def held(port: int) -> socket.socket:
    """A socket that listens to nothing and keeps the port from everybody who does not share it."""
    keeper = socket.socket()
    keeper.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEPORT, 1)
    keeper.bind(("127.0.0.1", port))
    return keeper


if __name__ == "__main__":
    match sys.argv[1:]:
        case ["hold", port] if port.isdigit():
            with held(int(port)):
                signal.pause()
        case _:
            sys.exit("usage: ports.py hold PORT")
