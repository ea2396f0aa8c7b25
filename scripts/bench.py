"""Measure: the engine, reading a line, one request at a time to the API, and what the first load weighs."""

import os
import sys
import time
from collections.abc import Iterator
from functools import partial
from itertools import count, islice
from pathlib import Path
from typing import Any

import django
import numpy as np
from timing import measure, tell, took

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))


def engine() -> None:
    from yoisho.engine.cohort import draws
    from yoisho.engine.person import person
    from yoisho.engine.stores import People, simulate

    hour = np.tile([20.0, 10.0], 120), np.tile([1.7, 0.1], 120)
    crowd = draws(person(vo2max_ml_kg_min=50)).people
    measure("60 minutes, one person, a sample a second", lambda: simulate(*hour, People.one(50)))
    measure("60 minutes, one person, a sample a segment", lambda: simulate(*hour, People.one(50), sample_s=1e4))
    measure(
        "60 minutes, 200 draws, a sample in five seconds",
        lambda: simulate(*hour, crowd, sample_s=5.0, precision=np.float32),
        20,
    )
    rng = np.random.default_rng(1)
    grid = np.full(180, 5.0)
    few = People.of(np.full(500, 50.0), np.ones(500))

    def candidates() -> None:
        for _ in range(40):
            demand = rng.choice([0.1, 0.4, 0.9, 1.2, 1.7], (180, 500))
            simulate(grid, demand, few, sample_s=1e4, precision=np.float32)

    measure("20,000 candidate sets of 15 minutes on a grid of 5 s", candidates, 3)


def camps() -> None:
    """Twelve weeks to a bout, as four coaches might ask for them; how near the proven bound each comes."""
    from datetime import date

    from yoisho.camp.camp import Camp, Fixed, Weekday
    from yoisho.camp.ladders import choices
    from yoisho.camp.model import Ask
    from yoisho.camp.rules import ceilings, ruled
    from yoisho.camp.solve import solve
    from yoisho.engine.person import Level, person

    asked: list[tuple[Level, int, tuple[Weekday, ...], tuple[Fixed, ...]]] = [
        ("club", 4, ("mon", "tue", "thu", "sat"), (Fixed("sparring", weekday="sat"),)),
        ("fighter", 5, ("mon", "tue", "wed", "thu", "fri", "sat"), (Fixed("test", weekday="mon", every_weeks=4),)),
        ("fighter", 4, ("mon", "wed", "thu", "sat"), ()),
        ("beginner", 3, ("mon", "wed", "fri"), ()),
    ]
    gaps: list[float] = []

    def solved(ask: Ask) -> None:
        gap = solve(ask).bound_gap
        assert gap is not None
        gaps.append(gap)

    for level, most, days, fixed in asked:
        who = person(level=level)
        camp = Camp(date(2027, 1, 4), date(2027, 3, 27), rule_set="muay-thai-amateur", days=days, most_a_week=most,
                    fixed=fixed)  # fmt: skip
        began = time.perf_counter()
        found = choices(camp, who)
        chosen_s = time.perf_counter() - began
        ask = Ask(camp, found, ceilings(level))
        gaps.clear()
        measure(f"camp, 12 weeks, {level}, {most} a week: solved", partial(solved, ask), 3)
        print(f"{'':30s} sessions chosen in {chosen_s:.1f} s; within {100 * max(gaps):.1f} % of the bound")
    plan = solve(ask).plan
    assert plan is not None
    measure("camp, 12 weeks: every rule checked", lambda: ruled(camp, plan, ceilings("beginner")))


def rotations() -> None:
    from yoisho.rotation.group import Group
    from yoisho.rotation.solve import solve

    names = tuple(f"p{number}" for number in range(1, 41))
    for words, group in (
        ("14 people, 7 waves, 6 bags, 2 pads, 4 floor", Group(names[:14], 7, 6, 2, 4)),
        ("the same, with limits, partners, one late, one early",
         Group(names[:14], 7, 6, 2, 4, (("p1", "pads"), ("p3", "bag")), (("p4", "p5"),), from_wave={"p6": 3},
               absent_after={"p7": 4})),
        ("40 people, 12 waves, 10 bags, 6 pads, 20 floor", Group(names, 12, 10, 6, 20)),
    ):  # fmt: skip
        found = solve(group)
        assert found.bound_gap is not None
        measure(f"rotation: {words}", partial(solve, group), 3)
        print(f"{'':30s} {found.against}, {found.status}, within {100 * found.bound_gap:.2f} %")


def classes() -> None:
    """A class of fourteen: proposed in every school, changed on the day, somebody late; one of forty."""
    from dataclasses import replace

    from yoisho.answers.classes import ClassAnswer, class_answer
    from yoisho.classes.asked import Asked, Comer
    from yoisho.classes.changes import with_late
    from yoisho.classes.made import make
    from yoisho.classes.schools import SCHOOLS
    from yoisho.classes.weighed import what_ifs
    from yoisho.engine.person import person
    from yoisho.session.shorthand import read

    who = person()
    people = tuple(Comer(f"p{number}", who) for number in range(1, 41))
    asked = Asked(people[:14], read("20 power, 10 rest"), 25, "lactic-capacity", bags=6, pad_pairs=2)

    def told(of: Asked) -> ClassAnswer:
        return class_answer(make(of), "overhands")

    for school in SCHOOLS:
        of_school = partial(told, replace(asked, school=school))
        measure(f"class, 14 people: {school}, with all that is told", of_school, 5)
    made = make(asked)
    measure("class, 14 people: what if, four of them", lambda: list(what_ifs(made)), 5)
    measure("class, 14 people: somebody late in wave 3", lambda: with_late(made.board, "late", 3), 5)
    large = Asked(people, read("20 power, 10 rest"), 60, "lactic-capacity", bags=10, pad_pairs=6, waves=12, floor=20)
    measure("class, 40 people, 12 waves: solved, with all that is told", partial(told, large), 2)


def languages() -> None:
    from yoisho.session.shorthand import assist, read, write
    from yoisho.session.timeline import unroll
    from yoisho.session.tree import Node
    from yoisho.session.volume import Volume, volume

    block = "4 x (5 x (10 technique bag [1-2-3b, slip, 2], 10 speed [1-2] / 10 rest)) rest 1:00"

    def counted(tree: Node) -> Volume:
        return volume(unroll(tree).intervals)

    lines = {
        "1,000 intervals in repeats, with combinations": "; ".join([block] * 16),
        "1,000 intervals, each written out": ", ".join(["9 power bag [1-2], 5 rest"] * 500),
    }
    for name, line in lines.items():
        tree = read(line)
        count = len(unroll(tree).intervals)
        assert count >= 1000, count
        measure(f"{name}: read", partial(read, line), 30)
        measure(f"{name}: written", partial(write, tree), 30)
        measure(f"{name}: unrolled and counted", partial(counted, tree), 30)
    typed = "3 x (3:00 technique bag [1-2-3b, slip, 2] switch at half) rest 1:00, 2:00 po"
    measure("a line as it is typed: coloured", lambda: assist.spans(typed))
    measure("a line as it is typed: completed", lambda: assist.complete(typed))


def edited(document: dict[str, Any]) -> Iterator[dict[str, Any]]:
    """A session as a coach edits it, second by second: what was asked before is remembered, and would tell nothing."""
    for seconds in count(10):
        last = {"name": "Shake out", "tree": {"type": "interval", "seconds": seconds, "tempo": "flow"}}
        yield {**document, "parts": [*document["parts"], last]}


def api() -> None:
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings")
    django.setup()
    from django.test import Client

    import server.wsgi  # noqa: F401 - as it is served: what is loaded by now is settled

    client = Client(HTTP_HOST="127.0.0.1")
    client.post("/api/demo")
    for row in client.get("/api/sessions").json()["items"]:
        session = client.get(f"/api/sessions/{row['id']}").json()
        told = {key: session[key] for key in ("person_id", "target")}

        def ask(document: object, ranges: bool, told: dict[str, object] = told) -> None:
            body = {**told, "document": document, "ranges": ranges}
            answer = client.post("/api/evaluate", body, content_type="application/json")
            assert answer.status_code == 200, answer.content[:200]

        guesses, whole = [], []
        for document in islice(edited(session["document"]), 102):
            # As the Bench asks: the best guess, and then its ranges.
            guesses.append(took(partial(ask, document, False)))
            whole.append(took(partial(ask, document, True)))
        tell(f"POST /api/evaluate, {row['title']}, edited, best guess", guesses[2:])
        tell(f"POST /api/evaluate, {row['total_s'] / 60:.0f} min, its ranges", whole[2:])
    text = {"text": "8 x (20 all out / 10 rest)"}
    measure("POST /api/read", lambda: client.post("/api/read", text, content_type="application/json"))
    minutes = count(36)

    def propose() -> None:
        body = {"target": "lactic-capacity", "minutes": next(minutes)}
        assert client.post("/api/propose", body, content_type="application/json").status_code == 200

    measure("POST /api/propose, about 40 min", propose, 8)


def hall() -> None:
    """A roster of 500, all of whom come today."""
    from datetime import time

    from django.test import Client
    from django.utils import timezone

    from server.accounts.models import Club
    from server.roster.models import Group, Person
    from server.sessions.models import Session
    from server.today.models import Planned

    client = Client(HTTP_HOST="127.0.0.1")
    client.post("/api/demo")
    club = Club.objects.get()
    known = {"club": club, "level": "club", "birth_year": 1990, "mass_kg": 70.0}
    made = Person.objects.bulk_create([Person(name=f"Athlete {number}", **known) for number in range(500)])
    groups = [Group.objects.create(club=club, name=f"Hour {number}") for number in range(6)]
    for number, (group, session) in enumerate(zip(groups, Session.objects.all()[:6], strict=True)):
        group.people.set(made[number::6])
        Planned.objects.create(club=club, session=session, on=timezone.localdate(), at=time(8 + number), group=group)
    for page in (0, 200, 400):
        path = f"/api/people?limit=200&offset={page}"
        measure(f"GET {path}, of {len(made)}", partial(client.get, path), 40)
    measure("GET /api/today, ten sessions, 500 people", lambda: client.get("/api/today"), 40)
    measure("GET /api/today/mind, the same", lambda: client.get("/api/today/mind"), 5)
    Planned.objects.filter(group__in=groups).delete()
    Group.objects.filter(pk__in=[group.pk for group in groups]).delete()
    Person.objects.filter(pk__in=[who.pk for who in made]).delete()


def learning() -> None:
    """What logs teach: one log, and a hundred of ten sessions."""
    from yoisho.engine.person import person
    from yoisho.review.calibration import calibrate
    from yoisho.review.proof import WORLDS, logs_of, true_traits

    who = person()
    logs = logs_of(who, true_traits(who, 1), 1, 100, WORLDS["as the engine has it"])
    measure("learning from one log", lambda: calibrate(who, logs[:1]), 10)
    measure("learning from 100 logs", lambda: calibrate(who, logs), 2)


def year() -> None:
    """Every screen of a club of 100 with 3,000 sessions and three logs a week of each for a year."""
    from club_year import GETS, fill
    from django.db import transaction
    from django.test import Client

    client = Client(HTTP_HOST="127.0.0.1")
    client.post("/api/demo")
    with transaction.atomic():
        club = fill()
        one, session = club.people.latest("pk").pk, club.sessions.latest("pk").pk
        own = (f"people/{one}", f"trends?weeks=52&person_id={one}", f"sessions/{session}", f"sessions/{session}/run")
        for path in (*GETS, *own):
            assert client.get(f"/api/{path}").status_code == 200, path
            measure(f"a year of a club: GET /api/{path}", partial(client.get, f"/api/{path}"), 20)
        transaction.set_rollback(True)


def size() -> None:
    first = [path for path in (ROOT / "web/dist/assets").glob("index-*.js.gz")]
    every = list((ROOT / "web/dist/assets").glob("*.js.gz"))
    print(f"first-load JavaScript {sum(p.stat().st_size for p in first) / 1000:.0f} kB gzipped", end=", ")
    print(f"all of it {sum(p.stat().st_size for p in every) / 1000:.0f} kB")


engine()
camps()
rotations()
classes()
languages()
api()
hall()
learning()
year()
size()
