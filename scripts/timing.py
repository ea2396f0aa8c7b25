"""Timing an act, and telling of many: for the benchmarks."""

import time
from collections.abc import Callable

import numpy as np


def took(act: Callable[[], object]) -> float:
    """Milliseconds."""
    began = time.perf_counter()
    act()
    return 1000 * (time.perf_counter() - began)


def tell(what: str, taken: list[float]) -> None:
    median, p95 = np.percentile(taken, [50, 95])
    print(f"{what:58s} median {median:7.2f} ms   p95 {p95:7.2f} ms   ({len(taken)} runs)")


def measure(what: str, act: Callable[[], object], runs: int = 60) -> None:
    act()
    tell(what, [took(act) for _ in range(runs)])
