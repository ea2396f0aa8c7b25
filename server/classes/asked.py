"""What is asked of a class, as the core has it: people of the roster with what holds for them, others as anybody."""

from collections.abc import Sequence
from typing import Any

from server.accounts.models import Club
from server.bench.circumstances import circumstances_for
from server.classes.schemas import ClassAskedIn, ComerIn
from server.errors import FieldError
from server.roster.api import core_of
from server.roster.models import Person
from yoisho.classes.asked import Asked, Comer, Spoken
from yoisho.design.propose import against_any
from yoisho.engine.person import Person as CorePerson
from yoisho.judgement.cautions import SEALS
from yoisho.judgement.circumstances import SCREENING_SAYS, Circumstances
from yoisho.plain import sentence
from yoisho.rotation.group import ClassError, Not
from yoisho.session import shorthand
from yoisho.session.interval import SessionError
from yoisho.session.tree import Node
from yoisho.strikes.combination import Combination, CombinationError
from yoisho.strikes.line import LineError
from yoisho.strikes.notation import read as read_combination

NO_HOLDING, NOT_HARD = "no-holding", frozenset({"no-power", "heart-rate", "breaks"})
FIELDS = {"from_wave": "people", "absent_after": "people", "pins": "put", "limits": "people"}
"""Where the API says otherwise than the core what is at fault."""


def fault(error: ClassError | SessionError, *within: str | int) -> FieldError:
    """What the core refuses, at its place in what was asked."""
    field = getattr(error, "field", None) or "people"
    return FieldError(["body", *within, FIELDS.get(field, field)], sentence(error), "class")


def of_roster(club: Club, asked: ClassAskedIn) -> dict[int, Person]:
    """Those who are asked for by their id. An id that is none of the club's is a 422."""
    ids = {each.person_id for each in asked.people if each.person_id is not None}
    found = {who.pk: who for who in Person.objects.of(club).filter(pk__in=ids).prefetch_related("limits")}
    for number, each in enumerate(asked.people):
        if each.person_id is not None and each.person_id not in found:
            where: list[str | int] = ["body", "asked", "people", number, "person_id"]
            raise FieldError(
                where, f"{each.name} is not in your roster any more. Take them out of the class.", "person"
            )
    return found


def names_of(people: Sequence[ComerIn]) -> dict[str, str]:
    """Of each the name, told apart where two have the same."""
    found: dict[str, str] = {}
    taken: dict[str, int] = {}
    for each in people:
        name = " ".join(each.name.split()) or "Somebody"
        taken[name] = taken.get(name, 0) + 1
        found[each.uid] = name if taken[name] == 1 else f"{name} ({taken[name]})"
    return found


def _spoken(core: CorePerson, around: Circumstances) -> tuple[tuple[Not, ...], bool, list[Spoken]]:
    """What somebody does not do, whether they must not go hard, and what is said of them."""
    said = [Spoken(each.seal, f"{each.text} {each.cure}") for each in against_any(core, around)]
    easy, barred = bool(said), list[Not]()
    if around.screening is None or around.screening.outcome != "clear":
        easy = True
        why = "No health form yet." if around.screening is None else SCREENING_SAYS[around.screening.outcome]
        if not said:
            said.append(Spoken(SEALS["screening"], f"{why} Easy work only, nothing hard."))
    for limit in around.limits:
        until = f" until {limit.until:%Y-%m-%d}" if limit.until else ""
        words = f"{limit.words.capitalize()}{until}."
        if limit.kind == NO_HOLDING:
            barred.append("hold")
            said.append(Spoken("Hold", f"{words} The coach holds in their place."))
        elif limit.kind in NOT_HARD:
            easy = True
            said.append(Spoken(SEALS["limit"], f"{words} Easy work only."))
        else:
            said.append(Spoken(SEALS["limit"], words))
    return tuple(barred), easy, said


def _pattern(text: str, school: str) -> Node:
    try:
        return shorthand.read(text, school, "power")
    except (shorthand.ShorthandError, LineError) as error:
        raise FieldError(["body", "asked", "pattern"], str(error), "shorthand") from error
    except SessionError as error:
        raise FieldError(["body", "asked", "pattern"], sentence(error), "shorthand") from error


def _combination(text: str, school: str) -> Combination | None:
    if not text.strip():
        return None
    try:
        return read_combination(text.strip().strip("[]"), school)
    except (LineError, CombinationError) as error:
        raise FieldError(["body", "asked", "combination"], str(error), "combination") from error


def _known_uids(asked: ClassAskedIn) -> None:
    uids = [each.uid for each in asked.people]
    if len(set(uids)) < len(uids):
        raise FieldError(["body", "asked", "people"], "Somebody stands twice in this class. Reload it.", "class")
    told: list[tuple[str, list[str]]] = [
        ("together", [uid for pair in asked.together for uid in (pair.one, pair.other)]),
        ("put", [each.uid for each in asked.put]),
    ]
    for name, named in told:
        if gone := set(named) - set(uids):
            raise FieldError(["body", "asked", name], f"Nobody here is known as '{min(gone)}'. Reload it.", "class")


_AS_ASKED = ("minutes", "target", "school", "bags", "pad_pairs", "floor", "warm_up_min", "cool_down_min", "waves",
             "rounds", "change_s", "floor_does", "coach_holds", "beats")  # fmt: skip
"""What the core is told as it was asked."""


def core_class(club: Club, asked: ClassAskedIn) -> Asked:
    """The class as the core has it. What cannot be is a 422 at its place."""
    _known_uids(asked)
    roster = of_roster(club, asked)
    around = circumstances_for(club, list(roster.values()), None)
    names = names_of(asked.people)
    comers = []
    for each in asked.people:
        who = roster.get(each.person_id or 0)
        core = core_of(who)
        barred, easy, said = _spoken(core, around[who.pk]) if who else ((), False, [])
        both = tuple(dict.fromkeys((*barred, *each.barred)))
        comers.append(Comer(names[each.uid], core, both, easy or each.easy, tuple(said)))
    told: dict[str, Any] = {name: getattr(asked, name) for name in _AS_ASKED}
    try:
        return Asked(
            people=tuple(comers),
            pattern=_pattern(asked.pattern, club.school),
            stations=tuple(asked.stations),
            combination=_combination(asked.combination, club.school),
            together=tuple((names[pair.one], names[pair.other]) for pair in asked.together),
            from_wave={names[each.uid]: each.from_wave for each in asked.people if each.from_wave is not None},
            absent_after={names[each.uid]: each.absent_after for each in asked.people if each.absent_after is not None},
            pins=tuple((names[each.uid], each.wave, each.at) for each in asked.put),
            **told,
        )
    except (ClassError, SessionError) as error:
        raise fault(error, "asked") from error
