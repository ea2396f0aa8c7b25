"""People the tests speak of. Nobody here exists."""

from yoisho.engine.person import Person, person
from yoisho.judgement.circumstances import Circumstances, Screening
from yoisho.review.pain import niggle


def club_boxer() -> Person:
    return person(vo2max_ml_kg_min=50, hr_max_bpm=188, hr_rest_bpm=60, mass_kg=70)


HEDDA = person(
    level="beginner", sex="female", age_years=58, mass_kg=68, hr_rest_bpm=70, heart_rate_lowering_medication=True
)
AILING = Screening(regularly_active=True, known_disease=True, symptoms=False)
ACTIVE = Screening(regularly_active=True, known_disease=False, symptoms=False)
SOMEBODY = {
    "a beginner of 58 on medication": (HEDDA, Circumstances(screening=AILING)),
    "a fighter six days before": (person(level="fighter"), Circumstances(screening=ACTIVE, days_to_fight=6)),
    "a boxer with a sore wrist": (
        club_boxer(), Circumstances(screening=ACTIVE, niggles=(niggle("wrist", "right", 3),))),
    "a boxer the day after lactic work": (club_boxer(), Circumstances(screening=ACTIVE, hours_since_lactic=20)),
    "a boxer whose week is full": (
        club_boxer(), Circumstances(screening=ACTIVE, strikes_this_week={"left hand": 2250, "right hand": 2250})),
    "a girl of fourteen": (person(age_years=14, sex="female", mass_kg=48), Circumstances(screening=ACTIVE)),
}  # fmt: skip
