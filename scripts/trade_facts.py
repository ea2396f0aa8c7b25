"""What coaches know of whole sessions, as the search is held to it: each figure with bounds a little inside those that
`tests/published` tests, and by how much it must miss them to count as one.

Common practice, no source, where the tests name none.
"""

from collections.abc import Iterator
from functools import cache
from typing import NamedTuple

import numpy as np

from yoisho.engine.lactate import blood_lactate
from yoisho.engine.measures import LACTIC_DEEP_USED
from yoisho.engine.parameters import Parameters
from yoisho.engine.person import Level, Person, person
from yoisho.engine.readout import Reading, read
from yoisho.engine.stores import Run
from yoisho.engine.studies import ALL_OUT, CADENCE, REST, STUDY_SCALE, Model, bouts_until_exhausted
from yoisho.judgement.verdict import judge
from yoisho.protocols import PROTOCOLS
from yoisho.session.shorthand import read as read_line
from yoisho.session.timeline import Timeline, unroll

FIGHTER = person(vo2max_ml_kg_min=57, level="fighter", mass_kg=72, age_years=25)
CLUB = person(vo2max_ml_kg_min=50, hr_max_bpm=188, hr_rest_bpm=60, mass_kg=70)
ANY = float("inf")

TRAINED_BY = {
    "12 x (6 all out) rest 1:30": "sprint-power",
    "10 x (12 all out) rest 1:00": "sprint-capacity",
    "5 x (30 all out) rest 3:00": "lactic-power",
    "2 x (8 x (30 power / 30 flow)) rest 2:00": "lactic-capacity",
    "4 x (5:00 freestyle) rest 1:30": "threshold",
    "4 x (4:00 combination) rest 3:00": "aerobic-power",
    "20:00 flow": "aerobic-base",
    "6 x (2:00 technique) rest 1:00": "skill",
    "3 x (1:00 speed, 1:00 technique, 1:00 power) rest 1:00": "fight-rehearsal",
}
"""What these lines are known to train, with nothing left to wish."""
LEVELS: dict[str, Level] = {"beginner": "beginner", "fighter": "fighter"}
RULES = {"five-minute rounds": "mma-pro", "five rounds, long rests": "muay-thai-pro", "two long rounds": None,
         "short rounds": None}  # fmt: skip


class Fact(NamedTuple):
    what: str
    value: float
    least: float
    most: float
    by: float

    @property
    def miss(self) -> float:
        """How far outside its bounds, in its own measure; 0 inside."""
        return max(0.0, self.least - self.value, self.value - self.most) / self.by


@cache
def _timeline(line: str) -> Timeline:
    return unroll(read_line(line))


@cache
def _catalogue() -> list[tuple[Person, Timeline, str, str]]:
    """Every version of every protocol, with whom it is for and what it says it trains."""
    found = []
    for protocol in PROTOCOLS.values():
        for version in protocol.versions:
            level = LEVELS.get(version.name, "club")
            who = person(level=level, rule_set=RULES.get(version.name, "boxing-amateur"))
            name = f"{protocol.id}: {version.name}"
            if protocol.id != "cool-down":
                found.append((who, protocol.session(version).unrolled(), protocol.target_of(version), name))
    return found


def _minutes(done: Run, inside: np.ndarray) -> float:
    """For which a condition of shape (t, 1) holds."""
    return float(np.diff(done.seconds) @ inside[1:, 0]) / 60


def facts(parameters: Parameters) -> Iterator[Fact]:
    def reading(line: str, who: Person = FIGHTER) -> Reading:
        return read(who, _timeline(line), ranges=False, parameters=parameters)

    def figure(done: Reading, name: str) -> float:
        return done.figures[name].value

    threshold = reading("3 x (1:00 speed bag, 1:00 power bag, 1:00 carry) rest 1:30")
    beat = figure(threshold, "heart_rate_peak_bpm") / FIGHTER.hr_max_bpm.value
    yield Fact("threshold rounds, heart", beat, 0.81, 0.915, 0.02)
    yield Fact("threshold rounds, fade", figure(threshold, "fade_last"), -ANY, 0.035, 0.05)

    turns = reading("2 x (8 x (30 power bag / 30 flow bag)) rest 2:00")
    fades = [each.value for each in turns.work_bout_fade]
    yield Fact("30/30, minutes far down", figure(turns, "lactic_deep_min"), 2.5, ANY, 1.5)
    yield Fact("30/30, fade of the first set", max(fades[:8]), -ANY, 0.085, 0.05)
    yield Fact("30/30, fade of the second set", max(fades[8:]), 0.115, ANY, 0.03)

    kicks = reading("16 x (20 power bag [rk-m, lk-m] at 30 a minute / 10 rest)").measured.intervals["fade"][::2, 0]
    yield Fact("ten kicks 20/10, sets", float(np.argmax(np.append(kicks, 1.0) > 0.05)) + 1, 6, 11, 4)

    flow = reading("30:00 flow bag")
    yield Fact("flow, lactate", figure(flow, "lactate_peak_mmol"), -ANY, 3.2, 1.0)
    yield Fact("flow, exhausts", float(flow.exhausted_at_s is not None), -ANY, 0.0, 1.0)

    fight = "3 x (3:00 fight pace) rest 1:00"
    yield Fact("bout, lactate of a club's boxer", figure(reading(fight, CLUB), "lactate_peak_mmol"), 9.0, 15.5, 2.0)
    on_bag = reading("3 x (3:00 fight pace bag) rest 1:00")
    yield Fact("bout, lactate of a fighter", figure(on_bag, "lactate_peak_mmol"), 9.2, 18.0, 2.0)

    rounds = reading("3 x (2:00 combination) rest 1:00", CLUB)
    for share, least, most, by in (("aerobic", 0.72, 0.90, 0.05), ("alactic", 0.055, 0.25, 0.03),
                                   ("lactic", 0.015, 0.095, 0.02)):  # fmt: skip
        yield Fact(f"rounds of combinations, {share}", figure(rounds, f"{share}_share"), least, most, by)

    sprints = reading("15 x (6 all out, 84 rest)", CLUB)
    yield Fact("6 s sprints, store before the last", sprints.sprint_at_work_bout[-1].value, 0.72, ANY, 0.1)
    yield Fact("6 s sprints, fade of the last", sprints.work_bout_fade[-1].value, -ANY, 0.045, 0.03)

    for line, purpose in TRAINED_BY.items():
        verdict = judge(reading(line, CLUB), purpose)
        yield Fact(f"{line}, strokes", float(verdict.strokes), 5.0, ANY, 2.0)
        yield Fact(f"{line}, score", verdict.score, 0.99, ANY, 0.2)
        yield Fact(f"{line}, trains {purpose}", float(verdict.trains_best == purpose), 1.0, ANY, 0.75)
    for who, timeline, purpose, name in _catalogue():
        verdict = judge(read(who, timeline, ranges=False, parameters=parameters), purpose)
        yield Fact(f"{name}, score", verdict.score, 0.68, ANY, 0.12)
    for tempo in ("flow", "technique"):
        risen = float(reading(f"2:00 {tempo}", CLUB).traces.uptake_frac[-1])
        yield Fact(f"2:00 {tempo}, uptake", risen, 0.41, 0.74, 0.05)

    harder = [reading(f"3 x (1:00 speed, 1:00 power, 1:00 hold) rest {rest}", CLUB) for rest in (90, 75, 60)]
    for name in ("lactic_used_highest", "lactate_peak_mmol", "fatigue_peak"):
        values = np.array([figure(each, name) for each in harder])
        yield Fact(f"less rest, {name}", float((np.diff(values) / values.max()).min()), 0.0, ANY, 0.01)

    model = Model(parameters)
    hard = model.run(*[*[(30, 1.5), (30, 0.4)] * 8, (120, REST), *[(30, 1.5), (30, 0.4)] * 8], sample_s=1.0)
    delivered = hard.energy_delivered[:, 0] / hard.energy_delivered[0, 0]
    yield Fact("30/30 at 150 %, minutes far down", _minutes(hard, hard.lactic_used >= LACTIC_DEEP_USED), 4.5, ANY, 2.0)
    yield Fact("30/30 at 150 %, the last", float(delivered[-2]), -ANY, 0.965, 0.05)
    long = model.run(*[(240, 0.92), (180, 0.4)] * 3, (240, 0.92), sample_s=1.0)
    yield Fact("4 x 4:00, highest uptake", float(long.uptake_frac.max()), 0.925, ANY, 0.02)
    yield Fact("4 x 4:00, minutes above 90 %", _minutes(long, long.uptake_frac >= 0.9), 5.5, ANY, 1.0)
    yield Fact("4 x 4:00, lactic store used", float(long.lactic_used.max()), -ANY, 0.47, 0.1)
    yield Fact("4 x 4:00, minutes far down", _minutes(long, long.lactic_used >= LACTIC_DEEP_USED), -ANY, 1.5, 1.0)

    easier = bouts_until_exhausted(Model(parameters, STUDY_SCALE), 20, 10, 1.3, CADENCE)[0]
    yield Fact("20/10 at 130 %, bouts", easier, 8.5, ANY, 2.0)
    spent = model.run((60, ALL_OUT), (900, REST), sample_s=1.0)
    course, _ = blood_lactate(spent.seconds, spent.energy_to_here[3], spent.uptake_frac, parameters)
    peak_s = float(spent.seconds[np.argmax(course[:, 0])]) - 60
    yield Fact("highest lactate after the bell [s]", peak_s, 190, 470, 60)


def breaches(parameters: Parameters) -> float:
    """How far all of them are missed; a wide miss counts less than in proportion, so that one cannot rule all."""
    misses = np.array([fact.miss for fact in facts(parameters)])
    return float((1.5 * (np.minimum(misses, 1.0) + 2.0 * np.log1p(np.maximum(misses - 1.0, 0.0)))).sum())
