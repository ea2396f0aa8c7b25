import json
from dataclasses import asdict
from typing import Any

from django.db.models import F
from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from django.utils.text import slugify
from ninja import Body, Router, Status
from ninja.errors import HttpError

from server.accounts.current import club, coach
from server.accounts.models import Club
from server.errors import Faults, FieldError, Message, not_found
from server.roster.api import core_of, find_person
from server.sessions import schemas
from server.sessions.circumstances import circumstances_of
from server.sessions.evaluation import core_session, evaluate, proposal_out, unrolled
from server.sessions.models import Session as Saved
from yoisho.design.nudge import make_it_so, nudges
from yoisho.design.propose import Limits, ProposalError, propose_all
from yoisho.engine.person import Person
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.targets import TARGETS
from yoisho.session import shorthand
from yoisho.session.document import Part, Session, from_document, part_to_dict, to_document
from yoisho.session.meaning import meaning
from yoisho.session.means import MEANS
from yoisho.session.purposes import PURPOSES
from yoisho.session.shorthand import assist
from yoisho.session.tempo import TEMPOS
from yoisho.session.tree import duration_s
from yoisho.strikes.schools import SCHOOLS

router = Router(tags=["sessions"])

EXAMPLES = [
    "8 x (20 all out / 10 rest)",
    "2 x (30 technique, 30 speed, 30 power) rest 0:15; then 1:00",
    "2 x (8 x (30 all out, 30 flow)) rest 2:00",
    "3 x 3:00 technique rest 1:00",
]


@router.get("/vocabulary", response=schemas.Vocabulary, operation_id="vocabulary")
def vocabulary(request: HttpRequest) -> schemas.Vocabulary:
    """The effort words, the purposes, and lines to begin from."""
    return schemas.Vocabulary(
        purposes=[schemas.Named(id=p.id, name=p.word) for p in PURPOSES.values()],
        means=[schemas.MeansOut(id=m.id, name=m.word, struck=m.strikes) for m in MEANS.values()],
        schools=[schemas.Named(id=s.id, name=s.name) for s in SCHOOLS.values()],
        tempos=[
            schemas.TempoOut(
                id=tempo.id,
                word=tempo.word,
                kind=tempo.kind,
                demand_frac=tempo.demand_frac,
                strikes_per_min=tempo.strikes_per_min,
                rpe=tempo.rpe,
                meaning=tempo.meaning,
            )
            for tempo in TEMPOS.values()
        ],
        targets=[schemas.TargetOut(id=t.id, name=t.name, meaning=t.meaning) for t in TARGETS.values()],
        examples=EXAMPLES,
    )


@router.post(
    "/read",
    response={200: schemas.ShorthandOut, 422: Faults},
    exclude_unset=True,
    operation_id="read_shorthand",
)
def read_shorthand(request: HttpRequest, body: schemas.ShorthandIn) -> dict[str, object]:
    """Lines of shorthand as parts, with their canonical form, what they mean, and what each word is."""
    school = club(request).school
    try:
        named = shorthand.names_parts(body.text)
        parts = shorthand.read_parts(body.text, school) if named else (Part("", shorthand.read(body.text, school)),)
    except shorthand.ShorthandError as error:
        spans = [asdict(span) for span in assist.spans(body.text[: error.position])]
        raise FieldError(["body", "text"], error.message, "shorthand", {**error.as_dict(), "spans": spans}) from error
    return {
        "parts": [part_to_dict(part) for part in parts],
        "named": named,
        "text": shorthand.write_parts(parts, school) if named else shorthand.write(parts[0].tree, school),
        "meaning": [meaning(part.tree) for part in parts],
        "spans": [asdict(span) for span in assist.spans(body.text)],
    }


@router.post("/complete", response={200: schemas.CompleteOut, 422: Faults}, operation_id="complete_shorthand")
def complete_shorthand(request: HttpRequest, body: schemas.CompleteIn) -> dict[str, object]:
    """What could be typed next."""
    return asdict(assist.complete(body.text))


@router.post(
    "/evaluate", response={200: schemas.Evaluation, 404: Message, 422: Faults}, operation_id="evaluate_session"
)
def evaluate_session(request: HttpRequest, body: schemas.EvaluateIn) -> HttpResponse:
    """The session drawn, simulated for the person and judged for the purpose."""
    who = find_person(club(request), body.person_id)
    around = circumstances_of(who, body.wbgt_c)
    answer = evaluate(body.document, core_of(who), body.target, around, club(request).school)
    # Already of the declared shape: having it checked once more would cost a fifth of the request.
    return HttpResponse(answer.model_dump_json(), content_type="application/json")


@router.post(
    "/propose",
    response={200: schemas.ProposeOut, 404: Message, 422: Faults},
    exclude_unset=True,
    operation_id="propose_session",
)
def propose_session(request: HttpRequest, body: schemas.ProposeIn) -> dict[str, object]:
    """Three to five protocols of different schools for the purpose, the person and the limits."""
    own = club(request)
    who = core_of(find_person(own, body.person_id))
    try:
        limits = Limits(body.minutes, body.means, kicks=body.kicks, most_strikes=body.most_strikes)
        found = propose_all(who, body.target, limits)
    except ProposalError as error:
        raise FieldError(["body", "minutes"], str(error), "proposal") from error
    return {"proposals": [proposal_out(each, body.target, own.school) for each in found]}


def _nudged(request: HttpRequest, body: schemas.NudgeIn) -> tuple[Person, Session, str, Circumstances, int | None]:
    who = find_person(club(request), body.person_id)
    session = core_session(body.document.model_dump())
    unrolled(session)
    return core_of(who), session, body.target, circumstances_of(who, body.wbgt_c), body.minutes


@router.post(
    "/nudges",
    response={200: list[schemas.NudgeOut], 404: Message, 422: Faults},
    exclude_unset=True,
    operation_id="nudges",
)
def nudges_for(request: HttpRequest, body: schemas.NudgeIn) -> list[dict[str, object]]:
    """Small changes that serve the purpose or cure a caution, each with what it would do."""
    return [
        {
            "name": nudge.name,
            "part": nudge.part,
            "document": to_document(nudge.session),
            "strokes": nudge.strokes,
            "changes": [asdict(change) for change in nudge.changes],
            "cures": list(nudge.cures),
        }
        for nudge in nudges(*_nudged(request, body))
    ]


@router.post(
    "/make-it-so",
    response={200: schemas.SeriesOut, 404: Message, 422: Faults},
    exclude_unset=True,
    operation_id="make_it_so",
)
def make_it_so_for(request: HttpRequest, body: schemas.NudgeIn) -> dict[str, object]:
    """The shortest series of nudges after which the session trains its purpose, or as near as it gets."""
    found = make_it_so(*_nudged(request, body))
    return {
        "steps": list(found.steps),
        "document": to_document(found.session),
        "strokes": found.strokes,
        "reached": found.reached,
    }


def find_session(own: Club, session_id: int) -> Saved:
    found = Saved.objects.filter(club=own, pk=session_id).first()
    if found is None:
        raise not_found("session")
    return found


def _out(saved: Saved) -> dict[str, object]:
    return {
        "id": saved.pk,
        "document": saved.document,
        "person_id": saved.person_id,
        "target": saved.target,
        "revision": saved.revision,
        "saved_at": saved.saved_at.isoformat(),
    }


@router.get("/sessions", response=list[schemas.SessionRow], operation_id="sessions")
def sessions(request: HttpRequest) -> list[dict[str, object]]:
    rows = []
    own = club(request)
    for saved in Saved.objects.filter(club=own).select_related("person"):
        session = from_document(saved.document)
        rows.append(
            {
                "id": saved.pk,
                "title": session.title,
                "person": saved.person.name if saved.person else None,
                "target": saved.target,
                "total_s": sum(duration_s(part.tree) for part in session.parts),
                "text": [shorthand.write(part.tree, own.school) for part in session.parts],
                "saved_at": saved.saved_at.isoformat(),
            }
        )
    return rows


def _checked(body: schemas.SessionIn, own: Club) -> dict[str, object]:
    session = core_session(body.document.model_dump())
    unrolled(session)
    return {
        "document": to_document(session),
        "person": find_person(own, body.person_id),
        "target": body.target,
    }


@router.post(
    "/sessions",
    response={201: schemas.SessionOut, 404: Message, 422: Faults},
    exclude_unset=True,
    operation_id="create_session",
)
def create_session(request: HttpRequest, body: schemas.SessionIn) -> Status[dict[str, object]]:
    user = coach(request)
    saved = Saved.objects.create(club=user.own_club, saved_by=user, **_checked(body, user.own_club))
    return Status(201, _out(saved))


@router.get("/sessions/{session_id}/export", response={200: Any, 404: Message}, operation_id="export_session")
def export_session(request: HttpRequest, session_id: int) -> HttpResponse:
    """The document as a file."""
    saved = find_session(club(request), session_id)
    answer = HttpResponse(json.dumps(saved.document, indent=2, ensure_ascii=False), content_type="application/json")
    answer.headers["Content-Disposition"] = content_disposition_header(True, f"{slugify(str(saved)) or 'session'}.json")
    return answer


@router.post("/sessions/import", response={201: schemas.SessionOut, 422: Faults}, exclude_unset=True,
             operation_id="import_session")  # fmt: skip
def import_session(request: HttpRequest, document: Body[Any]) -> Status[dict[str, object]]:
    """A session from a document of any version, as the club's own."""
    user = coach(request)
    session = core_session(document)
    unrolled(session)
    purposes = (part.purpose for part in session.parts if part.purpose in TARGETS)
    saved = Saved.objects.create(
        club=user.own_club,
        saved_by=user,
        document=to_document(session),
        target=next(purposes, "lactic-capacity"),
    )
    return Status(201, _out(saved))


@router.get(
    "/sessions/{session_id}",
    response={200: schemas.SessionOut, 404: Message},
    exclude_unset=True,
    operation_id="get_session",
)
def get_session(request: HttpRequest, session_id: int) -> dict[str, object]:
    return _out(find_session(club(request), session_id))


@router.put(
    "/sessions/{session_id}",
    response={200: schemas.SessionOut, 404: Message, 409: Message, 422: Faults},
    exclude_unset=True,
    operation_id="save_session",
)
def save_session(request: HttpRequest, session_id: int, body: schemas.SessionIn) -> dict[str, object]:
    user = coach(request)
    saved = find_session(user.own_club, session_id)
    changes = _checked(body, user.own_club)
    for name, value in changes.items():
        setattr(saved, name, value)
    saved.saved_by = user
    expected = body.revision if body.revision is not None else saved.revision
    taken = Saved.objects.filter(pk=saved.pk, revision=expected).update(revision=F("revision") + 1)
    if not taken:
        raise HttpError(409, "This session was saved elsewhere since you opened it. Save yours as a copy, or reload.")
    saved.revision = expected + 1
    saved.save()
    return _out(saved)


@router.delete("/sessions/{session_id}", response={204: None, 404: Message}, operation_id="delete_session")
def delete_session(request: HttpRequest, session_id: int) -> Status[None]:
    find_session(club(request), session_id).delete()
    return Status(204, None)
