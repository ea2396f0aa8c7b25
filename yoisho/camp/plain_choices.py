"""What stands to choose from as plain values and back: it is simulated once, and kept."""

from typing import Any

import msgspec

from yoisho.camp.ladders import Choices, Ladder, Step
from yoisho.camp.plan import SIZES, Cost, Size
from yoisho.session.document import Session, from_document, to_document


def cost_to_plain(cost: Cost) -> dict[str, Any]:
    found: dict[str, Any] = msgspec.to_builtins(cost)
    return found


def cost_from_plain(value: Any) -> Cost:
    return msgspec.convert(value, Cost)


OWN = ("name", "knob", "words", "rounds", "round_s", "rest_s")


def _step_to_plain(step: Step) -> dict[str, Any]:
    costs = {size: cost_to_plain(cost) for size, cost in step.costs.items()}
    return {**{name: getattr(step, name) for name in OWN}, "costs": costs}


def _step_from_plain(value: dict[str, Any], sessions: dict[str, Any]) -> Step:
    read: dict[Size, Session] = {size: from_document(sessions[size]) for size in SIZES if size in sessions}
    costs = {size: cost_from_plain(value["costs"][size]) for size in SIZES}
    return Step(**{**value, "costs": costs}, sessions=read)


def to_plain(choices: Choices) -> dict[str, Any]:
    """What stands to choose from and what it costs. Its sessions are much larger, and seldom asked for."""
    return {
        "ladders": {
            purpose: {"name": each.name, "steps": [_step_to_plain(step) for step in each.steps]}
            for purpose, each in choices.ladders.items()
        },
        "without": choices.without,
    }


def sessions_to_plain(choices: Choices) -> dict[str, Any]:
    """The sessions of every step, by purpose and size."""
    return {
        purpose: [{size: to_document(session) for size, session in step.sessions.items()} for step in each.steps]
        for purpose, each in choices.ladders.items()
    }


def from_plain(value: dict[str, Any], sessions: dict[str, Any] | None = None) -> Choices:
    """The choices that `to_plain` wrote, with the sessions that `sessions_to_plain` did, where they are given."""
    ladders = {}
    for purpose, each in value["ladders"].items():
        theirs = sessions[purpose] if sessions is not None else [{}] * len(each["steps"])
        steps = tuple(_step_from_plain(*pair) for pair in zip(each["steps"], theirs, strict=True))
        ladders[purpose] = Ladder(purpose, each["name"], steps)
    return Choices(ladders, dict(value["without"]))
