"""What sets several sessions apart, in words: the one that stands out by enough, and nothing within error."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from yoisho.engine.readout import Reading
from yoisho.session.clock import clock


@dataclass(frozen=True)
class Side:
    """Something sessions differ by."""

    value: Callable[[Reading], float]
    apart: float
    """Least distance to the next that is worth a word: a share of the value, or points where `points`."""
    least: str
    """What is said of the lowest; empty where that is nothing to say."""
    most: str
    points: bool = False


def _figure(name: str) -> Callable[[Reading], float]:
    return lambda reading: reading.figures[name].value


def _rest_share(reading: Reading) -> float:
    return reading.timeline.rest_s / reading.timeline.total_s


SIDES: tuple[Side, ...] = (
    Side(lambda r: float(r.timeline.total_s), 0.06, "The quickest, {clock} in all.", "The longest, {clock} in all."),
    Side(_figure("strikes"), 0.1, "Easiest on the hands and shins: about {count} strikes.",
         "The most strikes, about {count}."),
    Side(_figure("fade_last"), 0.03, "The last effort is the freshest.", "The last effort falls short by {percent}.",
         points=True),
    Side(_figure("load"), 0.08, "The lightest load, {count}.", "The heaviest load, {count}."),
    Side(_figure("lactic_reserve_lowest"), 0.05, "Goes deepest into the lactic store, down to {percent}.", "",
         points=True),
    Side(_figure("sprint_at_start"), 0.06, "", "Every effort starts fresh, at {percent} of the sprint store.",
         points=True),
    Side(_figure("vo2_90_min"), 0.12, "", "The longest above 90 % of VO2peak, {minutes}."),
    Side(_rest_share, 0.08, "The densest: hardly any rest.", "Mostly rest.", points=True),
)  # fmt: skip
MOST_SAID = 3


def stands_out(values: Sequence[float], index: int, apart: float, *, low: bool, points: bool = False) -> bool:
    """Whether one of several values is the lowest, or the highest, by enough: a share of the next, or points."""
    own = values[index]
    others = [value for at, value in enumerate(values) if at != index]
    nearest = min(others) if low else max(others)
    gap = nearest - own if low else own - nearest
    return gap >= (apart if points else apart * max(abs(nearest), 1e-9))


def tradeoffs(readings: Sequence[Reading]) -> list[str]:
    """Of each session beside the others, at most three things; empty where nothing stands out or it stands alone."""
    if len(readings) < 2:
        return [""] * len(readings)
    said: list[list[str]] = [[] for _ in readings]
    for side in SIDES:
        values = [side.value(reading) for reading in readings]
        for index, value in enumerate(values):
            for low, template in ((True, side.least), (False, side.most)):
                if template and stands_out(values, index, side.apart, low=low, points=side.points):
                    said[index].append(_filled(template, value))
    return [" ".join(words[:MOST_SAID]) for words in said]


def _filled(template: str, value: float) -> str:
    return template.format(
        clock=clock(value), minutes=clock(60 * value), count=f"{value:.0f}", percent=f"{round(100 * value)} %"
    )
