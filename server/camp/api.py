"""Camps: the weeks to a bout, made, pushed about by hand, and kept."""

from django.http import HttpRequest
from ninja import Router, Status

from server.accounts.current import club_of, coach
from server.accounts.once import once
from server.camp import schemas
from server.camp.asked import core_camp, whose
from server.camp.keep import Kept, find_camp, forget, save_plan, told_of, word_of
from server.camp.models import Camp, CampSession
from server.camp.told import camp_out, camp_row, placed_out
from server.errors import Faults, FieldError, Message
from server.roster.api import find_person
from server.roster.models import Group
from yoisho.camp.nudges import nudges
from yoisho.camp.plan import Placed

router = Router(tags=["camp"])
MOST_CAMPS = 200


@router.get("/camps", response=list[schemas.CampRow], operation_id="camps")
def camps(request: HttpRequest) -> list[schemas.CampRow]:
    """The club's camps, the last changed first."""
    rows = Camp.objects.of(coach(request).own_club)
    return [camp_row(camp) for camp in rows[:MOST_CAMPS]]


@router.post("/camps", response={201: schemas.CampOut, 404: Message, 422: Faults}, operation_id="create_camp")
@once
def create_camp(request: HttpRequest, body: schemas.NewCamp) -> Status[schemas.CampOut]:
    """What is asked of the weeks, for a person or a group. Its plan is solved after."""
    user = coach(request)
    club = user.own_club
    if (body.person_id is None) == (body.group_id is None):
        raise FieldError(["body", "person_id"], "Choose a person or a group.", "camp")
    if Camp.objects.of(club).count() >= MOST_CAMPS:
        raise FieldError(["body"], f"{MOST_CAMPS} camps are kept. Delete one that is over first.", "camp")
    core_camp(body.asked, club)
    group = None if body.group_id is None else Group.objects.find(club, "group", pk=body.group_id)
    camp = Camp.objects.create(
        club=club, person=find_person(club, body.person_id), group=group, asked=body.asked.model_dump(mode="json"),
        made_by=user,
    )  # fmt: skip
    return Status(201, camp_out(Kept(camp)))


@router.get("/camps/{camp_id}", response={200: schemas.CampOut, 404: Message}, operation_id="camp")
def camp(request: HttpRequest, camp_id: int) -> schemas.CampOut:
    return camp_out(Kept(find_camp(coach(request).own_club, camp_id)))


@router.put(
    "/camps/{camp_id}",
    response={200: schemas.CampOut, 404: Message, 409: Message, 422: Faults},
    operation_id="save_camp",
)
def save_camp(request: HttpRequest, camp_id: int, body: schemas.CampPlanIn) -> schemas.CampOut:
    """The whole plan as it is now. Rules speak of it and do not stop it: what a coach puts there stands there."""
    user = coach(request)
    found = find_camp(user.own_club, camp_id)
    return camp_out(save_plan(found, user, body))


@router.delete("/camps/{camp_id}", response={204: None, 404: Message}, operation_id="delete_camp")
def delete_camp(request: HttpRequest, camp_id: int) -> Status[None]:
    """The camp, and what of it is still to come. What was done stays in the log."""
    forget(find_camp(coach(request).own_club, camp_id))
    return Status(204, None)


@router.get(
    "/camps/{camp_id}/nudges", response={200: list[schemas.CampNudge], 404: Message}, operation_id="camp_nudges"
)
def camp_nudges(request: HttpRequest, camp_id: int) -> list[schemas.CampNudge]:
    """Small changes after which less is broken, the best first."""
    kept = Kept(find_camp(coach(request).own_club, camp_id))
    found = nudges(kept.core, kept.plan, kept.known.ceilings, kept.costs, kept.untouchable)
    told = {str(each.row.uid): told_of(each.row) for each in kept.held}

    def moved(one: Placed) -> schemas.PlacedIn:
        was = told[one.id]
        step = was.step if one.step is None else one.step
        return was.model_copy(update={"on": one.on, "order": one.order, "step": step, "size": one.size})

    return [
        schemas.CampNudge(name=each.name, effect=each.effect, placed=[moved(one) for one in each.placed])
        for each in found
    ]


@router.get(
    "/sessions/{session_id}/camp", response={200: schemas.CampOfSession | None, 404: Message}, operation_id="camp_of"
)
def camp_of(request: HttpRequest, session_id: int) -> schemas.CampOfSession | None:
    """Where a session stands in a camp; nothing where it stands in none."""
    club = club_of(request)
    row = CampSession.objects.filter(camp__club=club, session_id=session_id, cancelled_at=None).first()
    if row is None:
        return None
    kept = Kept(find_camp(club, row.camp_id))
    held = next(each for each in kept.held if each.row.pk == row.pk)
    inside = kept.core.start <= row.on <= kept.core.last
    return schemas.CampOfSession(
        camp_id=row.camp_id, who=whose(kept.camp).name, week=kept.core.week_of(row.on).number if inside else 0,
        weeks=len(kept.core.calendar), purpose=word_of(row.purpose), knob=placed_out(held, kept).knob,
        bout_on=kept.core.bout_on,
    )  # fmt: skip
