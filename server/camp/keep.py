"""A camp's plan between what is told, the rules of the core and what Today and the Bench have of it."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, time
from functools import cached_property

from django.db import transaction
from django.utils import timezone
from ninja.errors import HttpError

from server.accounts.models import Club, User
from server.camp.asked import Whom, at_of, core_camp, read_choices, whom
from server.camp.models import Camp, CampSession
from server.camp.schemas import AskedIn, CampPlanIn, DoneOut, PlacedIn
from server.errors import FieldError
from server.logbook.models import LogEntry
from server.sessions.api import find_session
from server.sessions.models import Session, Version
from server.today.models import Planned
from yoisho.answers.camp import as_done
from yoisho.camp.camp import BESIDES, WEEKDAYS
from yoisho.camp.camp import Camp as CoreCamp
from yoisho.camp.ladders import Choices, Circumstance, cost_of, words_of
from yoisho.camp.plain_choices import cost_from_plain, cost_to_plain, from_plain
from yoisho.camp.plan import Cost, Placed, Plan
from yoisho.judgement.targets import TARGETS
from yoisho.review.progression import Go, too_hard
from yoisho.session.document import Session as CoreSession
from yoisho.session.document import from_document, to_document

STANDS_FOR = {"sparring": "fight-rehearsal", "test": "lactic-power"}
"""By which purpose a session is judged that has none of the nine."""


def word_of(purpose: str) -> str:
    name = TARGETS[purpose].name if purpose in TARGETS else BESIDES[purpose]
    return name.removesuffix(", fresh")


def target_of(purpose: str) -> str:
    return STANDS_FOR.get(purpose, purpose)


@dataclass(frozen=True)
class Held:
    """A session of the plan with what became of it."""

    row: CampSession
    placed: Placed
    """As it counts: as logged where it was done, as nothing where it was missed."""
    expected: Cost
    entries: tuple[LogEntry, ...]

    @property
    def done(self) -> DoneOut | None:
        if not self.entries:
            return None
        first = self.entries[0]
        finished = all(entry.done_efforts >= entry.planned_efforts for entry in self.entries)
        rpe = sum(entry.rpe for entry in self.entries) / len(self.entries)
        expected = sum(entry.planned_rpe for entry in self.entries) / len(self.entries)
        hard = too_hard(Go(finished, rpe, expected))
        return DoneOut(entry_id=first.pk, rpe=rpe, load=self.placed.cost.load, finished=finished, too_hard=hard)

    @property
    def edited(self) -> bool:
        return self.row.edited


class Kept:
    """A camp as it stands in the club."""

    def __init__(self, camp: Camp, asked: AskedIn | None = None):
        self.camp, self.today = camp, timezone.localdate()
        self.asked = asked or AskedIn(**camp.asked)
        self.core: CoreCamp = core_camp(self.asked, camp.club)

    @cached_property
    def known(self) -> Whom:
        return whom(self.camp)

    @cached_property
    def costs(self) -> Choices:
        """What stands to choose from, without its sessions."""
        return from_plain(self.camp.choices) if self.camp.choices is not None else Choices({}, {})

    @cached_property
    def rows(self) -> list[CampSession]:
        found = self.camp.sessions.filter(cancelled_at=None).select_related("session", "planned")
        return list(found.defer("session__document"))

    @cached_property
    def entries(self) -> dict[int, list[LogEntry]]:
        """What was logged of each session, by its id."""
        found: dict[int, list[LogEntry]] = {}
        ids = [row.session_id for row in self.rows if row.session_id is not None]
        logged = LogEntry.objects.of(self.camp.club).filter(result__run__session__in=ids).select_related("result__run")
        for entry in logged.defer("result__run__document").order_by("pk"):
            found.setdefault(entry.result.run.session_id or 0, []).append(entry)
        return found

    @cached_property
    def held(self) -> list[Held]:
        return [self._held(row) for row in self.rows]

    def _held(self, row: CampSession) -> Held:
        expected = self._cost(row)
        step = None if row.edited else row.step
        placed = Placed(row.on, row.purpose, expected, step, row.size, row.order, str(row.uid))  # type: ignore[arg-type]
        entries = tuple(self.entries.get(row.session_id or 0, ()))
        if entries:
            count = len(entries)
            strikes = {limb: 0.0 for limb in expected.limbs}
            for entry in entries:
                for limb, number in entry.volume.limbs.items():
                    strikes[limb] = strikes.get(limb, 0.0) + number / count
            rpe, done_s = sum(e.rpe for e in entries) / count, sum(e.done_s for e in entries) / count
            placed = as_done(placed, rpe, done_s, strikes)
        elif row.skipped or row.on < self.today:
            placed = replace(placed, missed=True)
        return Held(row, placed, expected, entries)

    def _cost(self, row: CampSession) -> Cost:
        """What it should cost; worked out anew where it was changed on the Bench since."""
        session = row.session
        if session is not None and session.revision != row.seen_revision:
            around = Circumstance(self.known.core, self.known.around)
            row.cost = cost_to_plain(cost_of(from_document(session.document), around, row.purpose))
            row.seen_revision = session.revision
            CampSession.objects.filter(pk=row.pk).update(cost=row.cost, seen_revision=row.seen_revision)
        return cost_from_plain(row.cost)

    @cached_property
    def plan(self) -> Plan:
        return Plan(tuple(each.placed for each in self.held))

    def after(self) -> "Kept":
        """The same after its plan was written: whom it is for, what it costs and what was logged is known already."""
        now = Kept(self.camp, self.asked)
        now.__dict__.update({name: getattr(self, name) for name in ("known", "costs", "entries")})
        return now

    @property
    def untouchable(self) -> frozenset[str]:
        """What is done, past or locked, by its id."""
        return frozenset(
            str(each.row.uid) for each in self.held if each.entries or each.row.on < self.today or each.row.locked
        )


def placed_of(told: Sequence[PlacedIn], kept: Kept, choices: Choices) -> list[Placed]:
    """What is told of a plan, as the core has it: what is known already counts as it does there."""
    known = {str(each.row.uid): each for each in kept.held}
    return [_placed(each, known.get(str(each.uid)), kept, choices, number) for number, each in enumerate(told)]


def _placed(told: PlacedIn, known: Held | None, kept: Kept, choices: Choices, number: int) -> Placed:
    where: list[str | int] = ["body", "placed", number]
    if known is not None and known.entries:
        return replace(known.placed, order=told.order)
    step = told.step
    ladder = choices.ladders.get(told.purpose)
    if step is not None and ladder is not None and step < len(ladder.steps) and not (known and known.edited):
        cost = ladder.steps[step].costs[told.size]
    elif known is not None:
        # Of its own, changed on the Bench, or of a ladder that has been chosen anew since.
        cost, step = known.expected, None
    elif step is not None:
        raise FieldError([*where, "step"], "There is no such step any more. Solve the camp again.", "step")
    else:
        cost = _own_cost(told, kept, where)
    missed = told.skipped or told.on < kept.today
    return Placed(told.on, told.purpose, cost, step, told.size, told.order, str(told.uid), missed)


def _own_cost(told: PlacedIn, kept: Kept, where: list[str | int]) -> Cost:
    if told.session_id is None:
        raise FieldError([*where, "session_id"], "Say which session it is, or a step of a purpose.", "session")
    if told.purpose not in TARGETS and told.purpose not in BESIDES:
        raise FieldError([*where, "purpose"], f"No purpose is called '{told.purpose}'.", "purpose")
    saved = find_session(kept.camp.club, told.session_id)
    return cost_of(from_document(saved.document), Circumstance(kept.known.core, kept.known.around), told.purpose)


def told_of(row: CampSession) -> PlacedIn:
    """A session as a client would send it back."""
    return PlacedIn(
        uid=row.uid, on=row.on, order=row.order, purpose=row.purpose, step=row.step, size=row.size,  # type: ignore[arg-type]
        locked=row.locked, skipped=row.skipped,
    )  # fmt: skip


# Writing


def save_plan(camp: Camp, user: User, body: CampPlanIn) -> Kept:
    """The plan as a coach has it now, with the days of Today and the sessions of the Bench that follow from it."""
    with transaction.atomic():
        camp = Camp.objects.select_for_update(of=("self",)).get(pk=camp.pk)
        if body.revision != camp.revision:
            raise HttpError(409, "This camp was changed elsewhere since you opened it. It is shown as it is now.")
        kept = Kept(camp, body.asked)
        _refuse_what_is_done(kept, body.placed)
        _Writer(kept, user, body.placed).write()
        camp.asked = body.asked.model_dump(mode="json")
        camp.hold = [each.model_dump() for each in body.hold]
        camp.bound_gap = body.bound_gap if body.solved else None
        camp.revision += 1
        camp.save(update_fields=["asked", "hold", "bound_gap", "revision", "saved_at"])
    return kept.after()


def _refuse_what_is_done(kept: Kept, told: Sequence[PlacedIn]) -> None:
    """What was logged stays where it was done: it can be neither moved nor taken out."""
    by_uid = {each.uid: (number, each) for number, each in enumerate(told)}
    if len(by_uid) < len(told):
        raise FieldError(["body", "placed"], "A session stands twice in this plan.", "camp")
    for each in kept.held:
        if not each.entries:
            continue
        number, now = by_uid.get(each.row.uid, (0, None))
        if now is None:
            raise FieldError(["body", "placed"], f"{_said(each)} was done and logged: it stays in the plan.", "camp")
        if now.on != each.row.on:
            said = f"{_said(each)} was done and logged: it stays on its day."
            raise FieldError(["body", "placed", number, "on"], said, "camp")


def _said(held: Held) -> str:
    return f"{word_of(held.row.purpose).capitalize()} on {held.row.on:%Y-%m-%d}"


class _Writer:
    """Brings rows, planned sessions and documents to what a plan tells; nothing is written that has not changed."""

    def __init__(self, kept: Kept, user: User, told: Sequence[PlacedIn]):
        self.kept, self.user, self.told = kept, user, told
        self.camp, self.club = kept.camp, kept.camp.club
        self.at = at_of(kept.asked)
        self.before = {each.row.uid: each for each in kept.held}

    @cached_property
    def choices(self) -> Choices:
        """With sessions: asked for where one has to be made."""
        return read_choices(self.camp)

    def write(self) -> None:
        placed = placed_of(self.told, self.kept, self.kept.costs)
        wanted = {each.uid: (each, one) for each, one in zip(self.told, placed, strict=True)}
        self._forget([held for uid, held in self.before.items() if uid not in wanted])
        new = [pair for uid, pair in wanted.items() if uid not in self.before]
        # What was cancelled before comes back under its id.
        self.camp.sessions.filter(uid__in=[each.uid for each, _ in new]).delete()
        self._make(new)
        for uid, (each, one) in wanted.items():
            if uid in self.before:
                self._change(self.before[uid], each, one)

    def _hour(self, on: date) -> time:
        return self.at.get(WEEKDAYS[on.weekday()], next(iter(self.at.values()), time(18, 0)))

    def _document(self, told: PlacedIn, one: Placed) -> CoreSession:
        if one.step is None:
            assert told.session_id is not None
            return from_document(find_session(self.club, told.session_id).document)
        step = self.choices.ladders[one.purpose].steps[one.step]
        session = step.sessions[one.size]
        return replace(session, title=f"{word_of(one.purpose).capitalize()}, {words_of(session)}")

    def _make(self, new: Sequence[tuple[PlacedIn, Placed]]) -> None:
        now = timezone.now()
        sessions = Session.objects.bulk_create(
            Session(
                club=self.club, person=self.camp.person, target=target_of(one.purpose), in_lists=False,
                document=to_document(self._document(told, one)), saved_by=self.user,
            )
            for told, one in new
        )  # fmt: skip
        Version.objects.bulk_create(
            Version(
                session=session, revision=1, document=session.document, person=session.person, target=session.target,
                begun_at=now, saved_at=now, saved_by=self.user,
            )
            for session in sessions
        )  # fmt: skip
        planned = Planned.objects.bulk_create(
            Planned(
                club=self.club, session=session, on=one.on, at=self._hour(one.on), group=self.camp.group,
                planned_by=self.user,
            )
            for session, (_, one) in zip(sessions, new, strict=True)
        )  # fmt: skip
        if self.camp.person is not None:
            through = Planned.people.through
            through.objects.bulk_create(through(planned=row, person=self.camp.person) for row in planned)
        CampSession.objects.bulk_create(
            CampSession(
                camp=self.camp, uid=told.uid, on=one.on, order=one.order, purpose=one.purpose, step=one.step,
                size=one.size, locked=told.locked, skipped=told.skipped, cost=cost_to_plain(one.cost),
                session=session, planned=row,
            )
            for (told, one), session, row in zip(new, sessions, planned, strict=True)
        )  # fmt: skip

    def _change(self, held: Held, told: PlacedIn, one: Placed) -> None:
        row = held.row
        hour = self._hour(told.on)
        moved = row.on != told.on or (row.planned is not None and row.planned.at != hour)
        other = (
            not held.edited
            and not held.entries
            and one.step is not None
            and ((row.purpose, row.step, row.size) != (told.purpose, one.step, told.size))
        )
        own = not held.entries and told.step is None and told.session_id not in (None, row.session_id)
        flags = (row.order, row.locked, row.skipped) != (told.order, told.locked, told.skipped)
        if not (moved or other or own or flags):
            return
        row.on, row.order, row.locked, row.skipped = told.on, told.order, told.locked, told.skipped
        if other or own:
            self._anew(row, told, one)
        if moved or other or own:
            row.sequence += 1
        row.save()
        self._on_today(row, hour, moved=moved)

    def _on_today(self, row: CampSession, hour: time, *, moved: bool) -> None:
        """Today has what is to be done, where and when the camp has it; what was let go is off it."""
        if row.skipped:
            Planned.objects.filter(camp_session=row).delete()
        elif row.planned is None and row.session is not None:
            # It was let go, and that was taken back.
            planned = Planned.objects.create(
                club=self.club, session=row.session, on=row.on, at=hour, group=self.camp.group, planned_by=self.user
            )
            planned.people.set([self.camp.person] if self.camp.person else [])
            CampSession.objects.filter(pk=row.pk).update(planned=planned)
        elif row.planned is not None and moved:
            row.planned.on, row.planned.at = row.on, hour
            row.planned.save(update_fields=["on", "at"])

    def _anew(self, row: CampSession, told: PlacedIn, one: Placed) -> None:
        """Another session on the same day: the row, its id and its place in the plan stay."""
        own_cost = told.step is None
        if own_cost:
            one = replace(one, cost=_own_cost(told, self.kept, ["body", "placed"]))
        row.purpose, row.step, row.size, row.cost = one.purpose, one.step, one.size, cost_to_plain(one.cost)
        if row.session is not None:
            row.session.document = to_document(self._document(told, one))
            row.session.target = target_of(one.purpose)
            row.session.save(update_fields=["document", "target", "saved_at"])
            row.session.versions.update(document=row.session.document, target=row.session.target)

    def _forget(self, gone: Sequence[Held]) -> None:
        """Out of the plan, off Today; what was never run goes, and calendars are told."""
        if not gone:
            return
        now = timezone.now()
        for each in gone:
            CampSession.objects.filter(pk=each.row.pk).update(
                cancelled_at=now, changed_at=now, sequence=each.row.sequence + 1
            )
        Planned.objects.filter(pk__in=[each.row.planned_id for each in gone]).delete()
        Session.objects.filter(pk__in=[each.row.session_id for each in gone], runs__isnull=True).delete()


def forget(camp: Camp) -> None:
    """The whole camp: what is to come goes off Today, what was done stays in the log."""
    kept = Kept(camp)
    with transaction.atomic():
        ids = [each.row for each in kept.held]
        Planned.objects.filter(pk__in=[row.planned_id for row in ids if row.on >= kept.today]).delete()
        Session.objects.filter(pk__in=[row.session_id for row in ids], runs__isnull=True).delete()
        camp.delete()


def find_camp(club: Club, camp_id: int) -> Camp:
    return Camp.objects.find(club, "camp", pk=camp_id)
