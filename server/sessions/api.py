"""The bench: what is typed is read, drawn, simulated, judged and proposed. Nothing is kept."""

from dataclasses import asdict

from django.http import HttpRequest, HttpResponse
from ninja import Router

from server.accounts.current import club
from server.errors import Faults, FieldError, Message
from server.roster.api import core_of, find_person
from server.sessions import schemas
from server.sessions.circumstances import circumstances_of
from server.sessions.documents import core_session, unrolled
from server.sessions.evaluation import evaluate, proposal_out, scaled_out
from yoisho.design.families import NEEDED_KIT
from yoisho.design.nudge import make_it_so, nudges
from yoisho.design.propose import Limits, ProposalError, propose_all
from yoisho.design.scale import ScaleError, convert, scale, three_of
from yoisho.engine.person import Person
from yoisho.engine.readout import NoWorkError
from yoisho.engine.readout import read as read_session
from yoisho.judgement import claims
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.targets import TARGETS
from yoisho.review.pain import PLACES
from yoisho.session import shorthand
from yoisho.session.document import Part, Session, part_to_dict, to_document
from yoisho.session.meaning import meaning
from yoisho.session.means import MEANS
from yoisho.session.purposes import PURPOSES
from yoisho.session.rules import RULE_SETS
from yoisho.session.shorthand import assist
from yoisho.session.tempo import TEMPOS
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
        rules=[schemas.RulesOut(id=r.id, name=r.name, text=r.text) for r in RULE_SETS.values()],
        kit=[schemas.Named(id=each, name=MEANS[each].word) for each in NEEDED_KIT],
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
        pain=[schemas.PainPlace(**asdict(place)) for place in PLACES.values()],
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
    school = club(request).school
    answer = evaluate(body.document, core_of(who), body.target, around, school, ranges=body.ranges)
    # Already of the declared shape: having it checked once more would cost a fifth of the request.
    return HttpResponse(answer.model_dump_json(), content_type="application/json")


@router.post("/claim", response={200: schemas.ClaimOut, 404: Message, 422: Faults}, operation_id="check_claim")
def check_claim(request: HttpRequest, body: schemas.ClaimIn) -> dict[str, object]:
    """A claim that is made for the session, held against the numbers."""
    who = core_of(find_person(club(request), body.person_id))
    timeline = unrolled(core_session(body.document.model_dump()))
    try:
        reading = read_session(who, timeline)
        if body.kcal is not None:
            found = claims.kcal(reading, body.kcal)
        elif body.trains is not None:
            found = claims.trains(reading, body.trains)
        elif body.tabata:
            found = claims.tabata(reading)
        else:
            raise claims.ClaimError("say what is claimed: so many kcal, Tabata, or a purpose")
    except (claims.ClaimError, NoWorkError) as error:
        raise FieldError(["body"], str(error), "claim") from error
    return asdict(found)


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
        limits = Limits(
            body.minutes,
            body.means,
            kit=frozenset(MEANS) - set(body.missing),
            kicks=body.kicks,
            most_strikes=body.most_strikes,
            avoid=frozenset(body.avoid),
            level=body.level,
            rule_set=body.rule_set,
        )
        found = propose_all(who, body.target, limits)
    except ProposalError as error:
        raise FieldError(["body", "minutes"], str(error), "proposal") from error
    return {"proposals": [proposal_out(each, body.target, own.school) for each in found]}


@router.post(
    "/scale",
    response={200: list[schemas.ScaledOut], 404: Message, 422: Faults},
    exclude_unset=True,
    operation_id="scale_session",
)
def scale_session(request: HttpRequest, body: schemas.ScaleIn) -> list[dict[str, object]]:
    """The session for other people, or under other rules, with its effect kept as near as it goes."""
    own = club(request)
    saved_who = find_person(own, body.person_id)
    who, around = core_of(saved_who), circumstances_of(saved_who, None)
    session = core_session(body.document.model_dump())
    unrolled(session)
    try:
        if body.rule_set is not None:
            found = convert(session, who, body.rule_set, around)
            name = {"name": RULE_SETS[body.rule_set].name, "role": "", "person_id": body.person_id}
            return [{**scaled_out(found, body.target, own.school, around), **name}]
        if not body.to:
            raise ScaleError("say whom it is to be scaled for, or to which rules converted")
        people = [person for each in dict.fromkeys(body.to) if (person := find_person(own, each))]
        answers = []
        for role, index in three_of([core_of(each) for each in people]).items():
            saved = people[index]
            theirs = circumstances_of(saved, None)
            found = scale(session, who, core_of(saved), theirs)
            name = {"name": saved.name, "role": role, "person_id": saved.pk}
            answers.append({**scaled_out(found, body.target, own.school, theirs), **name})
        return answers
    except ScaleError as error:
        raise FieldError(["body", "document"], f"{str(error)[0].upper()}{str(error)[1:]}.", "scale") from error


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
