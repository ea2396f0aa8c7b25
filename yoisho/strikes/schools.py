"""Numbering schools: which number names which technique. One entry in `SCHOOLS` is all a new one needs.

1 to 6 are common to all (common practice, no source); beyond six, schools differ. Everything is stored as techniques
and shown in the reader's school.
"""

from dataclasses import dataclass

from yoisho.strikes.combination import Action

_COMMON = {
    1: Action("jab", "lead", "head"),
    2: Action("cross", "rear", "head"),
    3: Action("hook", "lead", "head"),
    4: Action("hook", "rear", "head"),
    5: Action("uppercut", "lead", "head"),
    6: Action("uppercut", "rear", "head"),
}


@dataclass(frozen=True)
class School:
    id: str
    name: str
    numbers: dict[int, Action]

    def number_of(self, one: Action) -> int | None:
        return next((number for number, named in self.numbers.items() if named == one), None)


SCHOOLS: dict[str, School] = {
    school.id: school
    for school in (
        School("overhands", "7 and 8 are overhands",
               {**_COMMON, 7: Action("overhand", "lead", "head"), 8: Action("overhand", "rear", "head")}),
        School("body-hooks", "7 and 8 are hooks to the body",
               {**_COMMON, 7: Action("hook", "lead", "body"), 8: Action("hook", "rear", "body")}),
    )
}  # fmt: skip
DEFAULT_SCHOOL = "overhands"
