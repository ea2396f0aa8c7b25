"""The effort words, the purposes, and what else can be named."""

from dataclasses import asdict

from django.http import HttpRequest
from ninja import Router

from server.vocabulary import schemas
from yoisho.judgement.targets import TARGETS
from yoisho.protocols.families import NEEDED_KIT
from yoisho.review.pain import PLACES
from yoisho.session.kit import GLOVES, ITEMS, SAID
from yoisho.session.modality import MODALITIES
from yoisho.session.purposes import PURPOSES
from yoisho.session.rules import RULE_SETS
from yoisho.strikes.schools import SCHOOLS
from yoisho.strikes.tempo import TEMPOS

router = Router(tags=["vocabulary"])

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
        modalities=[schemas.ModalityOut(id=m.id, name=m.word, struck=m.strikes) for m in MODALITIES.values()],
        schools=[schemas.Named(id=s.id, name=s.name) for s in SCHOOLS.values()],
        rules=[schemas.RulesOut(id=r.id, name=r.name, text=r.text) for r in RULE_SETS.values()],
        kit=[schemas.Named(id=each, name=MODALITIES[each].word) for each in NEEDED_KIT],
        gloves=[schemas.Named(id=gloves.id, name=gloves.word) for gloves in GLOVES.values()],
        items=[schemas.Named(id=item, name=ITEMS[item].word) for item in SAID],
        tempos=[
            schemas.TempoOut(
                id=tempo.id,
                word=tempo.word,
                kind=tempo.kind,
                demand_frac=tempo.demand_frac,
                strikes_per_min=tempo.strikes_per_min,
                rpe=tempo.rpe,
                meaning=tempo.meaning,
                reset_s=tempo.reset_s,
                avoidable=tempo.avoidable,
            )
            for tempo in TEMPOS.values()
        ],
        targets=[schemas.TargetOut(id=t.id, name=t.name, meaning=t.meaning) for t in TARGETS.values()],
        pain=[schemas.PainPlace(**asdict(place)) for place in PLACES.values()],
        examples=EXAMPLES,
    )
