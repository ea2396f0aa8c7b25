"""The commands of the command line that read JSON files: from files to plain values."""

import argparse
import inspect
import json
from collections.abc import Mapping, Sequence
from dataclasses import asdict
from typing import Any, Literal, get_args, get_origin, get_type_hints

from yoisho.commands import CommandError
from yoisho.engine.field_tests import StrikeTest
from yoisho.engine.person import Person, person
from yoisho.review.calibration import Learnt, calibrate
from yoisho.review.evidence import EvidenceError, Seen, evidence
from yoisho.review.forecasts import scores
from yoisho.session import shorthand
from yoisho.session.timeline import unroll
from yoisho.strikes.line import LineError


def read_json(path: str) -> Any:
    """Raises `CommandError` with the line at fault."""
    try:
        with open(path, encoding="utf-8-sig") as file:
            return json.load(file)
    except json.JSONDecodeError as error:
        raise CommandError(f"{path}, line {error.lineno}: this is not JSON: {error.msg}") from None
    except (OSError, UnicodeDecodeError) as error:
        raise CommandError(f"{path} cannot be read: {error}") from None


def is_number(value: Any) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool) and abs(value) < 1e12


def number(value: Any, where: str, low: float = 0.0, high: float = 1e9) -> float:
    if not is_number(value) or not low <= value <= high:
        raise CommandError(f"{where}: a number from {low:g} to {high:g} is wanted, not {json.dumps(value)}")
    return float(value)


def an_object(value: Any, where: str, keys: Sequence[str], needed: Sequence[str] = ()) -> Mapping[str, Any]:
    """A JSON object with no keys but these."""
    if not isinstance(value, dict):
        raise CommandError(f"{where}: an object such as {{}} is wanted, not {json.dumps(value)[:60]}")
    if unknown := [key for key in value if key not in keys]:
        raise CommandError(f"{where}: there is no '{unknown[0]}'; there are {', '.join(keys)}")
    if missing := [key for key in needed if key not in value]:
        raise CommandError(f"{where}: '{missing[0]}' is missing")
    return value


def a_list(value: Any, where: str) -> list[Any]:
    if not isinstance(value, list):
        raise CommandError(f"{where}: a list such as [] is wanted, not {json.dumps(value)[:60]}")
    return value


def read_person(path: str) -> Person:
    """The keyword arguments of `person()`, as an object; a strike test as its eight counts."""
    return a_person(read_json(path), path)


def a_person(told: Any, whose: str) -> Person:
    hints = get_type_hints(person)
    told = dict(an_object(told, whose, list(inspect.signature(person).parameters)))
    for key, value in told.items():
        where, kinds = f"{whose}, {key}", _kinds(hints[key])
        if key == "strike_test" and value is not None:
            told[key] = _strike_test(value, where)
        elif (isinstance(value, bool) and bool not in kinds) or not isinstance(value, bool | int | float | str | None):
            raise CommandError(f"{where}: {json.dumps(value)} cannot be")
        elif choices := [choice for choice in kinds if isinstance(choice, str)]:
            if value not in kinds:
                raise CommandError(f"{where}: one of {', '.join(choices)} is wanted, not {json.dumps(value)}")
        elif float in kinds and value is not None and not is_number(value):
            raise CommandError(f"{where}: a number is wanted, not {json.dumps(value)}")
    return person(**told)


def _strike_test(value: Any, where: str) -> StrikeTest:
    if isinstance(value, dict):
        told = an_object(value, where, _COUNTS, needed=_COUNTS)
        value = [told["ten_s"], told["thirty_s"], *a_list(told["splits"], where)]
    counts = [int(number(each, where)) for each in a_list(value, where)]
    if len(counts) != 8:
        raise CommandError(f"{where}: eight counts are wanted: 10 s, 30 s, and each of the six 30 s of 3:00")
    return StrikeTest(counts[0], counts[1], tuple(counts[2:]))


def _kinds(hint: Any) -> list[Any]:
    """What a hint allows: types, the words of a literal, and None."""
    if get_origin(hint) is Literal:
        return list(get_args(hint))
    return [kind for part in get_args(hint) for kind in _kinds(part)] or [None if hint is type(None) else hint]


_COUNTS = ("ten_s", "thirty_s", "splits")
_LOG = ("text", "done_frac", "rpe", "strikes", "heart", "days_ago")


def _seen(who: Person, told: Any, where: str) -> Seen:
    log = an_object(told, where, _LOG, needed=("text",))
    if not isinstance(log["text"], str):
        raise CommandError(f"{where}, text: a line of shorthand is wanted, such as '{shorthand.EXAMPLE}'")
    try:
        timeline = unroll(shorthand.read(log["text"]))
    except LineError as error:
        raise CommandError(f"{where}, text, character {error.position + 1}: {error.message}") from None
    strikes = a_list(log.get("strikes") or [], f"{where}, strikes")
    heart = a_list(log.get("heart") or [], f"{where}, heart")
    if any(not isinstance(pair, list) or len(pair) != 2 for pair in heart):
        raise CommandError(f"{where}, heart: pairs of second and bpm are wanted, such as [[0, 92], [1, 93]]")
    seen = Seen(
        timeline,
        done_frac=number(log.get("done_frac", 1.0), f"{where}, done_frac", 0, 1),
        rpe=None if log.get("rpe") is None else number(log["rpe"], f"{where}, rpe", 0, 10),
        strikes=tuple(None if each is None else number(each, f"{where}, strikes") for each in strikes),
        heart=tuple((number(at, f"{where}, heart"), number(bpm, f"{where}, heart", 20, 250)) for at, bpm in heart),
        days_ago=number(log.get("days_ago", 0), f"{where}, days_ago"),
    )
    try:
        evidence(who, seen)
    except EvidenceError as error:
        raise CommandError(f"{where}: {error}") from None
    return seen


_RANGE = ("value", "low", "high")


def _learnt(found: Sequence[Learnt]) -> dict[str, Any]:
    return {
        each.id.replace(" ", "_"): {key: round(value, 4) for key, value in asdict(each).items() if key in _RANGE}
        for each in found
    }


def calibrate_command(options: argparse.Namespace) -> dict[str, Any]:
    who = read_person(options.person)
    logs = a_list(read_json(options.logs), options.logs)
    seen = [_seen(who, log, f"{options.logs}, log {place}") for place, log in enumerate(logs, 1)]
    found = calibrate(who, seen)
    return {
        "logs": found.logs,
        "before": _learnt(found.before),
        "after": _learnt(found.after),
        "effective_draws": round(found.effective_draws, 1),
        "forecast_before": {kind: asdict(score) for kind, score in scores(who, seen).items()},
        "forecast_after": {kind: asdict(score) for kind, score in scores(found.person, seen).items()},
    }
