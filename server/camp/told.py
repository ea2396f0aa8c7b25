"""A camp as it is told."""

from server.camp.asked import whose
from server.camp.keep import Held, Kept, word_of
from server.camp.models import Camp
from server.camp.schemas import CampOut, CampRow, Fixture, Hold, LadderOut, PlacedOut, StepOut
from yoisho.answers.camp import NOTHING_PROMISED, TAKEN_FOR, rules_answer, weeks_answer
from yoisho.camp.camp import MAY_GIVE
from yoisho.camp.camp import Camp as CoreCamp
from yoisho.camp.ladders import Choices, Step
from yoisho.camp.plan import SIZES


def _step(step: Step) -> StepOut:
    costs = step.costs
    return StepOut(
        name=step.name, words=step.words, rounds=step.rounds, round_s=step.round_s, rest_s=step.rest_s,
        load={size: costs[size].load for size in SIZES},
        minutes={size: round(costs[size].total_s / 60) for size in SIZES},
        lactic={size: costs[size].lactic for size in SIZES}, hard={size: costs[size].hard for size in SIZES},
        limbs={size: costs[size].limbs for size in SIZES},
    )  # fmt: skip


def ladders_out(choices: Choices) -> list[LadderOut]:
    return [
        LadderOut(
            purpose=purpose, word=word_of(purpose), name=ladder.name, steps=[_step(step) for step in ladder.steps]
        )
        for purpose, ladder in choices.ladders.items()
    ]


def _knob(held: Held, choices: Choices) -> str:
    row = held.row
    ladder = choices.ladders.get(row.purpose)
    if held.edited:
        return "changed on the Bench"
    if row.step is None or ladder is None or row.step >= len(ladder.steps):
        return "a session of its own"
    words = ladder.steps[row.step].words
    return words if row.size == "whole" else f"{words}; {row.size} of the rounds"


def placed_out(held: Held, kept: Kept) -> PlacedOut:
    row, cost = held.row, held.placed.cost
    missed = not held.entries and not row.skipped and row.on < kept.today
    return PlacedOut(
        uid=row.uid, on=row.on, order=row.order, purpose=row.purpose, word=word_of(row.purpose), step=row.step,
        size=row.size, knob=_knob(held, kept.costs), locked=row.locked, skipped=row.skipped, missed=missed,
        edited=held.edited, load=cost.load, planned_load=held.expected.load, rpe=cost.rpe,
        minutes=round(held.expected.total_s / 60), limbs=cost.limbs, lactic=cost.lactic, hard=cost.hard,
        session_id=row.session_id, planned_id=row.planned_id, done=held.done,
    )  # fmt: skip


def _fixtures(core: CoreCamp) -> list[Fixture]:
    return [Fixture(on=on, purpose=purpose) for on, purpose in core.fixtures]


def camp_out(kept: Kept) -> CampOut:
    camp, core = kept.camp, kept.core
    done = frozenset(str(each.row.uid) for each in kept.held if each.entries)
    return CampOut(
        id=camp.pk, revision=camp.revision, who=whose(camp).name, person_id=camp.person_id, group_id=camp.group_id,
        today=kept.today, asked=kept.asked, last=core.last, taper_from=core.taper_from,
        lactic_until=core.lactic_until, rehearsal_from=core.rehearsal_from, fixtures=_fixtures(core),
        ladders=ladders_out(kept.costs), without=kept.costs.without,
        placed=[placed_out(each, kept) for each in kept.held], hold=[Hold(**each) for each in camp.hold],
        weeks=weeks_answer(core, kept.plan, done),
        rules=rules_answer(core, kept.plan, kept.known.ceilings, MAY_GIVE, kept.today),
        bound_gap=camp.bound_gap, notes=[TAKEN_FOR, NOTHING_PROMISED],
    )  # fmt: skip


def camp_row(camp: Camp) -> CampRow:
    kept = Kept(camp)
    return CampRow(
        id=camp.pk, who=whose(camp).name, person_id=camp.person_id, group_id=camp.group_id, start=kept.core.start,
        bout_on=kept.core.bout_on, weeks=len(kept.core.calendar), sessions=len(kept.rows),
        done=sum(bool(kept.entries.get(row.session_id or 0)) for row in kept.rows),
    )  # fmt: skip
