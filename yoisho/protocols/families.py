"""Families of protocols, each from a school: a tree with a few knobs, the values they may take, and a reason.

One entry in `FAMILIES` is all a new one needs. The values are our own settings around what the schools do.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from yoisho.engine.person import Person
from yoisho.session.interval import Interval
from yoisho.session.rules import RULE_SETS
from yoisho.session.tree import Node, Repeat, Sequence
from yoisho.strikes import notation

Knobs = Mapping[str, Any]


@dataclass(frozen=True)
class Family:
    id: str
    name: str
    school: str
    """Where it is at home: lab, track, ring, gym or hall."""
    reason: str
    """It may tell the value of a knob, by its name in braces."""
    source: str
    knobs: dict[str, tuple[Any, ...]]
    """The values of each knob, in order: neighbours are tried next."""
    build: Callable[[Person, Knobs], Node]
    home: tuple[str, ...] = ()
    """Purposes it was made for: of equals it comes first there."""
    needs: frozenset[str] = frozenset()
    """Modalities it cannot do without."""
    kicks: bool = False
    to_exhaustion: bool = False
    """Whether not finishing is the protocol."""
    form_of: str | None = None
    """The protocol of the library whose knobs these are; None where the search has it alone."""


def _sets(block: Node, sets: int, rest_s: int) -> Node:
    return block if sets == 1 else Repeat(sets, block, Interval(rest_s, "rest"))


def _pairs(hard: str, hard_s: int, light: str, light_s: int, rounds: int) -> Node:
    return Repeat(rounds, Sequence((Interval(hard_s, hard), Interval(light_s, light))))


def _bursts(person: Person, k: Knobs) -> Node:
    return Repeat(k["rounds"], Interval(k["work"], "all-out"), Interval(k["work"] * k["ratio"], "rest"))


def _twenty_tens(person: Person, k: Knobs) -> Node:
    return _sets(_pairs(k["tempo"], 20, "rest", 10, k["rounds"]), k["sets"], k["rest"])


def _hard_and_light(person: Person, k: Knobs) -> Node:
    return _sets(_pairs(k["hard"], 30, k["light"], 30, k["rounds"]), k["sets"], k["rest"])


def _thirds(*order: str) -> Callable[[Person, Knobs], Node]:
    def build(person: Person, k: Knobs) -> Node:
        passes = Repeat(2, Sequence(tuple(Interval(k["third"], tempo) for tempo in order)))
        return Repeat(k["rounds"], passes, Interval(k["rest"], "rest"))

    return build


def _kicking_thirds(person: Person, k: Knobs) -> Node:
    third = k["third"]
    knees, kicks = notation.read_drill("clinch knee"), notation.read_drill("rk-m, lk-m")
    items = (Interval(third, "technique"), Interval(third, "combination", drill=knees),
             Interval(third, "power", drill=kicks))  # fmt: skip
    return Repeat(k["rounds"], Repeat(2, Sequence(items)), Interval(k["rest"], "rest"))


def _rest_between(tempo: str, pause: str) -> Callable[[Person, Knobs], Node]:
    def build(person: Person, k: Knobs) -> Node:
        return Repeat(k["rounds"], Interval(k["work"], k.get("tempo", tempo)), Interval(k["rest"], pause))

    return build


def _with_carry(person: Person, k: Knobs) -> Node:
    items = (Interval(k["third"], k["fast"]), Interval(k["third"], "power"),
             Interval(k["third"], "hold", modality="carry"))  # fmt: skip
    return Repeat(k["rounds"], Sequence(items), Interval(k["rest"], "rest"))


def _forty_twenty(person: Person, k: Knobs) -> Node:
    return Repeat(k["rounds"], Sequence((Interval(k["work"], k["tempo"]), Interval(60 - k["work"], "recover"))))


def _short_intervals(person: Person, k: Knobs) -> Node:
    return _sets(_pairs(k["tempo"], k["work"], "recover", k["work"], k["rounds"]), k["sets"], 180)


def _bursts_in_a_round(person: Person, k: Knobs) -> Node:
    easy = Interval(k["easy"], "flow")
    body = Repeat(180 // (k["easy"] + 10), Sequence((easy, Interval(10, k["burst"]))))
    return Repeat(k["rounds"], body, Interval(k["rest"], "rest"))


def _two_on_two_off(person: Person, k: Knobs) -> Node:
    cardio = Repeat(2, Interval(60, "flow", modality="skip"))
    off = cardio if k["off"] == "flow" else Interval(120, "combination", modality="burpees")
    return Repeat(k["rounds"], Sequence((Interval(120, k["tempo"], switch="half"), off)))


def _rep_rounds(person: Person, k: Knobs) -> Node:
    drill = notation.read_drill("1-2")
    return Repeat(k["rounds"], Interval(None, k["tempo"], reps=(k["reps"],), drill=drill), Interval(k["rest"], "rest"))


def _circuit(person: Person, k: Knobs) -> Node:
    stations = (Interval(60, k["tempo"]), Interval(60, "technique", modality="squats"), Interval(60, k["tempo"]),
                Interval(60, "hold", modality="plank"), Interval(60, k["last"], modality="burpees"))  # fmt: skip
    return Repeat(k["rounds"], Sequence(stations))


def _fight_rounds(person: Person, k: Knobs) -> Node:
    """Rounds of the person's rule set in fight order: fast, then settled, finished with power."""
    rules = RULE_SETS[person.rule_set or "boxing-amateur"]
    third = rules.round_s // 3
    thirds = Interval(third, "speed"), Interval(rules.round_s - 2 * third, k["settled"]), Interval(third, "power")
    return Repeat(rules.rounds + k["more"], Sequence(thirds), Interval(rules.rest_s, "rest"))


def _flow(person: Person, k: Knobs) -> Node:
    return Interval(60 * k["minutes"], "flow")


_COMMON = "common practice, no source"
_ROUNDS = tuple(range(2, 13))

FAMILIES: tuple[Family, ...] = (
    Family(
        "tabata", "Tabata, as researched", "lab",
        "Twenty all out, ten rest, until hardly anything is left: both the aerobic and the lactic side to their end.",
        "Tabata et al. 1996, MSSE 28:1327-1330, from memory",
        {"tempo": ("all-out",), "rounds": (6, 7, 8), "sets": (1, 2, 3), "rest": (180, 300)}, _twenty_tens,
        to_exhaustion=True, home=("lactic-capacity",),
        form_of="tabata",
    ),
    Family(
        "twenty-tens", "The 20/10 format", "gym",
        "The same clock at an effort that can be repeated: short, easy to call, and not the research protocol.",
        _COMMON,
        {"tempo": ("technique", "combination", "power"), "rounds": (6, 8, 10, 12), "sets": (1, 2, 3, 4, 5),
         "rest": (60, 90, 120)}, _twenty_tens,
        form_of="tabata",
    ),
    Family(
        "thirds-learning", "Thirds, learning order", "hall",
        "Form first, while it is fresh; then speed; then power.", _COMMON,
        {"third": (20, 30, 40), "rounds": _ROUNDS, "rest": (45, 60, 75, 90, 120)},
        _thirds("technique", "speed", "power"),
        form_of="thirties",
    ),
    Family(
        "thirds-fight", "Thirds, fight order", "ring",
        "A round opens fast, settles, and is finished with power, as a bout does.", _COMMON,
        {"third": (20, 30, 40), "rounds": _ROUNDS, "rest": (45, 60, 75, 90, 120)},
        _thirds("speed", "technique", "power"), home=("fight-rehearsal",),
        form_of="thirties",
    ),
    Family(
        "thirds-kicking", "Thirds with knees and kicks", "ring",
        "Clinch knees and alternate round kicks in the place of speed and power.", _COMMON,
        {"third": (20, 30, 40), "rounds": _ROUNDS, "rest": (45, 60, 75, 90, 120)}, _kicking_thirds, kicks=True,
        form_of="thirties",
    ),
    Family(
        "hard-and-light", "Thirty hard, thirty light", "hall",
        "Half a minute hard, half a minute light on the bag, so that the lactic store stays down without the "
        "hands stopping.", _COMMON,
        {"hard": ("power", "speed", "all-out"), "light": ("recover", "flow"), "rounds": (4, 6, 8, 10, 12),
         "sets": (1, 2, 3), "rest": (90, 120, 180)}, _hard_and_light, home=("lactic-capacity",),
        form_of="lactic-capacity",
    ),
    Family(
        "long-rest", "All out, long rest", "track",
        "{work} seconds all out open the lactic store, and the long rest makes the next one as good.",
        "NSCA Essentials 4th ed., 15-30 s at 1:3 to 1:5, from memory",
        {"work": (20, 25, 30, 40), "rest": (90, 120, 150, 180, 240), "rounds": tuple(range(3, 11))},
        _rest_between("all-out", "rest"), home=("lactic-power",),
    ),
    Family(
        "short-bursts", "Short bursts, long rest", "track",
        "Bursts short enough to stay on the sprint store, and rest long enough to fill it again.",
        "NSCA Essentials 4th ed., 5-10 s at 1:12 to 1:20, from memory",
        {"work": (6, 8, 10), "ratio": (10, 12, 15, 20), "rounds": tuple(range(6, 21))}, _bursts, home=("sprint-power",),
    ),
    Family(
        "bursts-again", "Bursts again and again", "hall",
        "Bursts that empty the sprint store, and rest too short to fill it.", _COMMON,
        {"work": (8, 10, 12, 15), "ratio": (3, 4, 5, 6, 8), "rounds": (6, 8, 10, 12, 16, 20)}, _bursts,
        home=("sprint-capacity",),
    ),
    Family(
        "carry", "Speed, power, carry", "hall",
        "Speed, then power, then a heavy carry: squeezing a load keeps the lactate in the muscle, and the pulse up.",
        _COMMON,
        {"fast": ("combination", "speed"), "third": (30, 40, 60), "rounds": (2, 3, 4, 5, 6), "rest": (60, 75, 90, 120)},
        _with_carry, needs=frozenset({"carry"}), home=("threshold",),
        form_of="threshold-rounds",
    ),
    Family(
        "threshold-rounds", "Long rounds, high but tolerated", "ring",
        "Rounds long enough to settle at a pace that technique survives, with rests too short to come down.", _COMMON,
        {"tempo": ("freestyle", "combination"), "work": (180, 240, 300, 360, 480, 600), "rest": (60, 75, 90, 120),
         "rounds": (2, 3, 4, 5, 6, 8)}, _rest_between("freestyle", "rest"), home=("threshold",),
        form_of="threshold-rounds",
    ),
    Family(
        "forty-twenty", "40/20", "gym",
        "Forty seconds of work, twenty on the feet: learning under breath.", _COMMON,
        {"tempo": ("flow", "technique", "combination", "power"), "work": (40,),
         "rounds": (6, 8, 10, 12, 16, 20)},
        _forty_twenty, home=("skill",),
        form_of="forty-twenty",
    ),
    Family(
        "short-intervals", "Short on, short off", "track",
        "As long on as off, brisk: minutes near the top of uptake without the legs filling up.",
        "Buchheit and Laursen 2013, from memory",
        {"tempo": ("combination", "power"), "work": (15, 20, 30, 45, 60), "rounds": (6, 8, 10, 12, 16, 20),
         "sets": (1, 2, 3)}, _short_intervals, home=("aerobic-power",),
    ),
    Family(
        "long-intervals", "Long intervals", "track",
        "Two to four minutes brisk, so that uptake climbs to its top and stays there.",
        "Buchheit and Laursen 2013, from memory",
        {"work": (120, 180, 240), "rest": (60, 120, 180), "rounds": tuple(range(3, 9))},
        _rest_between("combination", "recover"), home=("aerobic-power",),
    ),
    Family(
        "bursts-in-a-round", "Bursts in a round", "ring",
        "Easy work with a burst of ten seconds, again and again: the ebb and flow of a bout.", _COMMON,
        {"burst": ("speed", "all-out"), "easy": (10, 20, 35, 50), "rounds": _ROUNDS, "rest": (45, 60, 90)},
        _bursts_in_a_round,
        form_of="bursts",
    ),
    Family(
        "two-on-two-off", "2-on / 2-off", "gym",
        "Two minutes on the bag, one in each stance, then two off it: half the class on half the bags.", _COMMON,
        {"tempo": ("flow", "technique", "combination"), "off": ("flow", "combination"), "rounds": _ROUNDS},
        _two_on_two_off, needs=frozenset({"skip"}), home=("aerobic-base",),
        form_of="two-on-two-off",
    ),
    Family(
        "rep-rounds", "Rep rounds", "hall",
        "A count instead of a clock: the same volume each time, and nobody is hurried.", _COMMON,
        {"tempo": ("technique", "flow", "combination", "speed"), "reps": (25, 50, 75, 100), "rounds": _ROUNDS,
         "rest": (30, 45, 60)}, _rep_rounds,
        form_of="rep-rounds",
    ),
    Family(
        "circuit", "Minimal-rest circuit", "gym",
        "Five stations of a minute, hardly any rest: the muscles change, so the heart stays up.", _COMMON,
        {"tempo": ("flow", "technique", "combination", "power"), "last": ("technique", "combination"),
         "rounds": (1, 2, 3, 4, 5, 6)}, _circuit,
        form_of="minimal-rest-circuit",
    ),
    Family(
        "skill-rounds", "Skill rounds", "hall",
        "Clean work with time between, and rest before anything tires.", _COMMON,
        {"work": (120, 180), "rest": (60, 90), "rounds": tuple(range(3, 15))}, _rest_between("technique", "rest"),
        home=("skill",),
    ),
    Family(
        "bout-rounds", "The bout's rounds", "ring",
        "The rounds and rests of the rule set, opened fast, settled, and finished hard.",
        "rule sets, from memory: check your federation's",
        {"settled": ("technique", "freestyle", "combination"), "more": (0, 1, 2)}, _fight_rounds,
        home=("fight-rehearsal",),
        form_of="fight-rounds",
    ),
    Family(
        "flow-base", "Flow", "track",
        "One long stretch that could be kept up while talking.", _COMMON,
        {"minutes": tuple(range(4, 61, 2))}, _flow, home=("aerobic-base",),
    ),
)  # fmt: skip

NEEDED_KIT: tuple[str, ...] = tuple(sorted(frozenset[str]().union(*(family.needs for family in FAMILIES))))
"""Modalities that some family cannot do without."""
