"""The command that solves who is where in a class: from a JSON file to plain values."""

import argparse
import json
from collections.abc import Mapping
from typing import Any

from yoisho.commands import CommandError
from yoisho.file_commands import a_list, an_object, read_json
from yoisho.rotation.group import Group
from yoisho.rotation.score import turns

_CLASS = ("people", "bags", "pad_pairs", "floor", "waves", "limits", "together", "absent_after", "from_wave", "pins")


def _people(value: Any, where: str) -> tuple[str, ...]:
    """Names as they are; of a number, so many called by it."""
    if isinstance(value, int) and not isinstance(value, bool):
        return tuple(f"person {number}" for number in range(1, min(value, 1000) + 1))
    names = a_list(value, where)
    for name in names:
        if not isinstance(name, str) or not name.strip():
            raise CommandError(f"{where}: names are wanted, or a number of people, not {json.dumps(name)}")
    return tuple(names)


def _who(value: Any, people: tuple[str, ...], where: str) -> str:
    """A name, or the number of a person, from 1."""
    if isinstance(value, int) and not isinstance(value, bool) and 1 <= value <= len(people):
        return people[value - 1]
    if not isinstance(value, str):
        raise CommandError(f"{where}: the name of a person is wanted, not {json.dumps(value)}")
    return value


def _by_person(value: Any, people: tuple[str, ...], where: str) -> Mapping[str, int]:
    if not isinstance(value, dict):
        raise CommandError(f'{where}: an object such as {{"{people[0] if people else "Ada"}": 3}} is wanted')
    return {_who(int(who) if who.isdigit() and who not in people else who, people, where): wave
            for who, wave in value.items()}  # fmt: skip


def read_class(told: Mapping[str, Any], where: str) -> Group:
    """A class from plain values. Raises `CommandError` where they are of the wrong kind, `ClassError` where it cannot
    be."""
    people = _people(told["people"], f"{where}, people")
    limits = []
    for place, each in enumerate(a_list(told.get("limits") or [], f"{where}, limits"), 1):
        at = f"{where}, limits, {place}"
        limit = an_object(each, at, ("person", "not"), needed=("person", "not"))
        limits.append((_who(limit["person"], people, f"{at}, person"), limit["not"]))
    together = []
    for place, each in enumerate(a_list(told.get("together") or [], f"{where}, together"), 1):
        pair = a_list(each, f"{where}, together, {place}")
        together.append(tuple(_who(who, people, f"{where}, together, {place}") for who in pair))
    pins = []
    for place, each in enumerate(a_list(told.get("pins") or [], f"{where}, pins"), 1):
        at = f"{where}, pins, {place}"
        pin = an_object(each, at, ("person", "wave", "at"), needed=("person", "wave", "at"))
        pins.append((_who(pin["person"], people, f"{at}, person"), pin["wave"], str(pin["at"])))
    return Group(
        people, told["waves"], told.get("bags", 0), told.get("pad_pairs", 0), told.get("floor", 0), tuple(limits),
        tuple(together),  # type: ignore[arg-type]
        _by_person(told.get("from_wave") or {}, people, f"{where}, from_wave"),
        _by_person(told.get("absent_after") or {}, people, f"{where}, absent_after"),
        tuple(pins),
    )  # fmt: skip


def rotation_command(options: argparse.Namespace) -> dict[str, Any]:
    # The solver takes half a second to load: other commands do without.
    from yoisho.rotation.solve import solve

    told = an_object(read_json(options.group), options.group, _CLASS, needed=("people", "waves"))
    group = read_class(told, options.group)
    found = solve(group)
    return {
        "status": found.status,
        "bound_gap": found.bound_gap,
        "waiting": found.against.waiting,
        "people": list(group.people),
        "rows": [found.rows[who] for who in group.people],
        "turns": [turns(found.kinds[who]) for who in group.people],
        "clash": [each.what for each in found.clash],
        "clash_sentences": [each.sentence for each in found.clash],
    }
