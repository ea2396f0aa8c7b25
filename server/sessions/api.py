"""The club's sessions as they are kept: saved with every version, brought together, taken out and brought in."""

import json
from collections.abc import Container
from datetime import timedelta
from functools import lru_cache
from typing import TYPE_CHECKING, Any, Literal, TypeAlias
from uuid import uuid4

from django.db import transaction
from django.db.models import TextField
from django.db.models.functions import Cast
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, Router, Status
from ninja.errors import HttpError
from ninja.pagination import paginate

from server.accounts.current import club_of, coach
from server.accounts.models import Club, User
from server.accounts.once import once
from server.errors import Faults, FieldError, Message
from server.files import named
from server.pages import Listed, Pages
from server.roster.api import find_person
from server.sessions import schemas
from server.sessions.documents import core_session, unrolled
from server.sessions.models import Session as Saved
from server.sessions.models import Version
from yoisho.formats import FORMATS
from yoisho.judgement.targets import TARGETS
from yoisho.plain import sentence
from yoisho.session import shorthand
from yoisho.session.called import called
from yoisho.session.document import from_document, to_document
from yoisho.session.interval import SessionError
from yoisho.session.merge import chosen, merge
from yoisho.session.over_weeks import sessions_over

router = Router(tags=["sessions"])

ONE_SITTING = timedelta(minutes=5)
"""Saves that the app makes by itself within this time are one version of the history."""
SHOWN_REMEMBERED = 6000
"""Documents of which a process remembers what a list shows: some ten megabytes."""

if TYPE_CHECKING:
    Written: TypeAlias = str
else:
    Written = Literal[tuple(each.id for each in FORMATS.values() if each.write)]


def find_session(club: Club, session_id: int) -> Saved:
    return Saved.objects.find(club, "session", pk=session_id)


def _series_of(saved: Saved, due: Container[int] = ()) -> dict[str, object] | None:
    if saved.series is None:
        return None
    return {"id": str(saved.series), "week": saved.week, "weeks": saved.weeks, "due": saved.pk in due}


def _due(club: Club) -> frozenset[int]:
    """Of every series the first session that nobody has run yet."""
    unrun = Saved.objects.of(club).filter(series__isnull=False).exclude(runs__results__isnull=False)
    # The later weeks first: of each series the earliest is what stays.
    return frozenset(dict(unrun.order_by("-week").values_list("series", "pk")).values())


def _out(saved: Saved) -> dict[str, object]:
    return {
        "id": saved.pk,
        # As the core writes it: of this version, and in its order, whatever the database has kept.
        "document": to_document(from_document(saved.document)),
        "person_id": saved.person_id,
        "target": saved.target,
        "tags": saved.tags,
        "revision": saved.revision,
        "saved_at": saved.saved_at.isoformat(),
    }


@router.get("/sessions", response=list[schemas.SessionRow], operation_id="sessions")
@paginate(Pages)
def sessions(request: HttpRequest) -> Listed:
    """The club's sessions, the last saved first."""
    club = club_of(request)
    due = _due(club)

    def row(saved: Saved) -> dict[str, object]:
        title, total_s, text = _shown(saved.written, club.school)  # type: ignore[attr-defined]
        return {
            "id": saved.pk,
            "title": title,
            "person": saved.person.name if saved.person else None,
            "target": saved.target,
            "tags": saved.tags,
            "total_s": total_s,
            "text": text,
            "saved_at": saved.saved_at.isoformat(),
            "series": _series_of(saved, due),
        }

    listed = Saved.objects.of(club).filter(in_lists=True).select_related("person").defer("document", "calls", "board")
    return Listed(listed.annotate(written=Cast("document", TextField())), row)


@lru_cache(SHOWN_REMEMBERED)
def _shown(written: str, school: str) -> tuple[str, int, tuple[str, ...]]:
    """Title, length [s] and lines of a session, from its document as it is kept: a library is looked at often."""
    session = from_document(json.loads(written))
    return session.title, session.total_s, tuple(shorthand.write(part.tree, school) for part in session.parts)


def _checked(body: schemas.SessionState, club: Club) -> dict[str, object]:
    session = body.document
    unrolled(session)
    return {
        "document": to_document(session),
        "person": find_person(club, body.person_id),
        "target": body.target,
        "tags": list(dict.fromkeys(body.tags)),
    }


def _keep(saved: Saved, user: User, *, by_itself: bool) -> None:
    """Write the session as it is now into its history."""
    now = timezone.now()
    last = saved.versions.first()
    state = {"document": saved.document, "person": saved.person, "target": saved.target, "tags": saved.tags}
    state |= {"revision": saved.revision, "saved_at": now}
    sitting = (
        by_itself
        and last is not None
        and last.by_itself
        and last.saved_by_id == user.pk
        and now - last.begun_at < ONE_SITTING
    )
    if sitting and last is not None:
        Version.objects.filter(pk=last.pk).update(**state)
    else:
        Version.objects.create(session=saved, saved_by=user, by_itself=by_itself, begun_at=now, **state)


def _create(user: User, **state: object) -> Saved:
    with transaction.atomic():
        saved = Saved.objects.create(club=user.own_club, saved_by=user, **state)
        _keep(saved, user, by_itself=False)
    return saved


@router.post(
    "/sessions",
    response={201: schemas.SessionOut, 404: Message, 422: Faults},
    operation_id="create_session",
)
@once
def create_session(request: HttpRequest, body: schemas.SessionIn) -> Status[dict[str, object]]:
    """A session of its own; one without a title is called after its pattern."""
    user = coach(request)
    named = body.model_copy(update={"document": called(body.document, user.own_club.school)})
    return Status(201, _out(_create(user, **_checked(named, user.own_club))))


@router.post(
    "/series", response={201: list[schemas.SessionOut], 404: Message, 422: Faults}, operation_id="create_series"
)
@once
def create_series(request: HttpRequest, body: schemas.SeriesIn) -> Status[list[dict[str, object]]]:
    """A ladder over weeks as sessions of one series: each week has the session with its own lines in a part's place."""
    user = coach(request)
    try:
        planned = sessions_over(body.document, body.part, body.text, user.own_club.school)
    except shorthand.ShorthandError as error:
        raise FieldError(["body", "text"], error.message, "shorthand", error.as_dict()) from error
    except SessionError as error:
        raise FieldError(["body", error.field or "text"], sentence(error), "series") from error
    state = _checked(body, user.own_club)
    series = uuid4()
    with transaction.atomic():
        made = [
            _create(user, **{**state, "document": to_document(each)}, series=series, week=week, weeks=len(planned))
            for week, each in enumerate(planned, 1)
        ]
    return Status(201, [_out(saved) for saved in made])


@router.get("/sessions/{session_id}/export", response={200: Any, 404: Message}, operation_id="export_session")
def export_session(request: HttpRequest, session_id: int, form: Written = "session-json") -> HttpResponse:
    """The session as a file, in one of the open formats."""
    saved = find_session(club_of(request), session_id)
    written = FORMATS[form]
    assert written.write is not None
    answer = HttpResponse(written.write(from_document(saved.document)), content_type=written.media_type)
    return named(answer, str(saved), f".{written.extension}", "session")


@router.post("/sessions/import", response={201: schemas.SessionOut, 422: Faults}, operation_id="import_session")
@once
def import_session(request: HttpRequest, document: Body[Any]) -> Status[dict[str, object]]:
    """A session from a document of any version, as the club's own."""
    user = coach(request)
    session = core_session(document)
    unrolled(session)
    purposes = (part.purpose for part in session.parts if part.purpose in TARGETS)
    saved = _create(user, document=to_document(session), target=next(purposes, "lactic-capacity"))
    return Status(201, _out(saved))


@router.get(
    "/sessions/{session_id}",
    response={200: schemas.SessionOut, 404: Message},
    operation_id="get_session",
)
def get_session(request: HttpRequest, session_id: int) -> dict[str, object]:
    return _out(find_session(club_of(request), session_id))


@router.put(
    "/sessions/{session_id}",
    response={200: schemas.SessionOut, 404: Message, 409: Message, 422: Faults},
    operation_id="save_session",
)
@once
def save_session(request: HttpRequest, session_id: int, body: schemas.SessionIn) -> dict[str, object]:
    user = coach(request)
    saved = find_session(user.own_club, session_id)
    changes = _checked(body, user.own_club)
    with transaction.atomic():
        saved = Saved.objects.select_for_update().get(pk=saved.pk)
        if body.revision is not None and body.revision != saved.revision:
            if saved.saved_by == user and all(getattr(saved, name) == value for name, value in changes.items()):
                # It is the coach's own save, whose answer was lost.
                return _out(saved)
            who = saved.saved_by.get_full_name() if saved.saved_by else "somebody"
            raise HttpError(
                409,
                f"This session was saved elsewhere since you opened it, by {who}. Merge yours, or save it as a copy.",
            )
        for name, value in changes.items():
            setattr(saved, name, value)
        saved.saved_by = user
        saved.revision += 1
        saved.save()
        _keep(saved, user, by_itself=body.by_itself)
    return _out(saved)


def _version_out(version: Version, school: str) -> dict[str, object]:
    session = from_document(version.document)
    return {
        "revision": version.revision,
        "saved_at": version.saved_at.isoformat(),
        "saved_by": version.saved_by.get_full_name() if version.saved_by else None,
        "by_itself": version.by_itself,
        "document": to_document(session),
        "person_id": version.person_id,
        "target": version.target,
        "tags": version.tags,
        "total_s": session.total_s,
        "text": [shorthand.write(part.tree, school) for part in session.parts],
    }


@router.get(
    "/sessions/{session_id}/versions",
    response={200: list[schemas.SavedVersion], 404: Message},
    operation_id="versions",
)
@paginate(Pages)
def versions(request: HttpRequest, session_id: int) -> Listed:
    """The history of a session, the latest first: who saved what, and when."""
    club = club_of(request)
    found = find_session(club, session_id).versions.select_related("saved_by")
    return Listed(found, lambda version: _version_out(version, club.school))


@router.post("/merge", response={200: schemas.MergeOut, 422: Faults}, operation_id="merge_sessions")
def merge_sessions(request: HttpRequest, body: schemas.MergeIn) -> dict[str, object]:
    """Two edits of one session brought together."""
    try:
        merged = merge(body.base.document, body.mine.document, body.theirs.document)
    except SessionError as error:
        raise FieldError(["body", "mine", "document", "parts"], str(error), "document") from error
    settled: dict[str, object] = {}
    notes = list(merged.notes)
    for name, word in (("person_id", "person"), ("target", "purpose"), ("tags", "tags")):
        sides = (getattr(side, name) for side in (body.base, body.mine, body.theirs))
        settled[name], both = chosen(*sides)
        if both:
            notes.append(f"Both changed the {word}: yours stands.")
    return {"document": to_document(merged.session), "notes": notes, **settled}


@router.delete("/sessions/{session_id}", response={204: None, 404: Message}, operation_id="delete_session")
def delete_session(request: HttpRequest, session_id: int) -> Status[None]:
    find_session(club_of(request), session_id).delete()
    return Status(204, None)
