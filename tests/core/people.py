"""People the tests speak of. Nobody here exists."""

from yoisho.engine.person import Person, person


def club_boxer() -> Person:
    return person(vo2max_ml_kg_min=50, hr_max_bpm=188, hr_rest_bpm=60, mass_kg=70)
