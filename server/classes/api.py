"""Classes: read from a line, kept, and told."""

from typing import TYPE_CHECKING

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Status

from server.accounts.current import club_of, coach
from server.accounts.models import Club
from server.accounts.once import once
from server.classes import schemas
from server.classes.asked import core_class
from server.classes.keep import find_class, forget, kept_made, save
from server.classes.models import ClassPlan
from server.errors import Faults, FieldError, Message
from server.roster.models import Group, Person
from yoisho.answers.classes import class_answer
from yoisho.classes.asked import FLOOR_DOES
from yoisho.classes.line import read_line
from yoisho.classes.schools import SCHOOLS, round_text
from yoisho.plain import sentence
from yoisho.rotation.group import MOST_PEOPLE, ClassError
from yoisho.session.document import from_document
from yoisho.strikes import notation

if TYPE_CHECKING:
    from yoisho.classes.made import Made

router = Router(tags=["class"])
MOST_CLASSES = 500
USUAL_PEOPLE = 12
GEAR = ("bags", "pad_pairs", "floor", "stations", "minutes", "warm_up_min", "cool_down_min")


def _guests(count: int) -> list[schemas.ComerIn]:
    return [schemas.ComerIn(uid=f"guest-{number}", name=f"Guest {number}") for number in range(1, count + 1)]


def of_group(group: Group) -> list[schemas.ComerIn]:
    people = Person.objects.of(group.club).filter(groups=group, archived_at=None)[:MOST_PEOPLE]
    return [schemas.ComerIn(uid=f"person-{who.pk}", person_id=who.pk, name=who.name) for who in people]


def _usual(club: Club) -> schemas.ClassAskedIn:
    """What nothing was said of: the gear and the minutes of the last class, and people without names."""
    asked = schemas.ClassAskedIn(people=_guests(USUAL_PEOPLE))
    last = ClassPlan.objects.of(club).first()
    if last is None:
        return asked
    known = schemas.ClassAskedIn(**last.asked)
    return asked.model_copy(update={name: getattr(known, name) for name in GEAR})


@router.get("/classes", response=list[schemas.ClassRow], operation_id="classes")
def classes(request: HttpRequest) -> list[schemas.ClassRow]:
    """The club's classes, the last changed first."""
    rows = ClassPlan.objects.of(coach(request).own_club).select_related("session")
    return [_row(plan) for plan in rows[:MOST_CLASSES]]


def _row(plan: ClassPlan) -> schemas.ClassRow:
    asked = plan.asked
    return schemas.ClassRow(
        id=plan.pk, title=plan.title, on=asked["on"], at=asked["at"], people=len(asked["people"]),
        school_name=SCHOOLS[asked["school"]].name, total_s=from_document(plan.session.document).total_s,
        session_id=plan.session_id, saved_at=plan.saved_at,
    )  # fmt: skip


@router.get("/classes/needs", response=schemas.ClassNeeds, operation_id="class_needs")
def class_needs(request: HttpRequest) -> schemas.ClassNeeds:
    """What stands before anything is asked: the gear of the last class, and the schools."""
    return schemas.ClassNeeds(
        asked=_usual(coach(request).own_club),
        schools=[
            {"id": each.id, "name": each.name, "meaning": each.meaning, "reason": each.reason}
            for each in SCHOOLS.values()
        ],
        floor_does=[{"id": name, "word": words} for name, (_, _, words) in FLOOR_DOES.items()],
    )


@router.post("/classes/line", response={200: schemas.LineOut, 422: Faults}, operation_id="read_class_line")
def read_class_line(request: HttpRequest, body: schemas.LineIn) -> schemas.LineOut:
    """A class from one line, with what was understood and what was not; the rest as in the last class."""
    club = coach(request).own_club
    groups = {group.name: group for group in Group.objects.of(club)}
    try:
        line = read_line(body.text, timezone.localdate(), tuple(groups), club.school)
    except ClassError as error:
        raise FieldError(["body", "text"], sentence(error), "line") from error
    told = dict(line.fields)
    group = groups.get(line.group or "")
    count = told.pop("count", None)
    people = of_group(group) if group else []
    if count is not None and count > MOST_PEOPLE:
        raise FieldError(["body", "text"], f"A class has at most {MOST_PEOPLE} people, not {count}.", "line")
    if count is not None and count > len(people):
        people += _guests(count)[len(people) :] if people else _guests(count)
    if "pattern" in told:
        told["pattern"] = round_text(told["pattern"], club.school)
    if "combination" in told:
        told["combination"] = notation.write(told["combination"], club.school)
    usual = _usual(club).model_dump()
    if people:
        usual["people"] = [each.model_dump() for each in people[: count or None]]
    return schemas.LineOut(
        asked=schemas.ClassAskedIn(**{**usual, **told, "group_id": group.pk if group else None, "on": line.on,
                                      "at": line.at}),
        understood=[schemas.UnderstoodOut(**vars(each)) for each in line.understood],
        unread=line.unread,
    )  # fmt: skip


def class_out(plan: ClassPlan, made: "Made | None" = None) -> schemas.ClassOut:
    """The class as it is told; worked out here where it was not just before."""
    asked = schemas.ClassAskedIn(**plan.asked)
    answer, broken = None, None
    try:
        made = made or kept_made(core_class(plan.club, asked), plan.rows)
        if made is None:
            broken = "Who is where is not of this class any more. Solve it again."
        else:
            answer = class_answer(made, plan.club.school)
    except FieldError as error:
        broken = str(error)
    return schemas.ClassOut(
        id=plan.pk, session_id=plan.session_id, revision=plan.revision, asked=asked,
        group=plan.group.name if plan.group else None, answer=answer, broken=broken,
    )  # fmt: skip


@router.post("/classes", response={201: schemas.ClassOut, 404: Message, 422: Faults}, operation_id="create_class")
@once
def create_class(request: HttpRequest, body: schemas.ClassIn) -> Status[schemas.ClassOut]:
    """A class as it was solved. It has a session that is run, and a day in Today where one is said."""
    user = coach(request)
    if ClassPlan.objects.of(user.own_club).count() >= MOST_CLASSES:
        raise FieldError(["body"], f"{MOST_CLASSES} classes are kept. Delete one that is over first.", "class")
    return Status(201, class_out(*save(user, body, None)))


@router.get("/classes/{class_id}", response={200: schemas.ClassOut, 404: Message}, operation_id="class_plan")
def class_plan(request: HttpRequest, class_id: int) -> schemas.ClassOut:
    return class_out(find_class(coach(request).own_club, class_id))


@router.put(
    "/classes/{class_id}",
    response={200: schemas.ClassOut, 404: Message, 409: Message, 422: Faults},
    operation_id="save_class",
)
def save_class(request: HttpRequest, class_id: int, body: schemas.ClassIn) -> schemas.ClassOut:
    """The whole class as it is now."""
    user = coach(request)
    return class_out(*save(user, body, find_class(user.own_club, class_id)))


@router.get(
    "/sessions/{session_id}/class", response={200: schemas.ClassOfSession | None, 404: Message}, operation_id="class_of"
)
def class_of(request: HttpRequest, session_id: int) -> schemas.ClassOfSession | None:
    """The class that a session is of; nothing where it is of none."""
    plan = ClassPlan.objects.of(club_of(request)).filter(session_id=session_id).first()
    return None if plan is None else schemas.ClassOfSession(class_id=plan.pk, title=plan.title)


@router.delete("/classes/{class_id}", response={204: None, 404: Message}, operation_id="delete_class")
def delete_class(request: HttpRequest, class_id: int) -> Status[None]:
    """The class, and what of it is still to come. What was run stays in the log."""
    forget(find_class(coach(request).own_club, class_id))
    return Status(204, None)
