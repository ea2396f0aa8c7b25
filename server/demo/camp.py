"""A camp of the demo: begun three weeks ago, solved as any other, logged up to yesterday by those who train in it."""

from datetime import date, datetime, time, timedelta
from random import Random
from uuid import uuid4

from django.utils import timezone

from server.accounts.models import Club, User
from server.camp.asked import choosing, keep_choices, whom
from server.camp.keep import Kept, save_plan
from server.camp.models import Camp, CampSession
from server.camp.schemas import AskedIn, CampPlanIn, DayIn, FixedIn, PlacedIn
from server.demo import hall
from server.demo.history import add_entry, hidden_of
from server.roster.models import Person
from server.runs.models import Run
from server.sessions.models import Session
from yoisho.camp.model import Ask
from yoisho.camp.solve import solve
from yoisho.engine.readout import expected_rpe, try_reading
from yoisho.runs.plan import Plan
from yoisho.runs.simulated import felt, kept_of
from yoisho.session.document import from_document

WEEKS_GONE = 3
HOUR = time(18, 30)


def load_camp(club: Club, coach: User, people: dict[str, Person], liked: Session) -> None:
    """The weeks to somebody's bout, with a session that is liked for its lactic days."""
    person, today = people[hall.IN_CAMP], timezone.localdate()
    start = today - timedelta(days=today.weekday(), weeks=WEEKS_GONE)
    asked = AskedIn(
        start=start, bout_on=person.fight_on, rule_set=person.rule_set or None, most_a_week=4,
        days=[DayIn(weekday=day, at=HOUR, minutes=75) for day in ("mon", "tue", "thu", "sat")],
        fixed=[FixedIn(purpose="sparring", weekday="sat", every_weeks=2)], bases={"lactic-capacity": liked.pk},
        weights={"lactic-capacity": 3, "threshold": 2, "skill": 2, "fight-rehearsal": 2, "sprint-power": 1,
                 "aerobic-power": 1},
    )  # fmt: skip
    camp = Camp.objects.create(club=club, person=person, asked=asked.model_dump(mode="json"), made_by=coach)
    kept = Kept(camp)
    chosen = choosing(camp, kept.core, asked)
    found = chosen.make(lambda share: None)
    keep_choices(camp, chosen.key, found)
    solved = solve(Ask(kept.core, found, whom(camp).ceilings))
    assert solved.plan is not None
    placed = [
        PlacedIn(uid=uuid4(), on=one.on, order=one.order, purpose=one.purpose, step=one.step, size=one.size)
        for one in solved.plan.placed
    ]
    body = CampPlanIn(asked=asked, placed=placed, revision=camp.revision, solved=True, bound_gap=solved.bound_gap)
    save_plan(camp, coach, body)
    rows = list(camp.sessions.select_related("session").filter(on__lt=today))
    # One was missed and one was too hard: that is what a camp is like.
    for row in rows:
        if row != rows[-1]:
            _log(club, coach, person, row, too_hard=row == rows[len(rows) // 2])


def _log(club: Club, coach: User, person: Person, row: CampSession, *, too_hard: bool) -> None:
    assert row.session is not None
    plan, real, seed = Plan(from_document(row.session.document)), hidden_of(person), row.pk
    done_s = round(plan.timeline.total_s * (0.8 if too_hard else 1.0))
    run = Run(club=club, run_id=uuid4(), session=row.session, revision=1, title=str(row.session),
              document=row.session.document, person=person, coach=coach)  # fmt: skip
    record = kept_of(real, plan.timeline, done_s, seed, ("strap",))
    rpe = felt(expected_rpe(try_reading(real, plan.timeline)), Random(seed).randrange(1000))
    rpe = min(10, rpe + 2) if too_hard else rpe
    add_entry(run, person, plan, record, done_s, _moment(row.on), rpe, "Had to stop early." if too_hard else "")


def _moment(on: date) -> datetime:
    return timezone.make_aware(datetime.combine(on, HOUR))
