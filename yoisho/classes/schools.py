"""The schools of a class: how the same people, gear and minutes become waves. Common practice, no source."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from fractions import Fraction
from math import ceil

from yoisho.classes.asked import FLOOR_DOES, Asked, SchoolId, stations_for
from yoisho.classes.board import COACH, Doing
from yoisho.protocols.frames import cool_down, warm_up
from yoisho.rotation.group import MOST_WAVES, ClassError, Group
from yoisho.session.clock import clock
from yoisho.session.document import Part, Session
from yoisho.session.interval import Beat, Interval
from yoisho.session.modality import MODALITIES
from yoisho.session.shorthand import write
from yoisho.session.tree import Node, Repeat, Sequence, duration_s
from yoisho.strikes.combination import Combination
from yoisho.strikes.drill import Drill, one
from yoisho.strikes.notation import read as read_combination

OPEN_COMBINATION = "1-2-3"
"""What is shown and struck to music where no combination is said."""
MOST_EIGHTS = 16
SHOWN_S = 15


@dataclass(frozen=True)
class Designed:
    """A class before anybody is put anywhere."""

    session: Session
    part: int
    group: Group
    doing: tuple[Doing, ...]


@dataclass(frozen=True)
class School:
    id: SchoolId
    name: str
    meaning: str
    reason: str
    wave_s: int
    """About how long a wave is, where no rounds are said."""
    change_s: int
    body: Callable[[Asked], tuple[Node, int]]
    """One round, and how often it comes in a wave where nothing is said."""
    group: Callable[[Asked, int], tuple[Group, tuple[Doing, ...]]]
    """Who can be where, for so many waves."""
    even: bool = False
    """Waves come in twos."""


def round_text(pattern: Node, school: str) -> str:
    """One round as the club writes it: as it stands inside the brackets of a repeat."""
    return write(Repeat(2, pattern), school).split("(", 1)[1].rsplit(")", 1)[0]


def _often(round_s: int, wave_s: int) -> int:
    return max(1, round(wave_s / round_s))


def _round(wave_s: int) -> Callable[[Asked], tuple[Node, int]]:
    return lambda asked: (asked.pattern, _often(duration_s(asked.pattern), wave_s))


def _in_turns(asked: Asked) -> tuple[Node, int]:
    """The work of the pattern by one, then by the other: what was rest is the partner's turn."""
    work = [each for each in flat(asked.pattern) if each.kind == "work" and each.timed]
    if not work:
        raise ClassError("two at a bag take turns by the clock: give work a time", "pattern")
    turns: list[Node] = [replace(each, pairs=True) for each in work]
    found = turns[0] if len(turns) == 1 else Sequence(tuple(turns))
    return found, _often(duration_s(found), 180)


def flat(node: Node) -> list[Interval]:
    """Every interval of a tree, in order, repetitions once."""
    match node:
        case Interval():
            return [node]
        case Sequence():
            return [each for item in node.items for each in flat(item)]
        case Repeat():
            between = [node.between] if node.between else []
            return [*flat(node.body), *between]


def _combination(asked: Asked) -> Combination:
    return asked.combination or read_combination(OPEN_COMBINATION)


def _eights(beats: int) -> int:
    """The fewest eights of the music that are whole seconds together."""
    seconds = Fraction(8 * 60, beats)
    if seconds.denominator > MOST_EIGHTS:
        near = [b for b in range(max(60, beats - 8), beats + 9) if Fraction(480, b).denominator <= MOST_EIGHTS]
        said = ", ".join(str(b) for b in sorted(near, key=lambda b: abs(b - beats))[:3])
        raise ClassError(f"music of {beats} beats a minute has no eights in whole seconds; take {said}", "beats")
    return seconds.denominator


def _to_music(asked: Asked) -> tuple[Node, int]:
    """Eights on one side, as many on the other; each pair of them adds the next strike."""
    least = _eights(asked.beats)
    count = least * max(1, round(30 / float(least * Fraction(480, asked.beats))))
    seconds = int(count * Fraction(480, asked.beats))
    whole = _combination(asked)
    steps = [Combination((whole.actions[:upto],)) for upto in range(1, len(whole.actions) + 1)]
    sides: list[Node] = []
    for step in steps:
        # All of a strike's sides are mirrored with the lead: as many left as right.
        for lead in ("left", "right"):
            drill: Drill = one(step)
            sides.append(Interval(seconds, "flow", modality="shadow", drill=drill, lead=lead, beat=Beat(asked.beats)))
    return Sequence(tuple(sides)), 1


def _shown_first(asked: Asked) -> tuple[Node, int]:
    """The combination is shown, then done: what a circuit needs before each set."""
    shown = Interval(SHOWN_S, "show", drill=one(_combination(asked)))
    rounds = asked.rounds or _often(duration_s(asked.pattern), 60)
    done = asked.pattern if rounds == 1 else Repeat(rounds, asked.pattern)
    return Sequence((shown, done)), 1


def _off(asked: Asked) -> Doing:
    modality, tempo, _ = FLOOR_DOES[asked.floor_does]
    return Doing("floor", modality, tempo)


def _people(asked: Asked) -> tuple[str, ...]:
    return tuple(each.name for each in asked.people)


def _asked_of(asked: Asked, waves: int) -> dict[str, object]:
    """What of a class holds whatever there is to be at."""
    return dict(
        people=_people(asked), waves=waves,
        limits=tuple((each.name, what) for each in asked.people for what in each.barred if what != "hold"),
        together=asked.together,
        from_wave={who: min(wave, waves) for who, wave in asked.from_wave.items()},
        absent_after={who: wave for who, wave in asked.absent_after.items() if wave < waves},
        pins=tuple(pin for pin in asked.pins if pin[1] <= waves),
    )  # fmt: skip


def _spots(asked: Asked, taken: int) -> int:
    """Floor spots that are wanted: for all whom gear has no place for, and one more for each who may not be at some."""
    barred = sum(bool(each.barred) for each in asked.people)
    pinned = max((sum(1 for _, wave, at in asked.pins if wave == number and at == "floor")
                  for _, number, _ in asked.pins), default=0)  # fmt: skip
    wanted = max(0, len(asked.here) - taken) + barred + len(asked.together)
    return min(max(wanted, pinned), len(asked.here) if asked.floor is None else asked.floor)


def _bags(asked: Asked) -> tuple[str, ...]:
    names = tuple(f"bag {number}" for number in range(1, asked.bags + 1))
    return (*names, COACH) if asked.coach_holds else names


def _with_pads(asked: Asked, waves: int) -> tuple[Group, tuple[Doing, ...]]:
    names = _bags(asked)
    pads = min(asked.pad_pairs, len(asked.here) // 2)
    floor = _spots(asked, len(names) + 2 * pads)
    group = Group(bags=len(names), bag_names=names, pad_pairs=asked.pad_pairs, floor=floor, **_asked_of(asked, waves))  # type: ignore[arg-type]
    return group, (_off(asked),)


def _two_halves(asked: Asked, waves: int) -> tuple[Group, tuple[Doing, ...]]:
    """Half at the gear, half off it; no more gear than half of them needs."""
    half = ceil(len(asked.here) / 2)
    bags = min(asked.bags, half)
    group, _ = _with_pads(replace(asked, bags=bags, pad_pairs=min(asked.pad_pairs, ceil((half - bags) / 2))), waves)
    doing = Doing("floor", "cardio", "flow") if asked.floor_does == "shadow" else _off(asked)
    return group, (doing,)


def _shared(asked: Asked, waves: int) -> tuple[Group, tuple[Doing, ...]]:
    names = tuple(f"bag {number} {side}" for number in range(1, asked.bags + 1) for side in "AB")
    if asked.coach_holds:
        names = (*names, COACH)
    floor = _spots(asked, len(names))
    group = Group(bags=len(names), bag_names=names, floor=floor, **_asked_of(asked, waves))  # type: ignore[arg-type]
    return group, (_off(asked),)


def _round_the_hall(asked: Asked, waves: int) -> tuple[Group, tuple[Doing, ...]]:
    names = _bags(asked)
    pads = min(asked.pad_pairs, len(asked.here) // 2)
    count = _spots(asked, len(names) + 2 * pads)
    stations = [MODALITIES[each] for each in stations_for(asked, count)]
    spots = tuple(each.word for each in stations)
    doing = tuple(Doing(each.word, each.id, each.tempo) for each in dict.fromkeys(stations))
    group = Group(
        bags=len(names), bag_names=names, pad_pairs=asked.pad_pairs, floor=count, spots=spots,
        **_asked_of(asked, waves),  # type: ignore[arg-type]
    )  # fmt: skip
    return group, doing


def _all_on_the_floor(asked: Asked, waves: int) -> tuple[Group, tuple[Doing, ...]]:
    room = len(asked.people) if asked.floor is None else asked.floor
    return Group(floor=room, **_asked_of(replace(asked, together=()), waves)), ()  # type: ignore[arg-type]


SCHOOLS: dict[SchoolId, School] = {
    school.id: school
    for school in (
        School("waves", "Waves", "everybody moves on together from bag to pads to floor",
               "All gear is in use all the time, and everybody has as many turns at it.", 180, 30, _round(180),
               _with_pads),
        School("halves", "Two on, two off", "half at the gear for 2:00, half off it, and back",
               "A clean way to run two halves, with room around each bag.", 120, 15, _round(120), _two_halves,
               even=True),
        School("pairs", "Two at a bag", "one works, the other rests, turn by turn",
               "Twice as many at the gear, and a partner to count.", 180, 30, _in_turns, _shared),
        School("circuit", "Circuit", "short stations round the hall, a combination shown before each",
               "Bags and what is off them in turn: nobody stands, and arms get a rest.", 75, 15, _shown_first,
               _round_the_hall),
        School("beat", "To the beat", "all together on the floor, in eights, both sides alike",
               "It needs no bag, and nobody has to wait for one.", 180, 30, _to_music, _all_on_the_floor),
    )
}  # fmt: skip


def _no_room(asked: Asked, wave_s: int) -> ClassError:
    around = asked.warm_up_min + asked.cool_down_min
    return ClassError(
        f"{asked.minutes} minutes less {around} around them leave no room for a wave of {clock(wave_s)}; take more "
        "minutes, a shorter warm-up or fewer rounds", "minutes"
    )  # fmt: skip


def designed(asked: Asked) -> Designed:
    """The session of a class and who can be where. Raises `ClassError` where it cannot be."""
    if not asked.here:
        raise ClassError("nobody comes to this class; add somebody", "people")
    school = SCHOOLS[asked.school]
    body, often = school.body(asked)
    often = often if asked.rounds is None or asked.school in ("circuit", "beat") else asked.rounds
    wave = body if often == 1 else Repeat(often, body)
    wave_s, change_s = duration_s(wave), school.change_s if asked.change_s is None else asked.change_s
    fit = (asked.main_s + change_s) // (wave_s + change_s)
    waves = asked.waves or min(MOST_WAVES, fit - fit % 2 if school.even and fit > 1 else fit)
    if waves < 1:
        raise _no_room(asked, wave_s)
    group, doing = school.group(asked, waves)
    between = Interval(change_s, "rest") if change_s else None
    main = Part("Waves", Repeat(waves, wave, between), asked.target)
    before = (_prepare(asked),) if asked.warm_up_min else ()
    after = (replace(cool_down(60 * asked.cool_down_min), name="Restore"),) if asked.cool_down_min else ()
    session = Session(SCHOOLS[asked.school].name, (*before, main, *after))
    return Designed(session, len(before), group, doing)


def _prepare(asked: Asked) -> Part:
    """A warm-up of so many minutes; the last of them to get ready, where there is more than one."""
    seconds = 60 * asked.warm_up_min
    if asked.warm_up_min < 3:
        return Part("Prepare", Interval(seconds, "flow", modality="shadow"), "warm-up")
    first_s = (seconds - 60) // 2
    return replace(warm_up(first_s, seconds - 60 - first_s), name="Prepare")
