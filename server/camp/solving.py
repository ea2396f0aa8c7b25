"""Solving a camp while somebody watches: lines of progress, and the plan as the last."""

import logging
import time
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, TypeAlias
from uuid import UUID, uuid4

from django.http import HttpRequest, StreamingHttpResponse
from ninja import Router

from server.accounts.current import coach
from server.camp.asked import Choosing, choosing, keep_choices
from server.camp.keep import Kept, find_camp, placed_of, told_of
from server.camp.models import Camp
from server.camp.schemas import ClashOut, PlacedIn, ProgressOut, SolvedOut, SolveIn
from server.errors import Faults, FieldError, Message
from server.streams import streamed
from yoisho.camp.camp import MAY_GIVE
from yoisho.camp.ladders import Choices
from yoisho.camp.plan import Placed
from yoisho.camp.rules import BY_ID

if TYPE_CHECKING:
    # The solver takes half a second and much memory to load: where nobody solves, a server does without.
    from yoisho.camp.model import Ask
    from yoisho.camp.solve import Solved

router = Router(tags=["camp"])
logger = logging.getLogger(__name__)
CHOOSING = 0.5
"""Share of the bar for choosing sessions, where they have to be simulated."""

Answer: TypeAlias = "tuple[Solved, Ask, float]"


@dataclass
class _Work:
    """What a thread of its own does, and what it tells meanwhile. It asks the database nothing."""

    choosing: Choosing
    kept: Kept
    told: list[PlacedIn]
    hold: frozenset[tuple[str, int]]

    def __post_init__(self) -> None:
        self.choices: Choices | None = None
        self.placed: list[Placed] = []

    def run(self, tell: Callable[[ProgressOut], None]) -> "Answer":
        from yoisho.camp.model import Ask
        from yoisho.camp.solve import solve

        def said(progress: float, words: str) -> None:
            tell(ProgressOut(progress=round(progress, 3), words=words))

        fresh = self.choosing.kept is None
        start = CHOOSING if fresh else 0.0
        words = "Simulating what stands to choose from"
        found = self.choosing.make(lambda share: said(CHOOSING * share, words))
        self.choices = found
        self.placed = placed_of(self.told, self.kept, found)
        ask = Ask(self.kept.core, found, self.choosing.known.ceilings, tuple(self.placed), self.kept.today, self.hold)
        begun = time.perf_counter()
        solved = solve(ask, lambda share: said(start + (1 - start) * share, "Solving the weeks"))
        return solved, ask, time.perf_counter() - begun


def _named(kept: Kept, solved: "Solved", stays: list[PlacedIn]) -> list[PlacedIn]:
    """The plan as it is told: what stays has its id, and what is new takes that of what it is in the place of."""
    assert solved.plan is not None
    known = {str(each.uid): each for each in stays}
    free = {each.row.uid: each for each in kept.held if str(each.row.uid) not in known}
    found: list[PlacedIn] = []
    new: list[Placed] = []
    for each in solved.plan.placed:
        if each.id in known:
            found.append(known[each.id].model_copy(update={"order": each.order}))
        else:
            new.append(each)
    uids: dict[int, UUID] = {}
    for near in (0, 7, 10_000):
        for number, each in enumerate(new):
            if number in uids:
                continue
            like = [
                uid for uid, held in free.items()
                if held.row.purpose == each.purpose and abs((held.row.on - each.on).days) <= near
            ]  # fmt: skip
            if like:
                uids[number] = min(like, key=lambda uid: abs((free[uid].row.on - each.on).days))
                del free[uids[number]]
    for number, each in enumerate(new):
        found.append(
            PlacedIn(uid=uids.get(number) or uuid4(), on=each.on, order=each.order, purpose=each.purpose,
                     step=each.step, size=each.size)
        )  # fmt: skip
    return sorted(found, key=lambda each: (each.on, each.order))


def _clashes(solved: "Solved", ask: "Ask") -> list[ClashOut]:
    from yoisho.camp.solve import possible

    found = []
    for each in solved.clash:
        may_give = each.rule in MAY_GIVE and each.rule not in ask.camp.softened
        gave = replace(ask, camp=replace(ask.camp, softened=(*ask.camp.softened, each.rule))) if may_give else ask
        found.append(
            ClashOut(rule=each.rule, name=BY_ID[each.rule].name, sentence=each.sentence, said=list(each.said),
                     may_give=may_give, then_fits=may_give and possible(gave))
        )  # fmt: skip
    return found


@router.post(
    "/camps/{camp_id}/solve",
    response={200: ProgressOut, 404: Message, 422: Faults},
    operation_id="solve_camp",
)
def solve_camp(request: HttpRequest, camp_id: int, body: SolveIn) -> StreamingHttpResponse:
    """The best plan around what is locked or past, as lines of JSON: progress, and the plan last. Nothing is saved."""
    camp = find_camp(coach(request).own_club, camp_id)
    kept = Kept(camp, body.asked)
    stays = body.keep if body.keep is not None else _stays(kept)
    known = {str(each.row.uid) for each in kept.held}
    for number, each in enumerate(stays):
        if str(each.uid) not in known and each.step is None:
            # What it costs is not known yet, and the thread asks the database nothing.
            raise FieldError(["body", "keep", number, "uid"], "Save this session of its own first.", "session")
    work = _Work(
        choosing(camp, kept.core, kept.asked), kept, stays, frozenset((each.purpose, each.week) for each in body.hold)
    )
    # What the thread needs of the database is read here.
    _ = kept.held, kept.known
    first = ProgressOut(progress=0.0, words="Reading the camp")
    return streamed(work.run, first, lambda found: _last(camp, work, found))


def _stays(kept: Kept) -> list[PlacedIn]:
    """What is locked, done or past, by the camp itself."""
    stays = kept.untouchable
    return [told_of(each.row) for each in kept.held if str(each.row.uid) in stays]


def _last(camp: Camp, work: _Work, found: "Answer | Exception") -> ProgressOut:
    if isinstance(found, FieldError):
        return ProgressOut(progress=1.0, words="", error=str(found))
    if isinstance(found, Exception):
        logger.error("A camp could not be solved", exc_info=found)
        return ProgressOut(progress=1.0, words="", error="The camp could not be solved. Try again; nothing is lost.")
    solved, ask, seconds = found
    assert work.choices is not None
    keep_choices(camp, work.choosing.key, work.choices)
    placed = _named(work.kept, solved, work.told) if solved.plan is not None else []
    told = SolvedOut(
        status=solved.status, bound_gap=solved.bound_gap, seconds=round(seconds, 2), placed=placed,
        clash=_clashes(solved, ask),
    )  # fmt: skip
    return ProgressOut(progress=1.0, words="Solved", solved=told)
