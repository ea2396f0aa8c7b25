"""Links to a session: made and taken back by a coach, opened by whoever has one."""

from dataclasses import dataclass
from datetime import date, datetime
from typing import Annotated, Any
from uuid import UUID

import segno
from django.conf import settings
from django.db import IntegrityError, transaction
from django.db.models import F
from django.http import FileResponse, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router, Schema, Status
from ninja.errors import HttpError
from pydantic import Field, StrictInt

from server.accounts.current import club_of, coach
from server.accounts.models import Club
from server.accounts.once import once
from server.days import Day, Instant
from server.errors import Faults, FieldError, Message, not_found
from server.logbook.api import save
from server.logbook.schemas import LogIn
from server.roster.api import find_person
from server.runs.called import phrases_of
from server.runs.kept import plan_for
from server.runs.schemas import LONGEST_RUN_S, RecordIn, RunIn, RunPlan
from server.runs.speech import is_kept, opened, phrase_id
from server.runs.told import plan_out
from server.sendout.models import SentBack, ShareLink
from server.sessions.api import find_session
from server.sessions.documents import core_session
from yoisho.answers.wall_sheet import WallSheet, wall_sheet
from yoisho.session.document import from_document

router = Router(tags=["send out"])
MOST_LINKS = 50
"""Of one session that still open."""
MOST_WAITING = 400
"""Of one link, that nobody has taken yet."""


def address_of(request: HttpRequest, link: ShareLink) -> str:
    base = settings.ADDRESS or f"{request.scheme}://{request.get_host()}"
    return f"{base}/s/{link.token}"


class LinkIn(Schema):
    session_id: int
    person_id: int | None = None
    """Whom it is for; what comes back is proposed as theirs."""
    last_day: Day | None = None


class LinkOut(Schema):
    id: int
    address: str
    code: str
    """The address as a picture: a data URI."""
    person_id: int | None
    person: str | None
    made_at: datetime
    last_day: date | None
    ended: str
    """Why it opens nothing any more; empty while it does."""
    openings: int
    sent_back: int


def _out(request: HttpRequest, link: ShareLink) -> LinkOut:
    address = address_of(request, link)
    return LinkOut(
        id=link.pk,
        address=address,
        code=segno.make(address, error="m").svg_data_uri(scale=4, border=2, dark="#1d2740", light="#ffffff"),
        person_id=link.person_id,
        person=link.person.name if link.person else None,
        made_at=link.made_at,
        last_day=link.last_day,
        ended=link.ended,
        openings=link.openings,
        sent_back=link.sent_back.count(),
    )


@router.get("/sessions/{session_id}/links", response={200: list[LinkOut], 404: Message}, operation_id="links")
def links(request: HttpRequest, session_id: int) -> list[LinkOut]:
    """Every link to a session, the newest first; also those that have ended."""
    saved = find_session(club_of(request), session_id)
    return [_out(request, link) for link in saved.share_links.select_related("person")[: 4 * MOST_LINKS]]


@router.post("/links", response={201: LinkOut, 404: Message, 422: Faults}, operation_id="make_link")
@once
def make_link(request: HttpRequest, body: LinkIn) -> Status[LinkOut]:
    """A link that opens the session for whoever has it, until its last day or until it is taken back."""
    user = coach(request)
    saved = find_session(user.own_club, body.session_id)
    if body.last_day and body.last_day < timezone.localdate():
        raise FieldError(["body", "last_day"], "This day is over. Choose today or a later one, or none.", "date")
    if sum(not link.ended for link in saved.share_links.all()) >= MOST_LINKS:
        raise FieldError(["body"], f"{MOST_LINKS} links of this session are open. Take back one of them first.", "link")
    link = ShareLink.objects.create(
        club=user.own_club, session=saved, person=find_person(user.own_club, body.person_id), made_by=user,
        last_day=body.last_day,
    )  # fmt: skip
    return Status(201, _out(request, link))


@router.delete("/links/{link_id}", response={200: LinkOut, 404: Message}, operation_id="take_back_link")
def take_back_link(request: HttpRequest, link_id: int) -> LinkOut:
    """From now on it opens nothing."""
    link = ShareLink.objects.find(club_of(request), "link", pk=link_id)
    link.revoked_at = link.revoked_at or timezone.now()
    link.save(update_fields=["revoked_at"])
    return _out(request, link)


# What whoever has a link may ask


def _link(token: str) -> ShareLink:
    """The link, whether it has ended or not. 404 for one that never was."""
    link = ShareLink.objects.filter(token=token).select_related("session__club").first()
    if link is None:
        raise HttpError(404, "There is no such link. Ask whoever sent it to send it again.")
    return link


def _opened(token: str) -> ShareLink:
    """The link, where it still opens. 410 with the reason for one that has ended."""
    link = _link(token)
    if link.ended:
        raise HttpError(410, f"This link is {link.ended}. Ask whoever sent it for a new one.")
    return link


@dataclass(frozen=True)
class SharedOut:
    plan: RunPlan
    """As the floor runs it."""
    sheet: WallSheet
    """To be read."""


@router.get(
    "/shared/{token}",
    auth=None,
    response={200: SharedOut, 404: Message, 410: Message, 422: Faults},
    operation_id="open_link",
)
def open_link(request: HttpRequest, token: str, response: HttpResponse) -> SharedOut:
    """The session that a link opens, as the floor runs it: for nobody in particular, and with nobody's name."""
    link = _opened(token)
    session = link.session
    plan = plan_for(from_document(session.document), 1, "path", "token")
    told = plan_out(plan, session.club, session, session.revision, None)
    sheet = wall_sheet(plan.session, session.target, session.club.school)
    ShareLink.objects.filter(pk=link.pk).update(openings=F("openings") + 1)
    response.headers["X-Robots-Tag"] = "noindex"
    response.headers["Cache-Control"] = "no-store"
    return SharedOut(told, sheet)


@router.get(
    "/shared/{token}/speech/{phrase}",
    auth=None,
    response={200: None, 404: Message, 410: Message},
    operation_id="speech_of_link",
)
def speech_of_link(request: HttpRequest, token: str, phrase: str) -> FileResponse:
    """A phrase that is called in the session of a link, and no other."""
    link = _opened(token)
    if phrase not in {phrase_id(text) for text in phrases_of(link.session)} or not is_kept(phrase):
        raise not_found("phrase")
    answer = FileResponse(opened(phrase), content_type="audio/wav")
    answer.headers["Cache-Control"] = "private, max-age=31536000, immutable"
    return answer


class SentBackIn(Schema):
    run_id: UUID
    """Made where it was run: sent again it is kept once."""
    name: Annotated[str, Field(max_length=60)] = ""
    """Who says to be it; nobody checks it."""
    document: dict[str, Any]
    """The plan as it stood when the run began."""
    revision: Annotated[StrictInt, Field(ge=0)] = 1
    started_at: Instant
    done_s: Annotated[StrictInt, Field(ge=0, le=LONGEST_RUN_S)]
    done_efforts: Annotated[StrictInt, Field(ge=0, le=5000)]
    rpe: Annotated[StrictInt, Field(ge=0, le=10)]
    note: Annotated[str, Field(max_length=1000)] = ""
    record: RecordIn | None = None


@router.post(
    "/shared/{token}/sent-back",
    auth=None,
    response={201: Message, 404: Message, 410: Message, 422: Faults},
    operation_id="send_back",
)
def send_back(request: HttpRequest, token: str, body: SentBackIn) -> Status[Message]:
    """How it went, from whoever has the link. It waits in the coach's log until it is taken.

    A run that began while the link was open may be sent after its end.
    """
    link = _link(token)
    if link.revoked_at and body.started_at > link.revoked_at:
        raise HttpError(410, "This link was taken back before the run began. Tell the coach yourself.")
    session = core_session(body.document, "document")
    plan = plan_for(session, 1, "body", "document")
    if body.done_efforts > len(plan.efforts):
        raise FieldError(["body", "done_efforts"], f"The session has {len(plan.efforts)} efforts.", "log")
    if link.sent_back.count() >= MOST_WAITING:
        raise HttpError(410, "Too much waits by this link already. Tell the coach yourself.")
    try:
        with transaction.atomic():
            SentBack.objects.create(
                club=link.session.club, link=link, person=link.person, run_id=body.run_id, name=body.name.strip(),
                entry=body.model_dump(mode="json", exclude={"name"}) | {"session_id": link.session_id},
            )  # fmt: skip
    except IntegrityError:
        # It was sent before, and its answer was lost.
        return Status(201, Message(detail="It is with the coach already."))
    return Status(201, Message(detail="It is with the coach. It is logged once they have taken it."))


# What comes back, in the coach's hands


class SentBackOut(Schema):
    id: int
    title: str
    name: str
    person_id: int | None
    """Whom the link was for."""
    started_at: datetime
    received_at: datetime
    total_s: int
    done_s: int
    done_efforts: int
    efforts: int
    rpe: int
    note: str
    heart: int
    """Heart rates that came with it."""


class TakeIn(Schema):
    person_id: int


def _sent_out(sent: SentBack) -> SentBackOut:
    told = sent.entry
    plan = plan_for(core_session(told["document"], "document"), 1, "path", "sent_id")
    return SentBackOut(
        id=sent.pk,
        title=plan.session.title,
        name=sent.name,
        person_id=sent.person_id,
        started_at=told["started_at"],
        received_at=sent.received_at,
        total_s=plan.timeline.total_s,
        done_s=told["done_s"],
        done_efforts=told["done_efforts"],
        efforts=len(plan.efforts),
        rpe=told["rpe"],
        note=told["note"],
        heart=len((told["record"] or {}).get("heart", ())),
    )


@router.get("/sent-back", response=list[SentBackOut], operation_id="sent_back")
def sent_back(request: HttpRequest) -> list[SentBackOut]:
    """What athletes have sent by a link and nobody has taken yet, the newest first."""
    return [_sent_out(each) for each in SentBack.objects.of(club_of(request))[:MOST_WAITING]]


def _find(club: Club, sent_id: int) -> SentBack:
    return SentBack.objects.find(club, "thing sent back", pk=sent_id)


@router.post(
    "/sent-back/{sent_id}/take", response={200: Message, 404: Message, 422: Faults}, operation_id="take_sent_back"
)
def take_sent_back(request: HttpRequest, sent_id: int, body: TakeIn) -> Message:
    """Into the log, as somebody's. It is there or it still waits: never both, never neither."""
    user = coach(request)
    with transaction.atomic():
        sent = _find(user.own_club, sent_id)
        told = sent.entry
        run = RunIn(
            session_id=told["session_id"], revision=told["revision"], document=told["document"],
            person_id=body.person_id,
        )  # fmt: skip
        record = RecordIn(**told["record"]) if told["record"] else None
        own = {name: told[name] for name in ("started_at", "done_s", "done_efforts", "rpe")}
        note = f"From the athlete. {told['note']}".strip()
        entry = LogIn(run=run, person_id=body.person_id, note=note, record=record, **own)
        save(user, sent.run_id, entry)
        sent.delete()
    return Message(detail="It is in the log.")


@router.delete("/sent-back/{sent_id}", response={204: None, 404: Message}, operation_id="drop_sent_back")
def drop_sent_back(request: HttpRequest, sent_id: int) -> Status[None]:
    """Thrown away: nothing of it is logged."""
    _find(club_of(request), sent_id).delete()
    return Status(204, None)
