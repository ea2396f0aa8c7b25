"""What is said of a class: whether the gear is shared well, what the purpose loses by it, and what would mend that."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from statistics import fmean

from yoisho.classes.asked import Asked
from yoisho.classes.board import COACH, kind_of
from yoisho.classes.made import Made, Share, hard_s, make, sketch
from yoisho.classes.schools import SCHOOLS
from yoisho.design.tradeoffs import stands_out
from yoisho.engine.readout import try_reading
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import judge
from yoisho.plain import sentence
from yoisho.rotation.group import ClassError
from yoisho.session.clock import clock
from yoisho.session.interval import SessionError

MOST_BAGS_MORE, MOST_PADS_MORE = 3, 2
MINUTES_MORE = (2, 4, 6, 8, 10)
LEAST_LOST = 0.15
"""Of the hard work that was designed; less is not worth a word. Own setting."""
NUMBERS = ("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve")


def number(count: int) -> str:
    return NUMBERS[count] if 0 <= count < len(NUMBERS) else str(count)


@dataclass(frozen=True)
class Sharing:
    """How the gear is shared, in strokes of five."""

    strokes: int
    word: str
    sentence: str


_CALLED = {"bag": "on a bag", "pads": "on pads", "floor": "on the floor", COACH: "with the coach"}


def _turns_said(made: Made) -> str:
    """How many turns everybody has at each kind: "3 on a bag, 2 on pads", or from least to most."""
    here = [share for share in made.shares if any(station != "away" for station in share.row)]
    fully = made.plan.group.alike
    alike = [share for share, each in zip(made.shares, made.asked.people, strict=True) if each.name in fully]
    told = alike or here
    kinds = dict.fromkeys(kind for share in told for kind in share.turns if kind not in ("wait", "away"))
    off = [kind for kind in kinds if kind not in _CALLED]
    said = []
    for kind in (*(kind for kind in _CALLED if kind in kinds), *(("",) if off else ())):
        counts = [share.turns.get(kind, 0) if kind else sum(share.turns.get(each, 0) for each in off) for share in told]
        least, most = min(counts), max(counts)
        few = number(least) if least else "none"
        turn = few if least == most else f"{few} or {number(most)}"
        said.append(f"{turn} {_CALLED.get(kind, 'off the bag')}")
    return ", ".join(said[:-1]) + (" and " if len(said) > 1 else "") + said[-1] if said else "nothing"


def sharing(made: Made) -> Sharing:
    against = made.rotation.against
    waves = made.plan.group.waves
    present = sum(station != "away" for share in made.shares for station in share.row)
    waited = against.waiting / max(1, present)
    count = len(made.ranked)
    turns = f"{number(waves).capitalize()} wave{'s' * (waves > 1)} give {_each(count)} {_turns_said(made)}"
    if against.waiting:
        strokes = 3 if waited <= 0.1 else 2 if waited <= 0.25 else 1
        often = "once" if against.waiting == 1 else f"{against.waiting} times"
        why = " ".join(clash.sentence for clash in made.rotation.clash)
        return Sharing(strokes, "Somebody waits", f"{turns}; {often} somebody has no place. {why}".strip())
    if against.uneven or against.holding:
        return Sharing(4, "Nobody waits", f"{turns}; turns are not quite equal.")
    twice = ", now and then the same twice running" if against.again else ", never the same twice running"
    return Sharing(5, "Nobody waits", f"{turns}{twice if len(_kinds(made)) > 1 else ''}.")


def _each(count: int) -> str:
    return "the one who comes" if count == 1 else f"all {count}"


def _kinds(made: Made) -> set[str]:
    return {kind_of(station) for share in made.shares for station in share.row} - {"wait", "away"}


@dataclass(frozen=True)
class Short:
    """What the purpose loses on this gear, and what would keep it; None where nothing would."""

    sentence: str
    cure: str | None


def _strokes(made: Made) -> tuple[int, int]:
    """Strokes of the middle of the group for what is asked, and seconds of hard work."""
    place, who = made.middle
    reading = try_reading(who, made.of(place))
    return (judge(reading, made.target).strokes, hard_s(reading.timeline)) if reading else (0, 0)


def _more(asked: Asked) -> Iterator[list[tuple[str, Asked]]]:
    """What else there could be, kind by kind, the least of each first, in words."""
    plain = asked.without_what_is_put()
    if asked.school != "beat":
        yield [
            (f"{number(count)} more bag{'s' * (count > 1)}", replace(plain, bags=asked.bags + count))
            for count in range(1, MOST_BAGS_MORE + 1)
        ]
    if asked.school not in ("beat", "pairs"):
        yield [
            (f"{number(count)} more pair{'s' * (count > 1)} of pads", replace(plain, pad_pairs=asked.pad_pairs + count))
            for count in range(1, MOST_PADS_MORE + 1)
        ]
    yield [
        (f"{number(count)} minutes more", replace(plain, minutes=asked.minutes + count, waves=None))
        for count in MINUTES_MORE
    ]


def _least(choices: list[tuple[str, Asked]], goal: int) -> str | None:
    """The least of a kind that would do, in words; None where none of it would."""
    for words, other in choices:
        try:
            tried = sketch(other)
        except (ClassError, SessionError):
            continue
        if _strokes(tried)[0] >= goal and not tried.rotation.against.waiting:
            return words
    return None


def short(made: Made) -> Short | None:
    """Where the middle of the group does not get what was designed: by how much, and what would give it them."""
    if made.asked.target is None:
        return None
    whole = made.designed_for
    if whole is None:
        return None
    wanted, had = judge(whole, made.target).strokes, hard_s(whole.timeline)
    strokes, hard = _strokes(made)
    lost = 1 - hard / had if had else 0.0
    if strokes >= wanted and (strokes >= 4 or lost <= LEAST_LOST):
        return None
    name = TARGETS[made.target].name
    said = f"The middle of the group gets {clock(hard)} of hard work"
    said += f" of the {clock(had)} that was designed" if hard < had else ""
    aim = f": {strokes} of 5 for {name}" + (f" in place of {wanted}." if strokes < wanted else ".")
    goal = max(4, wanted)
    helped = [words for choices in _more(made.asked) if (words := _least(choices, goal)) is not None]
    if not helped:
        return Short(said + aim, None)
    return Short(said + aim, f"{' or '.join(helped).capitalize()} would keep it.")


SIDES_WITHIN = 0.08


def tradeoffs(several: Sequence[Made]) -> list[str]:
    """Of each class beside the others what it costs and gains, in words; at most three things."""
    waits = [made.rotation.against.waiting for made in several]
    sides: list[tuple[list[float], Callable[[float], str], str, str]] = [
        (_means(several, lambda share: share.work_s), _clock, "The most work, {} each.", "The least work, {} each."),
        (_means(several, lambda share: share.strikes), _about, "The most strikes, about {} each.",
         "The fewest strikes, about {} each."),
        (_means(several, lambda share: share.load), _about, "The heaviest load, {}.", "The lightest load, {}."),
        (_means(several, lambda share: share.idle_s), _clock, "The most standing about, {} each.",
         "Hardly any standing about, {} each."),
    ]  # fmt: skip
    found = []
    for at, made in enumerate(several):
        said = [f"Somebody stands {waits[at]} time{'s' * (waits[at] > 1)}."] if waits[at] else []
        for values, say, most, least in sides:
            for template, low in ((most, False), (least, True)):
                if len(values) > 1 and stands_out(values, at, SIDES_WITHIN, low=low):
                    said.append(template.format(say(values[at])))
        found.append(" ".join(said[:3]) or SCHOOLS[made.asked.school].reason)
    return found


def _means(several: Sequence[Made], of: Callable[[Share], float]) -> list[float]:
    return [fmean(of(share) for share in made.shares) for made in several]


def _clock(seconds: float) -> str:
    return clock(round(seconds))


def _about(count: float) -> str:
    return f"{count:.0f}" if count < 100 else f"{round(count / 10) * 10:.0f}"


# What if


@dataclass(frozen=True)
class WhatIf:
    name: str
    effect: str
    asked: Asked
    made: Made | None
    """None where it cannot be; the effect says why."""


MORE_COME = 2
MOST_SOLVED = 24
MINUTES_LESS = 5


def _said_of(made: Made, before: Made) -> str:
    waves, was = made.plan.group.waves, before.plan.group.waves
    total = clock(made.timeline.total_s)
    said = [f"{number(waves)} wave{'s' * (waves > 1)}, {total}"]
    wait = made.rotation.against.waiting
    if wait:
        said.append(f"somebody waits {'once' if wait == 1 else f'{wait} times'}")
    elif before.rotation.against.waiting:
        said.append("nobody waits any more")
    else:
        said.append("still nobody waits")
    bag_before, bag = _bag_turns(before), _bag_turns(made)
    if bag != bag_before and bag[1]:
        said.append(f"{number(bag[0])} or {number(bag[1])} bag turns each" if bag[0] != bag[1]
                    else f"{number(bag[0])} bag turn{'s' * (bag[0] != 1)} each")  # fmt: skip
    if waves == was and made.timeline.total_s == before.timeline.total_s and not wait and bag == bag_before:
        return said[1] + ", the same turns for all" if len(said) > 1 else said[0]
    return ", ".join(said)


def _bag_turns(made: Made) -> tuple[int, int]:
    counts = [share.turns.get("bag", 0) for place, share in enumerate(made.shares) if place in made.ranked]
    return (min(counts), max(counts)) if counts else (0, 0)


def _others(asked: Asked, named: Sequence[str]) -> Iterator[tuple[str, Asked]]:
    plain = asked.without_what_is_put()
    names = iter(named)
    typical = asked.people[len(asked.people) // 2]
    more = tuple(replace(typical, name=next(names), barred=(), easy=False, spoken=()) for _ in range(MORE_COME))
    yield "Two more come", replace(plain, people=(*asked.people, *more))
    if asked.bags and asked.school != "beat":
        yield "A bag comes down", replace(plain, bags=asked.bags - 1)
    shorter = asked.minutes - MINUTES_LESS
    if shorter >= 10:
        yield f"Only {shorter} minutes", replace(plain, minutes=shorter, waves=None)
    if asked.school != "beat" and not asked.coach_holds:
        yield "The coach has to hold", replace(plain, coach_holds=True)


def fresh_names(asked: Asked, count: int) -> list[str]:
    """Names for people of whom nothing is known, none of which is there."""
    there = {each.name for each in asked.people}
    return [name for name in (f"Guest {at}" for at in range(1, len(there) + count + 1)) if name not in there][:count]


def what_ifs(made: Made) -> Iterator[WhatIf]:
    """What might change on the day, each solved ahead."""
    for name, asked in _others(made.asked, fresh_names(made.asked, MORE_COME)):
        try:
            # Of so many a solver would take too long to wait for: what is constructed holds too.
            found = make(asked) if len(asked.people) <= MOST_SOLVED else sketch(asked)
        except (ClassError, SessionError) as error:
            yield WhatIf(name, sentence(error), asked, None)
        else:
            yield WhatIf(name, _said_of(found, made).capitalize(), asked, found)
