"""What stands to choose from as plain values and back: it is simulated once, and kept."""

from typing import Any

import msgspec

from yoisho.camp.ladders import Choices, Ladder, Step
from yoisho.camp.plan import SIZES, Cost
from yoisho.session.document import from_document, to_document


def cost_to_plain(cost: Cost) -> dict[str, Any]:
    found: dict[str, Any] = msgspec.to_builtins(cost)
    return found


def cost_from_plain(value: Any) -> Cost:
    return msgspec.convert(value, Cost)


def _step_to_plain(step: Step) -> dict[str, Any]:
    own = {name: getattr(step, name) for name in ("name", "knob", "words", "rounds", "round_s", "rest_s")}
    return {
        **own,
        "sessions": {size: to_document(session) for size, session in step.sessions.items()},
        "costs": {size: cost_to_plain(cost) for size, cost in step.costs.items()},
    }


def _step_from_plain(value: dict[str, Any], *, sessions: bool) -> Step:
    read = {size: from_document(value["sessions"][size]) for size in SIZES} if sessions else {}
    costs = {size: cost_from_plain(value["costs"][size]) for size in SIZES}
    return Step(**{**value, "sessions": read, "costs": costs})


def to_plain(choices: Choices) -> dict[str, Any]:
    return {
        "ladders": {
            purpose: {"name": each.name, "steps": [_step_to_plain(step) for step in each.steps]}
            for purpose, each in choices.ladders.items()
        },
        "without": choices.without,
    }


def from_plain(value: dict[str, Any], *, sessions: bool = True) -> Choices:
    """The choices that `to_plain` wrote; without their sessions, where only what they cost is asked for."""
    ladders = {
        purpose: Ladder(
            purpose, each["name"], tuple(_step_from_plain(step, sessions=sessions) for step in each["steps"])
        )
        for purpose, each in value["ladders"].items()
    }
    return Choices(ladders, dict(value["without"]))
