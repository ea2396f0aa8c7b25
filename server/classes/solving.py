"""Working a class out while somebody watches: proposals of every school, the rotation of one, and what if."""

from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING

from django.http import HttpRequest, StreamingHttpResponse
from ninja import Router

from server.accounts.current import coach
from server.classes.asked import core_class, fault
from server.classes.keep import kept_made
from server.classes.schemas import (
    ClassAskedIn,
    ClassProgress,
    ComerIn,
    ProposeClassIn,
    SolveClassIn,
    WhatIfOut,
)
from server.errors import Faults, Message
from server.streams import logger, streamed
from yoisho.answers.classes import class_answer
from yoisho.classes.asked import Asked, SchoolId
from yoisho.classes.schools import SCHOOLS
from yoisho.plain import sentence
from yoisho.rotation.group import ClassError
from yoisho.session.interval import SessionError

if TYPE_CHECKING:
    from yoisho.classes.made import Made
    from yoisho.classes.weighed import WhatIf

router = Router(tags=["class"])


@router.post("/classes/solve", response={200: ClassProgress, 404: Message, 422: Faults}, operation_id="solve_class")
def solve_class(request: HttpRequest, body: SolveClassIn) -> StreamingHttpResponse:
    """Who is where, as lines of JSON: progress, and the class last. Nothing is saved."""
    club = coach(request).own_club
    asked = core_class(club, body.asked)
    near = None if body.rows is None else kept_made(asked, body.rows)
    rows = near.rotation.kinds if near else None

    def work(tell: Callable[[ClassProgress], None]) -> "Made":
        from yoisho.classes.made import make

        return make(asked, rows, lambda share: tell(ClassProgress(progress=share, words="Putting everybody somewhere")))

    def last(found: "Made | Exception") -> ClassProgress:
        if isinstance(found, Exception):
            return _failed(found)
        return ClassProgress(progress=1.0, words="Solved", answer=class_answer(found, club.school, weighed=False))

    return streamed(work, ClassProgress(progress=0.0, words="Reading the class"), last)


def _failed(error: Exception) -> ClassProgress:
    if isinstance(error, ClassError | SessionError):
        told = fault(error, "asked")
        return ClassProgress(progress=1.0, words="", error=str(told), field=told.field)
    logger.error("A class could not be solved", exc_info=error)
    return ClassProgress(progress=1.0, words="", error="The class could not be solved. Try again; nothing is lost.")


@router.post("/classes/propose", response={200: ClassProgress, 404: Message, 422: Faults}, operation_id="propose_class")
def propose_class(request: HttpRequest, body: ProposeClassIn) -> StreamingHttpResponse:
    """Whole classes of different schools, as lines of JSON: each as it is found, then what sets them apart."""
    club = coach(request).own_club
    asked = core_class(club, body.asked)

    def work(tell: Callable[[ClassProgress], None]) -> tuple[list[str], list[str]]:
        from yoisho.classes.made import aim_of, make
        from yoisho.classes.weighed import tradeoffs

        found: list[Made] = []
        left_out: list[str] = []
        aim = aim_of(asked)
        for number, school in enumerate(SCHOOLS.values()):
            share = (number + 1) / (len(SCHOOLS) + 1)
            try:
                made = make(_of_school(asked, school.id, aim))
            except (ClassError, SessionError) as error:
                left_out.append(f"{school.name}: {sentence(error)}")
                continue
            found.append(made)
            answer = class_answer(made, club.school)
            tell(ClassProgress(progress=share, words=f"{school.name} is worked out", proposal=answer))
        return tradeoffs(found), left_out

    def last(found: "tuple[list[str], list[str]] | Exception") -> ClassProgress:
        if isinstance(found, Exception):
            return _failed(found)
        said, left_out = found
        if not said:
            return ClassProgress(progress=1.0, words="", error=" ".join(left_out) or "No school fits this.")
        return ClassProgress(progress=1.0, words="All are worked out", tradeoffs=said, left_out=left_out)

    return streamed(work, ClassProgress(progress=0.0, words="Reading the class"), last)


def _of_school(asked: Asked, school: SchoolId, aim: str) -> Asked:
    """The same in another school, for the same purpose: what belonged to the waves of one is no part of the next."""
    plain = replace(asked.without_what_is_put(), target=aim)
    return plain if school == asked.school else replace(plain, school=school, waves=None, rounds=None, change_s=None)


@router.post(
    "/classes/what-if", response={200: list[WhatIfOut], 404: Message, 422: Faults}, operation_id="class_what_ifs"
)
def class_what_ifs(request: HttpRequest, body: SolveClassIn) -> list[WhatIfOut]:
    """What might change on the day, each solved ahead."""
    from yoisho.classes.made import make
    from yoisho.classes.weighed import what_ifs

    asked = core_class(coach(request).own_club, body.asked)
    try:
        made = kept_made(asked, body.rows) if body.rows is not None else None
        return [_what_if(body.asked, each) for each in what_ifs(made or make(asked))]
    except (ClassError, SessionError) as error:
        raise fault(error, "asked") from error


def _what_if(asked: ClassAskedIn, found: "WhatIf") -> WhatIfOut:
    if found.made is None:
        return WhatIfOut(name=found.name, effect=found.effect, asked=None, rows=None)
    there = len(asked.people)
    new = [
        ComerIn(uid=f"guest-{there + number}", name=each.name)
        for number, each in enumerate(found.asked.people[there:], 1)
    ]
    told = asked.model_copy(
        update={
            "people": [*asked.people, *new], "bags": found.asked.bags, "minutes": found.asked.minutes,
            "waves": found.asked.waves, "coach_holds": found.asked.coach_holds, "put": [],
        }
    )  # fmt: skip
    rows = [list(found.made.rotation.rows[each.name]) for each in found.asked.people]
    return WhatIfOut(name=found.name, effect=found.effect, asked=told, rows=rows)
