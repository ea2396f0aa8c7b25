"""What is remembered by its value is never changed in place: of the core, only notes of a work in hand are."""

from dataclasses import is_dataclass
from importlib import import_module
from pkgutil import walk_packages

import yoisho

NOTES = {
    "yoisho.classes.line.Line", "yoisho.review.trends.Day", "yoisho.runs.record._Piece",
    "yoisho.session.shorthand.settle.Dose", "yoisho.session.shorthand.settle.Item",
}  # fmt: skip
"""Filled in while something is read or added up, and handed to nobody."""


def test_only_notes_of_a_work_in_hand_can_be_changed():
    open_to_change = set()
    for module in walk_packages(yoisho.__path__, "yoisho."):
        if module.name.endswith("__main__"):
            continue
        for each in vars(import_module(module.name)).values():
            own = isinstance(each, type) and is_dataclass(each) and each.__module__ == module.name
            if own and not each.__dataclass_params__.frozen:
                open_to_change.add(f"{module.name}.{each.__qualname__}")
    assert open_to_change == NOTES
