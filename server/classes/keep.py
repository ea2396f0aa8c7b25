"""Classes as the club keeps them: with the session that is run, and the day it is planned for."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import time
from typing import TYPE_CHECKING, Any

from django.db import transaction
from django.utils import timezone
from ninja.errors import HttpError

from server.accounts.models import Club, User
from server.classes.asked import core_class, of_roster
from server.classes.models import ClassPlan
from server.classes.schemas import ClassAskedIn, ClassIn
from server.errors import FieldError
from server.roster.models import Group
from server.sessions.models import Session, Version
from server.today.models import Planned
from yoisho.classes.asked import Asked
from yoisho.classes.board import Board, board_to_dict
from yoisho.plain import sentence
from yoisho.rotation.group import ClassError
from yoisho.session.document import to_document
from yoisho.session.interval import SessionError

if TYPE_CHECKING:
    from yoisho.classes.made import Made

USUAL_HOUR = time(18, 0)


def kept_made(asked: Asked, rows: Sequence[Sequence[str]]) -> "Made | None":
    """The class with these rows; None where they are not of this class, such as after somebody more has come."""
    from yoisho.classes.made import kept

    if len(rows) != len(asked.people):
        return None
    try:
        made = kept(asked, rows)
    except (ClassError, SessionError):
        return None
    return None if any(len(row) != made.plan.group.waves for row in rows) else made


def find_class(club: Club, class_id: int) -> ClassPlan:
    return ClassPlan.objects.find(club, "class", pk=class_id)


def checked(club: Club, asked: ClassAskedIn, rows: Sequence[Sequence[str]]) -> "Made":
    """The class as it is told, held against its places, limits and pairs. What cannot be is a 422."""
    from yoisho.rotation.faults import faults

    made = kept_made(core_class(club, asked), rows)
    if made is None:
        raise FieldError(["body", "rows"], "These places are not of this class. Solve it again.", "class")
    for wrong in faults(made.plan.group, made.rotation.rows):
        raise FieldError(["body", "rows"], f"{sentence(ValueError(wrong))} Solve it again.", "class")
    return made


def title_of(asked: ClassAskedIn, group: Group | None, made: "Made") -> str:
    from yoisho.classes.schools import SCHOOLS

    if asked.title.strip():
        return asked.title.strip()
    return f"{SCHOOLS[made.asked.school].name}{f', {group.name}' if group else ''}"


def with_ids(board: Board, ids: Sequence[int | None]) -> dict[str, Any]:
    """The board with the ids of those who are of the roster, in the order of its people."""
    told = board_to_dict(board)
    people: Any = told["people"]
    return {**told, "people": [{**one, "person_id": pk} for one, pk in zip(people, ids, strict=True)]}


def save(user: User, body: ClassIn, plan: ClassPlan | None) -> "tuple[ClassPlan, Made]":
    """A class, new or as it is now, with its session and its day in Today; and as it was worked out for that."""
    club = user.own_club
    asked = body.asked
    group = None if asked.group_id is None else Group.objects.find(club, "group", pk=asked.group_id)
    made = checked(club, asked, body.rows)
    title = title_of(asked, group, made)
    document = to_document(replace(made.plan.session, title=title[:120]))
    board = with_ids(made.board, [each.person_id for each in asked.people])
    now = timezone.now()
    with transaction.atomic():
        if plan is not None:
            plan = ClassPlan.objects.select_for_update(of=("self",)).get(pk=plan.pk)
            if plan.revision != body.revision:
                raise HttpError(409, "This class was changed elsewhere since you opened it. It is shown as it is now.")
            session = plan.session
            if (session.document, session.target) != (document, made.target):
                session.revision += 1
            session.document, session.target, session.board, session.saved_by = document, made.target, board, user
            session.save()
        else:
            session = Session.objects.create(
                club=club, target=made.target, document=document, board=board, in_lists=False, saved_by=user
            )
            plan = ClassPlan(club=club, session=session, made_by=user, revision=0)
        state = {"document": document, "target": session.target, "saved_at": now, "saved_by": user}
        Version.objects.update_or_create(
            session=session, revision=session.revision, defaults={"begun_at": now, **state}
        )
        plan.title, plan.group, plan.asked = title, group, asked.model_dump(mode="json")
        plan.rows = [list(row) for row in body.rows]
        plan.revision += 1
        plan.planned = _planned(plan, user, asked)
        plan.save()
    return plan, made


def _planned(plan: ClassPlan, user: User, asked: ClassAskedIn) -> Planned | None:
    """Its day in Today, where it has one."""
    row = plan.planned
    if asked.on is None:
        if row is not None:
            row.delete()
        return None
    at = asked.at or USUAL_HOUR
    if row is None:
        row = Planned.objects.create(
            club=plan.club, session=plan.session, on=asked.on, at=at, group=plan.group, planned_by=user
        )
    else:
        row.on, row.at, row.group = asked.on, at, plan.group
        row.save()
    roster = of_roster(plan.club, asked)
    there = [roster[each.person_id] for each in asked.people if each.person_id is not None]
    row.people.set(there)
    row.away.set(
        roster[each.person_id] for each in asked.people if each.person_id is not None and each.absent_after == 0
    )
    return row


def forget(plan: ClassPlan) -> None:
    """The class, and what of it is still to come. What was run stays in the log."""
    with transaction.atomic():
        session, run = plan.session, plan.session.runs.exists()
        if plan.planned is not None:
            plan.planned.delete()
        plan.delete()
        if not run:
            session.delete()
