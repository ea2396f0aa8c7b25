import socket
import subprocess
import sys
from pathlib import Path

import pytest

SCRIPT = Path(__file__).resolve().parents[2] / "scripts/free_port.py"


def ask(*arguments: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run([sys.executable, str(SCRIPT), *arguments], capture_output=True, text=True)


def test_a_taken_port_is_passed_over():
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        assert port < int(ask(str(port)).stdout) < port + 200


@pytest.mark.parametrize("wrong", ["eight", "70000", ""])
def test_a_port_that_cannot_be_says_how_to_mend_it(wrong):
    done = ask(wrong)
    assert done.returncode == 1
    assert "PORT=8300" in done.stderr
