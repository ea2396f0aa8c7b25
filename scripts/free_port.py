"""Print the first free loopback port from the given one on."""

import sys

from ports import is_free


def main() -> int:
    asked = sys.argv[1] if len(sys.argv) > 1 else ""
    try:
        first = int(asked)
        print(next(port for port in range(first, min(first + 200, 65536)) if port > 0 and is_free(port)))
    except (ValueError, StopIteration):
        print(
            f"It stopped: no free port from {asked!r} on.\nTo mend it: choose another, as in PORT=8300", file=sys.stderr
        )
        return 1
    return 0


sys.exit(main())
