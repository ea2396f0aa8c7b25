"""Sessions worked whole, for `docs/examples.md`: what is read, simulated, judged, called, changed and learned.

Nobody in it exists. Figures follow from the model as it is: with the model they change, and the document with them.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from functools import partial

from yoisho.design.nudge import Change, make_it_so, nudges
from yoisho.design.propose import Limits, propose_all
from yoisho.design.scale import convert, scale
from yoisho.engine.person import Person, person
from yoisho.engine.readout import Figure, Reading, read, try_reading
from yoisho.judgement import claims
from yoisho.judgement.cautions import cautions
from yoisho.judgement.circumstances import Circumstances, Screening
from yoisho.judgement.fade import fade_onset, failing
from yoisho.judgement.limits import Limit
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import judge
from yoisho.method.document import table_lines
from yoisho.method.figures import FIGURES
from yoisho.review.pain import niggle
from yoisho.review.progression import Go, next_time
from yoisho.review.proof import find_out
from yoisho.review.trends import Day, block_of, weeks_of
from yoisho.runs.calls import Settings
from yoisho.runs.plan import Plan
from yoisho.runs.record import Record, Stood, Stretch, lived
from yoisho.runs.review import review
from yoisho.runs.simulated import kept_of
from yoisho.session.clock import clock
from yoisho.session.document import Session
from yoisho.session.meaning import meaning
from yoisho.session.shorthand import read_parts, write
from yoisho.session.volume import Volume
from yoisho.session.wearing import kit_changes, to_bring
from yoisho.strikes.counts import Limb

SCHOOL = "overhands"
ACTIVE = Screening(regularly_active=True, known_disease=False, symptoms=False)
FREE = Circumstances(screening=ACTIVE)
"""Nothing stands against training."""
CLUB = person(vo2max_ml_kg_min=50, hr_max_bpm=188, hr_rest_bpm=60)
NEWCOMER = person(level="beginner", sex="female", age_years=58, mass_kg=68, heart_rate_lowering_medication=True)
FIGHTER = person(level="fighter", vo2max_ml_kg_min=58, rule_set="muay-thai-amateur", mass_kg=63.5)
JUNIOR = person(age_years=14, sex="female", mass_kg=48, level="beginner")


@dataclass(frozen=True)
class Example:
    """One session for one person and purpose."""

    title: str
    lines: str
    target: str
    person: Person = CLUB
    circumstances: Circumstances = FREE
    minutes: int | None = None

    @property
    def session(self) -> Session:
        return Session(self.title, read_parts(self.lines))


EXAMPLES = (
    Example("Twenty and ten for a club boxer", "Main: 8 x (20 all out / 10 rest)", "sprint-capacity"),
    Example(
        "Thirties in three words for a fighter, six days before the fight, in a hot hall",
        "Warm-up: 5:00 skip; then 1:00, 3:00 flow shadow\n"
        "Main: 5 x (30 technique [1-2], 30 speed [1-2-3], 30 power [1-2-3-2]) rest 1:00\nCool-down: 3:00 recover",
        "lactic-capacity",
        FIGHTER,
        Circumstances(screening=ACTIVE, days_to_fight=6, wbgt_c=28.5, hours_since_lactic=30, today=date(2027, 3, 1)),
    ),
    Example(
        "Rounds on the bag for a newcomer of 58 on medication",
        "Rounds: 3 x (2:00 freestyle bag) rest 1:00\nSprints: 4 x (15 all out) rest 0:45",
        "aerobic-power",
        NEWCOMER,
        Circumstances(screening=Screening(regularly_active=False, known_disease=False, symptoms=False)),
        20,
    ),
    Example(
        "Pads in pairs with kicks, for a junior with a sore shin",
        "Warm-up: 6:00 flow shadow; then 0:30\n"
        "Pads: 3 x (2:00 combination pads [1-2-low kick] switch at half) rest 1:00 pairs\n"
        "Ladder: 1:00 rest; 20 reps power [1-2]; 0:45 rest; 10 reps power [left round kick to the body]",
        "skill",
        JUNIOR,
        Circumstances(screening=ACTIVE, niggles=(niggle("shin", "right", 2),)),
    ),
    Example(
        "Flow with counts, a beat and a rate, for a boxer who must not use the right hand",
        "Easy: 10:00 flow shadow; then 1:00\nBeat: 2 x (2:00 flow bag [1-2] to 120 beats) rest 0:40\n"
        "Rate: 3 x (3:00 flow bag [1-1-3] 90 a minute at 50% power) rest 0:45\nPush: 20 reps push-ups",
        "aerobic-base",
        CLUB,
        Circumstances(
            screening=ACTIVE, limits=(Limit("no-limb", limb="right hand"),),
            strikes_this_week={"left hand": 1900, "right hand": 900}, today=date(2027, 3, 1),
        ),
    ),
    Example(
        "A bout rehearsed, with a warm-up that is too short",
        "Warm-up: 3:00 flow\nBout: 3 x (2:00 fight pace bag) rest 1:00\n"
        "End: 2 x (4 x (10 all out, 20 recover)) rest 2:00",
        "fight-rehearsal",
        FIGHTER,
    ),
    Example(
        "Forty and twenty past what can be held",
        "Warm-up: 10:00 flow; then 1:00\nMain: 3 x (10 x (40 power / 20 flow)) rest 0:30",
        "threshold",
        CLUB,
        minutes=45,
    ),
)  # fmt: skip


def _of_three(value: float) -> str:
    """Three figures, and no more than three behind the point: what is smaller is nothing."""
    return f"{value:.0f}" if abs(value) >= 100 else f"{round(value, 3) + 0.0:.3g}"


def _ranged(figure: Figure) -> str:
    low, high = _of_three(figure.low), _of_three(figure.high)
    return _of_three(figure.value) + (f" ({low} to {high})" if low != high else "")


def _lines(session: Session) -> str:
    """A session on one line."""
    return "; ".join(f"{part.name}: {write(part.tree, SCHOOL)}" for part in session.parts)


def _would(changes: Sequence[Change]) -> str:
    return "; ".join(f"{change.name} {change.before} to {change.after}" for change in changes)


def _volume(found: Volume) -> str:
    limbs = ", ".join(f"{limb} {round(count)}" for limb, count in found.limbs.items() if round(count))
    heights = ", ".join(f"{height} {round(count)}" for height, count in found.heights.items() if round(count))
    left = f"; {found.left_share:.0%} with the left" if found.left_share is not None else ""
    return f"{round(found.strikes)} strikes ({limbs or 'none'}; to the {heights or 'air'}{left})"


def _read(example: Example, reading: Reading) -> Iterator[str]:
    session, timeline = example.session, reading.timeline
    for part in session.parts:
        yield f"    {part.name}: {write(part.tree, SCHOOL)}"
    yield ""
    for part in session.parts:
        yield f"- **{part.name}**: {meaning(part.tree)}"
    yield ""
    yield f"{clock(timeline.total_s)} in all, {clock(timeline.work_s)} of work and {clock(timeline.rest_s)} of rest. "
    yield f"Expected: {_volume(reading.volume)}."
    changes = "; ".join(f"{clock(change.at_s)} {', '.join(change.words)}" for change in kit_changes(timeline))
    yield f"To bring: {', '.join(to_bring(timeline)) or 'nothing'}.{f' Changes: {changes}.' if changes else ''}"
    yield ""


def _judged(example: Example, reading: Reading) -> Iterator[str]:
    around = replace(example.circumstances, purpose=example.target)
    spoken = cautions(reading, around)
    verdict = judge(reading, example.target, spoken)
    sure = "" if verdict.sureness is None else f" It holds for {verdict.sureness:.0%} of people like this one."
    yield f"**For {TARGETS[example.target].name}**: {verdict.sentence}{sure} {verdict.strokes} of 5; "
    yield f"it trains {TARGETS[verdict.trains_best].name} best." if verdict.trains_best else "nothing is trained best."
    yield ""
    for reason in verdict.reasons:
        yield f"- {'met' if reason.met else 'missed'}: {reason.text}"
    yield ""
    for caution in spoken:
        at = "" if caution.at_s is None else f" at {clock(caution.at_s)}"
        yield f"- *{caution.severity}*{at}: {caution.text} {caution.cure}"
    yield ""
    onset, fails = fade_onset(reading, TARGETS[example.target]), failing(reading)
    for words, found in (("Fades", onset), ("Fails", fails)):
        latest = found.latest or "never"
        when = "never" if found.bout is None else f"in effort {found.bout} ({found.earliest} to {latest})"
        yield f"{words} {when}, with a probability of {found.probability:.2f}. "
    yield ""


def _figures(reading: Reading) -> list[str]:
    told = reading.told(reading.figures)
    rows = [(FIGURES[name].name if name in FIGURES else name, _ranged(figure)) for name, figure in told.items()]
    efforts = [
        (clock(reading.timeline.intervals[bout.first].start_s), _ranged(start), _ranged(fade))
        for bout, start, fade in zip(
            reading.work_bouts, reading.sprint_at_work_bout, reading.work_bout_fade, strict=True
        )
    ]
    return [
        *table_lines(("figure", "value and 80 % range"), rows),
        *table_lines(("effort at", "sprint store as it starts", "share it falls short by"), efforts),
    ]


def _floor(example: Example) -> list[str]:
    plan = Plan(example.session)
    heard: list[tuple[float, str]] = [(cue.at_s, cue.kind) for cue in plan.cues]
    heard += [(call.at_s, f"“{call.text}”") for call in plan.calls(Settings(combination_every_s=30))]
    told = "; ".join(f"{at:.1f} {what}" for at, what in sorted(heard))
    return ["Heard on the floor, the combination called again every half minute [s from the first bell]:", "", told, ""]


def _changes(example: Example) -> Iterator[str]:
    found = nudges(example.person, example.session, example.target, example.circumstances, example.minutes)
    for nudge in found:
        cures = f"; cures {', '.join(nudge.cures)}" if nudge.cures else ""
        yield f"- {nudge.name}: {_would(nudge.changes)}{cures}; {nudge.strokes} of 5"
    series = make_it_so(example.person, example.session, example.target, example.circumstances, example.minutes)
    steps = ", then ".join(series.steps) or "no step"
    yield f"- *Make it so*: {steps}; {'reached' if series.reached else 'not reached'}, {series.strokes} of 5"
    yield ""


def worked(example: Example) -> list[str]:
    """One session, whole."""
    reading = read(example.person, example.session.unrolled())
    return [
        f"## {example.title}", "", *_read(example, reading), *_judged(example, reading), *_figures(reading),
        *_floor(example),
        "Changes that would help:", "", *_changes(example),
    ]  # fmt: skip


PROPOSED = (
    ("sprint-power", CLUB, Limits(20)),
    ("lactic-capacity", CLUB, Limits(30, most_strikes=1200)),
    ("fight-rehearsal", FIGHTER, Limits(45, "pads", avoid=frozenset({"all-out"}))),
    ("aerobic-base", NEWCOMER, Limits(12, kit=frozenset({"bag", "shadow", "footwork"}), kicks=False)),
)


def proposed() -> list[str]:
    lines = ["## Proposed", ""]
    for target, who, limits in PROPOSED:
        lines += [f"*{TARGETS[target].name}, {limits.minutes} minutes*", ""]
        for each in propose_all(who, target, limits, FREE):
            sure = "" if each.sureness is None else f", {each.sureness:.2f} sure"
            lines.append(f"- **{each.session.title}**{sure}: `{_lines(each.session)}` {each.why} {each.tradeoff}")
        lines.append("")
    return lines


def scaled() -> list[str]:
    """Of one session for others, and under other rules."""
    thirties = EXAMPLES[1].session
    found = [
        ("a newcomer", scale(thirties, FIGHTER, replace(NEWCOMER, heart_rate_lowering_medication=False))),
        ("a club boxer", scale(thirties, FIGHTER, CLUB)),
        ("professional boxing", convert(EXAMPLES[5].session, FIGHTER, "boxing-pro-6")),
        ("Olympic boxing", convert(EXAMPLES[5].session, FIGHTER, "boxing-amateur")),
    ]
    lines = ["## For others, and under other rules", ""]
    for whom, each in found:
        kept = ", ".join(
            f"{one.name} {one.before} to {one.after}{'' if one.kept else ' (not kept)'}" for one in each.effect
        )
        steps = "; ".join(each.steps) or "as it is"
        lines.append(f"- {whom}: `{_lines(each.session)}` {steps}. {kept}; {each.distance:.2f} apart.")
    return [*lines, ""]


def claimed() -> list[str]:
    reading = read(CLUB, EXAMPLES[0].session.unrolled())
    told = [claims.kcal(reading, 60), claims.kcal(reading, 300), claims.tabata(reading)]
    told += [claims.trains(reading, target, Circumstances()) for target in ("sprint-capacity", "aerobic-base")]
    rows = [(each.claim, each.answer, each.text, each.source) for each in told]
    return ["## Claims held against the first", "", *table_lines(("claim", "answer", "why", "by what"), rows)]


def done() -> list[str]:
    """What two devices told of a run of two, whole and stopped early; the clock stood once, and was moved back once."""
    timeline = Plan(EXAMPLES[3].session, people=2).timeline
    columns = ("round", "done [s]", "", "expected", "told", "peak", "fade", "reps", "took [s]")
    lines = ["## A run of two, as the devices of each would tell of it", ""]
    for done_s, place in ((timeline.total_s, 0), (900, 1)):
        own = lived(timeline, Record((Stretch(0, done_s),), place=place, of=2))
        kept = kept_of(JUNIOR, own, done_s, 7, ("strap", "sensor"))
        played = (*kept.played, Stretch(400, 430, shift=1))
        reps = ((1290.0, 18),) if done_s > 1290 else ()
        record = replace(kept, place=place, of=2, stood=(Stood(420, 12),), reps=reps, played=played)
        found = review(try_reading(JUNIOR, lived(timeline, record)), timeline, record)
        rows = [
            (
                f"{clock(each.start_s)} to {clock(each.end_s)}", f"{each.done_s:.0f}", "done" if each.done else "",
                f"{each.expected_strikes:.0f}", f"{each.strikes}", f"{each.peak_bpm:.0f}" if each.peak_bpm else "",
                "" if each.fade is None else f"{each.fade:.3f}",
                "" if each.reps_asked is None else f"{each.reps or 0} of {each.reps_asked}", f"{each.took_s:.0f}",
            )
            for each in found.rounds
        ]  # fmt: skip
        fades = "".join(
            f" Over the {each.rounds} rounds of part {each.part + 1} a fade of {each.expected:.3f} is expected"
            + (f", {each.measured:.3f} was told." if each.measured is not None else ".")
            for each in found.fades
        )
        lines += [
            f"Place {place + 1}, {clock(done_s)} done: {found.efforts_done} of {found.efforts} efforts; "
            f"{found.work_s:.0f} s of {found.planned_work_s} worked, {found.rest_s:.0f} s of {found.planned_rest_s} "
            f"rested; {found.strikes} strikes, {found.expected_strikes:.0f} expected, {found.most_strikes} at the "
            f"most; heart up to {found.peak_bpm:.0f}, {found.strap_off_s:.0f} s without it.{fades}", "",
            *table_lines(columns, rows),
        ]  # fmt: skip
    return lines


def learned() -> list[str]:
    """What six logs of somebody who is known in full teach."""
    found = find_out(person(), 11, logs=6)
    told = found.calibration
    rows = [
        (before.name, f"{found.true[before.id]:.4g}", f"{before.value:.4g} ({before.low:.4g} to {before.high:.4g})",
         f"{after.value:.4g} ({after.low:.4g} to {after.high:.4g})")
        for before, after in zip(told.before, told.after, strict=True)
    ]  # fmt: skip
    scores = [
        (kind, f"{before.crps:.4g}, {before.inside:.2f} inside", f"{found.after[kind].crps:.4g}, "
         f"{found.after[kind].inside:.2f} inside")
        for kind, before in found.before.items()
    ]  # fmt: skip
    return [
        "## What six logs teach of somebody", "", *table_lines(("capacity", "true", "before", "after"), rows),
        *table_lines(("forecast of", "before", "after"), scores),
    ]  # fmt: skip


MONDAY = date(2026, 3, 2)
LOADS: dict[str, tuple[tuple[int, ...], ...]] = {
    "a steady build": tuple(
        (round(300 * of), 0, round(150 * of), 0, round(420 * of), 0, 0) for of in (1, 1.1, 1.2, 0.6, 1.3)
    ),
    "all alike": ((200,) * 7,) * 8,
    "a steep climb": ((100, 0, 100, 0, 0, 0, 0), (300, 0, 0, 0, 0, 0, 0), (400, 500, 200, 0, 0, 0, 0)),
    "one session": ((300, 0, 0, 0, 0, 0, 0),),
}  # fmt: skip


def trended() -> list[str]:
    lines = ["## Weeks", ""]
    for name, loads in LOADS.items():
        limbs: dict[Limb, float] = {"left hand": 500.0, "right hand": 620.0, "right leg": 90.0}
        days = {
            MONDAY + timedelta(weeks=week, days=day): Day(1, load, load, dict(limbs), {}, lactic=load > 350)
            for week, each in enumerate(loads)
            for day, load in enumerate(each)
            if load
        }
        weeks = weeks_of(days, len(loads) + 1, MONDAY + timedelta(weeks=len(loads)))
        block = block_of(weeks, days, "club")
        lines += [f"*{name}*: **{block.title}.** {block.sentence}", ""]
        lines += [
            f"- {point.seal}: {'in order' if point.fine else 'look'}: {point.text} {point.cure}"
            for point in block.points
        ]
        rows = [
            (f"{each.monday}", f"{each.sessions}", f"{each.load:.0f}", *(
                "" if one is None else f"{one:.2f}" for one in (each.monotony, each.strain)
            ), f"{each.short_mean:.1f}", f"{each.long_mean:.1f}")
            for each in weeks
        ]  # fmt: skip
        columns = ("week", "sessions", "load", "monotony", "strain", "mean of 7 days", "of 28 days")
        lines += ["", *table_lines(columns, rows)]
    return lines


CLEAN = Go(finished=True, rpe=6, expected_rpe=7, fade=0.03)
TOO_HARD = Go(finished=True, rpe=9, expected_rpe=7)
GOES: dict[str, tuple[Go, ...]] = {
    "two clean goes": (CLEAN, CLEAN),
    "twice too hard": (TOO_HARD, TOO_HARD),
    "not finished once": (Go(finished=False, rpe=7, expected_rpe=7),),
    "it hurt": (CLEAN, replace(CLEAN, pain=("left wrist",))),
    "it faded": (replace(CLEAN, fade=0.4),),
}


def next_times() -> list[str]:
    lines = ["## Next time", ""]
    for example in (EXAMPLES[0], EXAMPLES[5], EXAMPLES[6]):
        lines += [f"*{example.title}*", ""]
        for name, goes in GOES.items():
            found = next_time(example.person, example.session, example.target, goes)
            turned = f", {found.name}" if found.name else ""
            lines.append(f"- {name}: {found.step}{turned}. {found.reason} {_would(found.changes)}".rstrip())
        lines.append("")
    return lines


SECTIONS: dict[str, Callable[[], list[str]]] = {
    **{example.title: partial(worked, example) for example in EXAMPLES},
    "proposed": proposed, "scaled": scaled, "claimed": claimed, "done": done, "learned": learned, "trended": trended,
    "next time": next_times,
}  # fmt: skip


def section(name: str) -> str:
    return "\n".join(SECTIONS[name]()).rstrip() + "\n"


def examples_page() -> str:
    """The document for `docs/examples.md`."""
    head = (
        "# Worked examples\n\nWritten by the software itself (`make docs`): sessions as they are read, simulated, "
        "judged, called and changed, and what comes of them. Nobody in it exists; every figure is an estimate of the "
        "model as it is now ([method.md](method.md)).\n"
    )
    return "\n".join([head, *(section(name) for name in SECTIONS)])
