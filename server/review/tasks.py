"""Learning, as it is done by the worker."""

from dataclasses import asdict

from procrastinate.contrib.django import app

from server.review.models import Calibration
from server.review.seen import logs_of, seen_of
from server.roster.models import Person
from yoisho.review.calibration import calibrate
from yoisho.review.forecasts import scores


def learn(person: Person) -> Calibration | None:
    """What the person's logs teach, kept; None, and nothing kept, where there is nothing to learn from."""
    known = person.to_core_unlearned()
    seen = [seen_of(entry) for entry in logs_of(person)]
    found = calibrate(known, seen)
    if not found.logs:
        Calibration.objects.filter(person=person).delete()
        return None
    forecasts = {
        side: {kind: asdict(score) for kind, score in scores(who, seen).items()}
        for side, who in (("before", known), ("after", found.person))
    }
    return Calibration.keep(person, found, forecasts)


@app.task(queue="learn", name="learn_person")
def learn_person(person_id: int) -> None:
    person = Person.objects.select_related("club").filter(pk=person_id).first()
    if person is not None:
        learn(person)
