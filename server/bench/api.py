"""The bench: what is typed is read, drawn, simulated, judged and proposed. Nothing is kept."""

from dataclasses import asdict

from django.http import HttpRequest, HttpResponse
from ninja import Router

from server.accounts.current import club_of
from server.bench import schemas, worked_out
from server.bench.circumstances import circumstances_for, known_of
from server.errors import Faults, FieldError, Message
from server.roster.api import core_of, find_person
from server.sessions.documents import unrolled
from yoisho.answers.evaluation import Evaluation
from yoisho.design.nudge import TooLargeError
from yoisho.design.propose import Limits, ProposalError
from yoisho.design.scale import ScaleError
from yoisho.engine.person import Person
from yoisho.engine.readout import NoWorkError
from yoisho.judgement import claims
from yoisho.judgement.circumstances import Circumstances
from yoisho.plain import sentence
from yoisho.session import shorthand
from yoisho.session.document import Part, Session, part_to_dict
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


def answered(answer: bytes) -> HttpResponse:
    """An answer of the core as it is: it has the declared shape already, and is not checked once more."""
    return HttpResponse(answer, content_type="application/json")


@router.post(
    "/evaluate", response={200: Evaluation, 404: Message, 422: Faults, 429: Message}, operation_id="evaluate_session"
)
def evaluate_session(request: HttpRequest, body: schemas.EvaluateIn) -> HttpResponse:
    """The session drawn, simulated for the person and judged for the purpose."""
    club = club_of(request)
    person, circumstances = known_of(club, body.person_id, body.wbgt_c)
    evaluated = worked_out.with_ranges if body.ranges else worked_out.best_guess
    try:
        found = evaluated(body.document, person, body.target, circumstances, club.school)
    except SessionError as error:
        raise FieldError(["body", "document", "parts"], sentence(error), "document") from error
    return answered(found)


@router.post(
    "/claim", response={200: schemas.ClaimOut, 404: Message, 422: Faults, 429: Message}, operation_id="check_claim"
)
def check_claim(request: HttpRequest, body: schemas.ClaimIn) -> HttpResponse:
    """A claim that is made for the session, held against the numbers."""
    person, circumstances = known_of(club_of(request), body.person_id, None)
    unrolled(body.document)
    try:
        return answered(worked_out.claim(body.document, person, circumstances, body.kcal, body.trains, body.tabata))
    except (claims.ClaimError, NoWorkError) as error:
        raise FieldError(["body"], str(error), "claim") from error


@router.post(
    "/propose",
    response={200: schemas.ProposeOut, 404: Message, 422: Faults, 429: Message},
    operation_id="propose_session",
)
def propose_session(request: HttpRequest, body: schemas.ProposeIn) -> HttpResponse:
    """Three to five protocols of different schools for the purpose, the person and the limits."""
    club = club_of(request)
    person, circumstances = known_of(club, body.person_id, body.wbgt_c)
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
        return answered(worked_out.proposals(person, body.target, limits, club.school, circumstances))
    except ProposalError as error:
        raise FieldError(["body", "minutes"], str(error), "proposal") from error


@router.post(
    "/scale",
    response={200: schemas.ScaleOut, 404: Message, 422: Faults, 429: Message},
    operation_id="scale_session",
)
def scale_session(request: HttpRequest, body: schemas.ScaleIn) -> HttpResponse:
    """The session for other people, or under other rules, with its effect kept as near as it goes."""
    club = club_of(request)
    person, circumstances = known_of(club, body.person_id, None)
    unrolled(body.document)
    try:
        if body.rule_set is not None:
            whose = worked_out.Other(body.person_id, RULE_SETS[body.rule_set].name, person, circumstances)
            return answered(worked_out.converted(body.document, whose, body.rule_set, body.target, club.school))
        if not body.to:
            raise ScaleError("say whom it is to be scaled for, or to which rules converted")
        people = [one for each in dict.fromkeys(body.to) if (one := find_person(club, each))]
        theirs = circumstances_for(club, people, None)
        others = tuple(worked_out.Other(each.pk, each.name, core_of(each), theirs[each.pk]) for each in people)
        return answered(worked_out.scaled(body.document, person, others, body.target, club.school))
    except ScaleError as error:
        raise FieldError(["body", "document"], sentence(error), "scale") from error


def _nudged(request: HttpRequest, body: schemas.NudgeIn) -> tuple[Session, Person, str, Circumstances, int | None]:
    person, circumstances = known_of(club_of(request), body.person_id, body.wbgt_c)
    unrolled(body.document)
    return body.document, person, body.target, circumstances, body.minutes


@router.post(
    "/nudges",
    response={200: list[schemas.NudgeOut], 404: Message, 422: Faults, 429: Message},
    operation_id="nudges",
)
def nudges_for(request: HttpRequest, body: schemas.NudgeIn) -> HttpResponse:
    """Small changes that serve the purpose or cure a caution, each with what it would do."""
    return answered(worked_out.nudged(*_nudged(request, body)))


@router.post(
    "/make-it-so",
    response={200: schemas.SeriesOut, 404: Message, 422: Faults, 429: Message},
    operation_id="make_it_so",
)
def make_it_so_for(request: HttpRequest, body: schemas.NudgeIn) -> HttpResponse:
    """The shortest series of nudges after which the session trains its purpose, or as near as it gets."""
    try:
        return answered(worked_out.made_so(*_nudged(request, body)))
    except TooLargeError as error:
        raise FieldError(["body", "document"], str(error), "large") from error
