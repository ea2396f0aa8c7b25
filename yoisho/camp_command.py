"""The command that solves a camp: from a JSON file to plain values."""

import argparse
from collections.abc import Mapping
from dataclasses import fields
from datetime import date
from typing import Any

from yoisho.camp.camp import WEEKDAYS, Camp, Fixed, Weekday
from yoisho.camp.ladders import choices, text_of
from yoisho.camp.plan import Placed, Plan, limbs, load
from yoisho.camp.rules import ceilings, ruled
from yoisho.commands import CommandError
from yoisho.engine.person import person
from yoisho.file_commands import a_list, a_person, an_object, number, read_json

_CAMP = (*(field.name for field in fields(Camp) if field.name != "first_weekday"), "person")
_FIXED = ("purpose", "on", "weekday", "every_weeks")


def _day(value: Any, where: str) -> date:
    try:
        return date.fromisoformat(value)
    except (TypeError, ValueError):
        raise CommandError(f'{where}: a date such as "2027-03-20" is wanted, not {value!r}') from None


def _word(value: Any, where: str) -> str:
    if not isinstance(value, str):
        raise CommandError(f"{where}: a word is wanted, not {value!r}")
    return value


def _count(value: Any, where: str) -> int:
    if isinstance(value, bool) or not isinstance(value, int):
        raise CommandError(f"{where}: a whole number is wanted, not {value!r}")
    return value


def _fixed(value: Any, where: str) -> Fixed:
    told = an_object(value, where, _FIXED, needed=("purpose",))
    return Fixed(
        _word(told["purpose"], f"{where}, purpose"),
        on=_day(told["on"], f"{where}, on") if told.get("on") is not None else None,
        weekday=_weekday(told["weekday"], f"{where}, weekday") if told.get("weekday") is not None else None,
        every_weeks=_count(told.get("every_weeks", 1), f"{where}, every_weeks"),
    )


def _weekday(value: Any, where: str) -> Weekday:
    for day in WEEKDAYS:
        if value == day:
            return day
    raise CommandError(f"{where}: one of {', '.join(WEEKDAYS)} is wanted, not {value!r}")


def _minutes(value: Any, where: str) -> Mapping[Weekday, int]:
    """The minutes of every day, or of each by name."""
    if isinstance(value, dict):
        return {_weekday(day, where): _count(each, f"{where}, {day}") for day, each in value.items()}
    return dict.fromkeys(WEEKDAYS, _count(value, where))


def read_camp(told: Mapping[str, Any], where: str) -> Camp:
    """A camp from plain values. Raises `CommandError` where they are of the wrong kind, `CampError` where it cannot
    be."""
    asked: dict[str, Any] = {}
    for key, value in told.items():
        at = f"{where}, {key}"
        if key == "person" or (value is None and key in ("bout_on", "weeks", "rule_set")):
            continue
        if key in ("start", "bout_on"):
            asked[key] = _day(value, at)
        elif key == "rule_set":
            asked[key] = _word(value, at)
        elif key == "days":
            asked[key] = tuple(dict.fromkeys(_weekday(each, at) for each in a_list(value, at)))
        elif key == "minutes":
            asked[key] = _minutes(value, at)
        elif key == "weights":
            if not isinstance(value, dict):
                raise CommandError(f'{at}: an object such as {{"threshold": 2}} is wanted')
            asked[key] = {purpose: number(each, f"{at}, {purpose}", 0, 1e6) for purpose, each in value.items()}
        elif key == "fixed":
            asked[key] = tuple(_fixed(each, f"{at}, {place}") for place, each in enumerate(a_list(value, at), 1))
        elif key == "most_climb":
            asked[key] = number(value, at, 0, 1e6)
        else:
            asked[key] = _count(value, at)
    return Camp(**asked)


def _placed(each: Placed, text: str, words: str) -> dict[str, Any]:
    return {
        "on": each.on.isoformat(), "purpose": each.purpose, "text": text, "load": each.cost.load, "knob": words,
        "step": each.step, "size": each.size, "minutes": round(each.cost.total_s / 60), "rpe": each.cost.rpe,
        "lactic": each.cost.lactic, "hard": each.cost.hard, "strikes": each.cost.limbs, "landed": each.cost.landed,
    }  # fmt: skip


def camp_command(options: argparse.Namespace) -> dict[str, Any]:
    # The solver takes half a second to load: other commands do without.
    from yoisho.camp.model import Ask
    from yoisho.camp.solve import solve

    told = an_object(read_json(options.camp), options.camp, _CAMP, needed=("start",))
    camp = read_camp(told, options.camp)
    given = told.get("person") or {}
    who = a_person({"rule_set": camp.rule_set, **given}, f"{options.camp}, person") if given else person()
    held_by = ceilings(who.level)
    found = choices(camp, who)
    solved = solve(Ask(camp, found, held_by))
    plan = solved.plan or Plan(())
    ladders = found.ladders
    placed = []
    for each in plan.placed:
        assert each.step is not None
        step = ladders[each.purpose].steps[each.step]
        placed.append(_placed(each, text_of(step.sessions[each.size]), step.words))
    return {
        "status": solved.status,
        "bound_gap": solved.bound_gap,
        "clash": [each.rule for each in solved.clash],
        "clash_sentences": [" ".join((each.sentence, *each.said)) for each in solved.clash],
        "days": placed,
        "weeks": [
            {
                "number": week.number, "first": week.first.isoformat(), "last": week.last.isoformat(),
                "phase": week.phase, "load": load(plan.of(week)), "strikes": limbs(plan.of(week)),
            }
            for week in camp.calendar
        ],
        "rules": [
            {"id": each.rule.id, "hard": each.rule.hard, "held": each.held, "source": each.rule.source,
             "sentence": each.breaches[0].text if each.breaches else each.sentence}
            for each in ruled(camp, plan, held_by)
        ] if solved.plan else [],
        "without": found.without,
    }  # fmt: skip
