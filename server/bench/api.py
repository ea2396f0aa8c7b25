"""The bench: what is typed is read, drawn, simulated, judged and proposed. Nothing is kept."""

from dataclasses import asdict
from typing import Any

import msgspec
from django.http import HttpRequest, HttpResponse
from ninja import Router

from server.accounts.current import club_of
from server.bench import schemas
from server.bench.circumstances import circumstances_for, circumstances_of
from server.bounded import computes
from server.errors import Faults, FieldError, Message
from server.roster.api import core_of, find_person
from server.roster.models import Person as SavedPerson
from server.sessions.documents import unrolled
from yoisho.answers.columns import proposal_column, scaled_column
from yoisho.answers.evaluation import Evaluation, evaluate
from yoisho.design.nudge import make_it_so, nudges
from yoisho.design.propose import Limits, ProposalError, propose_all
from yoisho.design.scale import Scaled, ScaleError, convert, scale, three_of
from yoisho.engine.person import Person
from yoisho.engine.readout import NoWorkError
from yoisho.engine.readout import read as read_session
from yoisho.judgement import claims
from yoisho.judgement.circumstances import Circumstances
from yoisho.plain import sentence
from yoisho.session import shorthand
from yoisho.session.document import Part, Session, part_to_dict, to_document
from yoisho.session.interval import SessionError
from yoisho.session.meaning import meaning
from yoisho.session.modality import MODALITIES
from yoisho.session.rules import RULE_SETS
from yoisho.session.shorthand import assist

router = Router(tags=["bench"])


@router.post(
    "/read",
    response={200: schemas.ShorthandOut, 422: Faults},
    operation_id="read_shorthand",
)
def read_shorthand(request: HttpRequest, body: schemas.ShorthandIn) -> dict[str, object]:
    """Lines of shorthand as parts, with their canonical form, what they mean, and what each word is."""
    school = club_of(request).school
    try:
        named = shorthand.names_parts(body.text)
        parts = shorthand.read_parts(body.text, school) if named else (Part("", shorthand.read(body.text, school)),)
    except shorthand.ShorthandError as error:
        spans = [asdict(span) for span in assist.spans(body.text[: error.position])]
        about = {**error.as_dict(), "spans": spans, "weeks": len(shorthand.weeks(body.text))}
        raise FieldError(["body", "text"], error.message, "shorthand", about) from error
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


def answered(answer: object) -> HttpResponse:
    """An answer of the core as it is: it has the declared shape already, and is not checked once more."""
    return HttpResponse(msgspec.json.encode(answer), content_type="application/json")


@router.post(
    "/evaluate", response={200: Evaluation, 404: Message, 422: Faults, 429: Message}, operation_id="evaluate_session"
)
@computes
def evaluate_session(request: HttpRequest, body: schemas.EvaluateIn) -> HttpResponse:
    """The session drawn, simulated for the person and judged for the purpose."""
    club = club_of(request)
    saved = find_person(club, body.person_id)
    circumstances = circumstances_of(saved, body.wbgt_c)
    try:
        found = evaluate(body.document, core_of(saved), body.target, circumstances, club.school, ranges=body.ranges)
    except SessionError as error:
        raise FieldError(["body", "document", "parts"], str(error), "document") from error
    return answered(found)


@router.post(
    "/claim", response={200: schemas.ClaimOut, 404: Message, 422: Faults, 429: Message}, operation_id="check_claim"
)
@computes
def check_claim(request: HttpRequest, body: schemas.ClaimIn) -> dict[str, object]:
    """A claim that is made for the session, held against the numbers."""
    saved = find_person(club_of(request), body.person_id)
    person = core_of(saved)
    timeline = unrolled(body.document)
    try:
        reading = read_session(person, timeline)
        if body.kcal is not None:
            found = claims.kcal(reading, body.kcal)
        elif body.trains is not None:
            found = claims.trains(reading, body.trains, circumstances_of(saved, None))
        elif body.tabata:
            found = claims.tabata(reading)
        else:
            raise claims.ClaimError("say what is claimed: so many kcal, Tabata, or a purpose")
    except (claims.ClaimError, NoWorkError) as error:
        raise FieldError(["body"], str(error), "claim") from error
    return asdict(found)


@router.post(
    "/propose",
    response={200: schemas.ProposeOut, 404: Message, 422: Faults, 429: Message},
    operation_id="propose_session",
)
@computes
def propose_session(request: HttpRequest, body: schemas.ProposeIn) -> HttpResponse:
    """Three to five protocols of different schools for the purpose, the person and the limits."""
    club = club_of(request)
    saved = find_person(club, body.person_id)
    person, circumstances = core_of(saved), circumstances_of(saved, body.wbgt_c)
    try:
        limits = Limits(
            body.minutes,
            body.modality,
            kit=frozenset(MODALITIES) - set(body.missing),
            kicks=body.kicks,
            most_strikes=body.most_strikes,
            avoid=frozenset(body.avoid),
            level=body.level,
            rule_set=body.rule_set,
        )
        found = propose_all(person, body.target, limits, circumstances)
    except ProposalError as error:
        raise FieldError(["body", "minutes"], str(error), "proposal") from error
    columns = [proposal_column(each, body.target, club.school, circumstances) for each in found]
    return answered(schemas.ProposeOut([schemas.ProposalOut(**vars(each)) for each in columns]))


@router.post(
    "/scale",
    response={200: schemas.ScaleOut, 404: Message, 422: Faults, 429: Message},
    operation_id="scale_session",
)
@computes
def scale_session(request: HttpRequest, body: schemas.ScaleIn) -> HttpResponse:
    """The session for other people, or under other rules, with its effect kept as near as it goes."""
    club = club_of(request)
    saved_who = find_person(club, body.person_id)
    person, circumstances = core_of(saved_who), circumstances_of(saved_who, None)
    session = body.document
    unrolled(session)

    def column(found: Scaled, theirs: Circumstances, **whose: Any) -> schemas.ScaledOut:
        return schemas.ScaledOut(**vars(scaled_column(found, body.target, club.school, theirs)), **whose)

    try:
        if body.rule_set is not None:
            found = convert(session, person, body.rule_set, circumstances)
            name = RULE_SETS[body.rule_set].name
            columns = [column(found, circumstances, name=name, role="", person_id=body.person_id)]
            return answered(schemas.ScaleOut(columns, []))
        if not body.to:
            raise ScaleError("say whom it is to be scaled for, or to which rules converted")
        people = [one for each in dict.fromkeys(body.to) if (one := find_person(club, each))]
        circumstances_by = circumstances_for(club, people, None)
        scaled, not_for = _scaled_for(session, person, people, circumstances_by)
        columns = [
            column(found, circumstances_by[saved.pk], name=saved.name, role=role, person_id=saved.pk)
            for role, saved, found in scaled
        ]
        return answered(schemas.ScaleOut(columns, not_for))
    except ScaleError as error:
        raise FieldError(["body", "document"], sentence(error), "scale") from error


def _scaled_for(
    session: Session, person: Person, people: list[SavedPerson], circumstances: dict[int, Circumstances]
) -> tuple[list[tuple[str, SavedPerson, Scaled]], list[str]]:
    """The session for the weakest, the middle and the strongest of those who can do it, and why others cannot.

    Raises `ScaleError` where nobody can.
    """
    left, not_for = list(people), list[str]()
    known: dict[int, Scaled] = {}
    while left:
        chosen = {role: left[index] for role, index in three_of([core_of(each) for each in left]).items()}
        for saved in chosen.values():
            try:
                known[saved.pk] = known.get(saved.pk) or scale(session, person, core_of(saved), circumstances[saved.pk])
            except ScaleError as error:
                not_for.append(f"{saved.name}: {error}")
                left.remove(saved)
                break
        else:
            return [(role, saved, known[saved.pk]) for role, saved in chosen.items()], not_for
    raise ScaleError(not_for[0])


def _nudged(request: HttpRequest, body: schemas.NudgeIn) -> tuple[Person, Session, str, Circumstances, int | None]:
    person = find_person(club_of(request), body.person_id)
    session = body.document
    unrolled(session)
    return core_of(person), session, body.target, circumstances_of(person, body.wbgt_c), body.minutes


@router.post(
    "/nudges",
    response={200: list[schemas.NudgeOut], 404: Message, 422: Faults, 429: Message},
    operation_id="nudges",
)
@computes
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
    response={200: schemas.SeriesOut, 404: Message, 422: Faults, 429: Message},
    operation_id="make_it_so",
)
@computes
def make_it_so_for(request: HttpRequest, body: schemas.NudgeIn) -> dict[str, object]:
    """The shortest series of nudges after which the session trains its purpose, or as near as it gets."""
    found = make_it_so(*_nudged(request, body))
    return {
        "steps": list(found.steps),
        "document": to_document(found.session),
        "strokes": found.strokes,
        "reached": found.reached,
    }
