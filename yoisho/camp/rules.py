"""The rules of a camp in one table: what each says, whether it may be broken, how heavy that is, where it is from.

One entry in `RULES` is all a new one needs to be told and checked; the solver keeps the hard ones (`constraints.py`).
The checks read a plan as it stands, whoever made it, and simulate nothing.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from datetime import date
from itertools import pairwise

from yoisho.camp.camp import DAY, Camp, Week
from yoisho.camp.plan import Placed, Plan, limbs, load
from yoisho.engine.person import Level
from yoisho.judgement.cautions import LACTIC_GAP_H, LATEST_LACTIC_DAYS, STRIKES_A_HAND, STRIKES_A_LEG, Severity
from yoisho.judgement.limits import LIMBS, Limit
from yoisho.strikes.counts import Limb

LACTIC_GAP_DAYS = LACTIC_GAP_H // 24
MOST_HARD_RUNNING = 2
MOST_A_DAY = 2
EASE_MOST = 0.6
"""Of the whole week before, that an ease week costs at the most; a half is aimed at. Own setting."""
EASE_AIM = 0.5
TAPER_MOST, TAPER_LEAST = 0.59, 0.40
"""Of what whole weeks cost: down by 41 to 60 % [1]."""
FREQUENCY = 0.8
"""Share of the sessions a week that a taper keeps [2]."""
SEVEN_DAYS = 6 * DAY
SPAN_WEEKS = 3
"""Whole weeks before the taper that it is measured by."""

BOSQUET = "Bosquet et al. 2007, MSSE 39:1358-1365, from memory"
COMMON = "common practice, no source"


@dataclass(frozen=True)
class Ceilings:
    """Strikes with each limb in any seven days, that land, and by whom that is said."""

    most: Mapping[Limb, int]
    said: Mapping[Limb, str]


def ceilings(level: Level, limits: tuple[Limit, ...] = ()) -> Ceilings:
    """Of a level, or the person's own where they are lower."""
    most: dict[Limb, int] = {}
    said: dict[Limb, str] = {}
    for limb in LIMBS:
        most[limb] = (STRIKES_A_LEG if limb.endswith("leg") else STRIKES_A_HAND)[level][1]
        said[limb] = f"the ceiling of a {level}'s week"
    for limit in limits:
        own = limit.kind == "most-strikes" and limit.period == "week"
        if own and limit.limb and limit.most is not None and limit.most < most[limit.limb]:
            most[limit.limb], said[limit.limb] = limit.most, f"the limit set by {limit.set_by}"
    return Ceilings(most, said)


@dataclass(frozen=True)
class Scene:
    """What the rules look at."""

    camp: Camp
    plan: Plan
    ceilings: Ceilings


@dataclass(frozen=True)
class Breach:
    text: str
    days: tuple[date, ...]
    """Where it shows, the first first."""


Finds = Callable[[Scene], Iterator[Breach]]


@dataclass(frozen=True)
class Rule:
    id: str
    name: str
    hard: bool
    """No plan that is solved breaks it. A soft one is kept as far as the others let it."""
    severity: Severity
    """How heavy a breach is, where somebody makes one by hand."""
    sentence: Callable[[Camp], str]
    source: str
    finds: Finds

    @property
    def seal(self) -> str:
        return self.name


def said(day: date) -> str:
    """A day in words, such as "Sat 6 June"."""
    return f"{day:%a} {day.day} {day:%B}"


def done(placed: tuple[Placed, ...]) -> tuple[Placed, ...]:
    return tuple(each for each in placed if not each.missed)


def _lactic_days(plan: Plan) -> list[date]:
    return sorted({each.on for each in done(plan.placed) if each.cost.lactic})


def _lactic_gap(scene: Scene) -> Iterator[Breach]:
    lactic = _lactic_days(scene.plan)
    for one, next_ in pairwise(lactic):
        if (next_ - one).days < LACTIC_GAP_DAYS:
            yield Breach(f"Lactic days on {said(one)} and {said(next_)}: {LACTIC_GAP_H} hours belong between them.",
                         (next_, one))  # fmt: skip
    for on in lactic:
        if sum(each.cost.lactic for each in done(scene.plan.on(on))) > 1:
            yield Breach(f"Two lactic sessions on {said(on)}.", (on,))


def _cutoff(scene: Scene) -> Iterator[Breach]:
    until, bout = scene.camp.lactic_until, scene.camp.bout_on
    if until is None or bout is None:
        return
    for on in _lactic_days(scene.plan):
        if on > until:
            yield Breach(f"Lactic work on {said(on)}, {(bout - on).days} days before the bout: the last day for it is "
                         f"{said(until)}.", (on,))  # fmt: skip


def _hard_days(scene: Scene) -> Iterator[Breach]:
    hard = sorted({each.on for each in done(scene.plan.placed) if each.cost.hard})
    run: list[date] = []
    for on in hard:
        run = [*run, on] if run and on - run[-1] == DAY else [on]
        if len(run) == MOST_HARD_RUNNING + 1:
            yield Breach(f"{len(run)} hard days running, from {said(run[0])}: two are the most.", (on, *run[:-1]))


def _apart(scene: Scene) -> Iterator[Breach]:
    hard = sorted({each.on for each in done(scene.plan.placed) if each.cost.hard})
    for one, next_ in pairwise(hard):
        if next_ - one == DAY:
            yield Breach(f"{said(one)} and {said(next_)} are both hard.", (next_, one))


def _most_a_week(scene: Scene) -> Iterator[Breach]:
    for week in scene.camp.calendar:
        held = scene.plan.of(week)
        if len(held) > scene.camp.most_a_week:
            yield Breach(f"{len(held)} sessions in week {week.number}: {scene.camp.most_a_week} are the most.",
                         tuple(sorted({each.on for each in held})))  # fmt: skip


def _available(scene: Scene) -> Iterator[Breach]:
    for on in sorted({each.on for each in scene.plan.placed}):
        held, minutes = scene.plan.on(on), scene.camp.minutes_on(on)
        if not scene.camp.start <= on <= scene.camp.last:
            yield Breach(f"{said(on)} is outside the camp.", (on,))
        elif not minutes:
            yield Breach(f"{said(on)} is no day of training.", (on,))
        elif (total_s := sum(each.cost.total_s for each in held)) > 60 * minutes:
            yield Breach(f"{-(-total_s // 60)} minutes on {said(on)}: there are {minutes}.", (on,))


def _a_day(scene: Scene) -> Iterator[Breach]:
    for on in sorted({each.on for each in scene.plan.placed}):
        held = scene.plan.on(on)
        if len(held) > MOST_A_DAY or sum(each.purpose != "skill" for each in held) > 1:
            yield Breach(f"{len(held)} sessions on {said(on)}: one, and a skill session before it.", (on,))


def _skill_first(scene: Scene) -> Iterator[Breach]:
    for on in sorted({each.on for each in scene.plan.placed}):
        hard = False
        for each in done(scene.plan.on(on)):
            if each.purpose == "skill" and hard:
                yield Breach(f"Skill comes after hard work on {said(on)}: fresh first.", (on,))
            hard = hard or each.cost.hard


def _fixed(scene: Scene) -> Iterator[Breach]:
    for on, purpose in scene.camp.fixtures:
        if purpose != "travel" and not any(each.purpose == purpose for each in scene.plan.on(on)):
            yield Breach(f"{purpose.replace('-', ' ').capitalize()} is fixed on {said(on)}, and is not there.", (on,))


def _trains(scene: Scene) -> Iterator[Breach]:
    for week in scene.camp.calendar:
        if must_train(scene.camp, week) and not scene.plan.of(week):
            yield Breach(f"Nothing stands in week {week.number}.", (week.first,))


def must_train(camp: Camp, week: Week) -> bool:
    """Whether a week has to hold anything: seven days of it, and a day to train on."""
    return len(week.days) == 7 and any(camp.minutes_on(day) for day in week.days)


def _ease(scene: Scene) -> Iterator[Breach]:
    for week in scene.camp.calendar:
        before = scene.camp.before(week)
        if week.phase != "ease" or before is None or not (whole := load(scene.plan.of(before))):
            continue
        share = load(scene.plan.of(week)) / whole
        if share > EASE_MOST:
            yield Breach(f"Week {week.number} should ease, and costs {100 * share:.0f} % of week {before.number}: "
                         f"{100 * EASE_MOST:.0f} % at the most.", (week.first,))  # fmt: skip


def reference_weeks(camp: Camp) -> tuple[Week, ...]:
    """The whole weeks that a taper is measured by."""
    return tuple([week for week in camp.calendar if week.whole][-SPAN_WEEKS:])


def taper_days(camp: Camp) -> int:
    """How long the taper is."""
    assert camp.taper_from is not None
    return (camp.last - camp.taper_from).days + 1


def _tapered(scene: Scene) -> float | None:
    """What the taper costs, of what whole weeks as long do; None where there is nothing to compare."""
    camp, weeks = scene.camp, reference_weeks(scene.camp)
    whole = sum(load(scene.plan.of(week)) for week in weeks)
    if camp.taper_from is None or not whole:
        return None
    return load(scene.plan.within(camp.taper_from, camp.last)) / (taper_days(camp) / 7 * whole / len(weeks))


def _taper(scene: Scene) -> Iterator[Breach]:
    share, since = _tapered(scene), scene.camp.taper_from
    if share is not None and since is not None and share > TAPER_MOST:
        yield Breach(f"The last two weeks cost {100 * share:.0f} % of whole ones: {100 * TAPER_MOST:.0f} % at the "
                     "most.", (since,))  # fmt: skip


def _taper_least(scene: Scene) -> Iterator[Breach]:
    share, since = _tapered(scene), scene.camp.taper_from
    if share is not None and since is not None and share < TAPER_LEAST:
        yield Breach(f"The last two weeks cost {100 * share:.0f} % of whole ones: under {100 * TAPER_LEAST:.0f} % "
                     "is more rest than the studies gave.", (since,))  # fmt: skip


def _frequency(scene: Scene) -> Iterator[Breach]:
    camp, weeks = scene.camp, reference_weeks(scene.camp)
    if camp.taper_from is None or not weeks:
        return
    usual = sum(len(scene.plan.of(week)) for week in weeks) / len(weeks)
    now = len(scene.plan.within(camp.taper_from, camp.last)) * 7 / taper_days(camp)
    if now < FREQUENCY * usual - 1e-9:
        yield Breach(f"{now:.1f} sessions a week at the end, {usual:.1f} before: as often, and shorter.",
                     (camp.taper_from,))  # fmt: skip


def _climb(scene: Scene) -> Iterator[Breach]:
    for week in scene.camp.calendar:
        before = scene.camp.before(week)
        if not week.whole or before is None or not (was := load(scene.plan.of(before))):
            continue
        climbs = load(scene.plan.of(week)) / was - 1
        if climbs > scene.camp.most_climb + 1e-9:
            yield Breach(f"Week {week.number} costs {100 * climbs:.0f} % more than week {before.number}.",
                         (week.first,))  # fmt: skip


def turns(camp: Camp, plan: Plan) -> Iterator[tuple[Week, list[str]]]:
    """The purposes whose knob was turned further, week by week; one more than once where it jumps."""
    stands: dict[str, int] = {}
    for week in camp.calendar:
        turned: list[str] = []
        for each in plan.of(week):
            if each.step is None:
                continue
            if each.purpose in stands and each.step > stands[each.purpose]:
                turned += [each.purpose] * (each.step - stands[each.purpose])
            stands[each.purpose] = max(each.step, stands.get(each.purpose, each.step))
        yield week, turned


def _one_knob(scene: Scene) -> Iterator[Breach]:
    for week, turned in turns(scene.camp, scene.plan):
        easy = still(scene.camp, week)
        if len(turned) > (0 if easy else 1):
            names = ", ".join(sorted({each.replace("-", " ") for each in turned}))
            most = "none in an easy week" if easy else "one"
            yield Breach(f"{len(turned)} turns of a knob in week {week.number} ({names}): {most}.", (week.first,))


def still(camp: Camp, week: Week) -> bool:
    """Whether no knob is turned in a week: it is eased or tapered."""
    return week.phase == "ease" or (camp.taper_from is not None and week.first >= camp.taper_from)


def _rehearsal(scene: Scene) -> Iterator[Breach]:
    since = scene.camp.rehearsal_from
    if since is None:
        return
    for each in done(scene.plan.placed):
        if each.purpose == "fight-rehearsal" and each.on < since:
            yield Breach(f"The bout's rounds on {said(each.on)}: they belong in the last third, from {said(since)}.",
                         (each.on,))  # fmt: skip


def rehearsal_weeks(camp: Camp) -> tuple[Week, ...]:
    """Weeks that should rehearse the bout: those of the last third, whole or tapered, but for the bout's own."""
    since = camp.rehearsal_from
    if since is None or camp.bout_on is None:
        return ()
    return tuple(
        week for week in camp.calendar if week.first >= since and len(week.days) == 7 and week.phase != "fresh"
    )


def _rehearsed(scene: Scene) -> Iterator[Breach]:
    for week in rehearsal_weeks(scene.camp):
        if not any(each.purpose == "fight-rehearsal" for each in scene.plan.of(week)):
            yield Breach(f"Week {week.number} does not rehearse the bout.", (week.first,))


def _strikes(scene: Scene) -> Iterator[Breach]:
    for limb, most in scene.ceilings.most.items():
        told: date | None = None
        for on in sorted({each.on for each in scene.plan.placed}):
            struck = limbs(scene.plan.within(on - SEVEN_DAYS, on), landed=True).get(limb, 0)
            if struck > most and (told is None or on - told > SEVEN_DAYS):
                told = on
                yield Breach(f"About {struck:,} strikes with the {limb} in the seven days to {said(on)}: {most:,} is "
                             f"{scene.ceilings.said[limb]}.", (on,))  # fmt: skip


def barred_by(rule: str) -> Finds:
    def finds(scene: Scene) -> Iterator[Breach]:
        for each in done(scene.plan.placed):
            for bar in each.cost.barred:
                if bar.rule == rule and bar.on(each.on):
                    yield Breach(f"{said(each.on)}: {bar.text}", (each.on,))

    return finds


BARS = ("knock", "screening", "limits", "cautions")


def _fixed_sentence(camp: Camp) -> str:
    return "What is fixed stays on its day." if camp.fixtures else "Nothing is fixed."


def _bout(text: Callable[[Camp], str]) -> Callable[[Camp], str]:
    return lambda camp: text(camp) if camp.bout_on else "There is no bout."


RULES: tuple[Rule, ...] = (
    Rule("knock", "Head", True, "stop",
         lambda camp: "After a knock to the head nothing is planned until a licensed physician clears it.",
         "Amsterdam consensus 2022, BJSM 2023, from memory; commissions' rules", barred_by("knock")),
    Rule("screening", "Screen", True, "stop", lambda camp: "Only what the screening allows.",
         "Riebe et al. 2015, MSSE 47:2473-2479, logic in own words, from memory", barred_by("screening")),
    Rule("limits", "Limit", True, "stop", lambda camp: "Nothing against a limit, as long as it holds.",
         "the person's own limits, each with who set it", barred_by("limits")),
    Rule("cautions", "Dose", True, "caution",
         lambda camp: "Each session within what the tool would offer this person: age, level, strikes, warm-up.",
         "the rules of the Method page", barred_by("cautions")),
    Rule("lactic-cutoff", "Bout", True, "stop",
         _bout(lambda camp: f"Last lactic day by {said(camp.lactic_until or camp.last)}, {camp.cutoff_days} "
               f"days before the bout; {LATEST_LACTIC_DAYS} is the very latest."), COMMON, _cutoff),
    Rule("lactic-gap", "Gap", True, "caution", lambda camp: f"{LACTIC_GAP_H} hours between lactic days, all weeks.",
         "Stanley, Peake and Buchheit 2013, 48 h and more after high intensity, from memory", _lactic_gap),
    Rule("hard-days", "Row", True, "caution", lambda camp: "No more than two hard days running.", COMMON, _hard_days),
    Rule("strikes", "Dose", True, "caution", lambda camp: "Strikes of each limb under their ceiling in any seven days.",
         "own setting, for wrists and shins; the person's own limits", _strikes),
    Rule("available", "Day", True, "caution", lambda camp: "On days there is time for it, and within their minutes.",
         "the coach's own", _available),
    Rule("most-a-week", "Week", True, "caution", lambda camp: f"At most {camp.most_a_week} sessions a week.",
         "the coach's own", _most_a_week),
    Rule("one-a-day", "Day", True, "caution", lambda camp: "One session a day, and at most a skill session before it.",
         COMMON, _a_day),
    Rule("skill-first", "Fresh", True, "caution", lambda camp: "Skill fresh, before hard work of the same day.",
         COMMON, _skill_first),
    Rule("fixed", "Fixed", True, "caution", _fixed_sentence, "the coach's own", _fixed),
    Rule("trains", "Empty", True, "note", lambda camp: "Every week trains.", COMMON, _trains),
    Rule("ease", "Ease", True, "caution",
         lambda camp: f"Every {'third' if camp.ease_every == 3 else 'fourth'} week eases, at about half the load."
         if camp.ease_every else "No ease weeks are asked for.", COMMON, _ease),
    Rule("taper", "Taper", True, "caution", _bout(lambda camp: "The last two weeks cost 41 to 60 % less, at the same "
         "effort. The studies are of runners, riders and swimmers: none of fights, none of making weight."), BOSQUET,
         _taper),
    Rule("climb", "Ramp", True, "caution",
         lambda camp: f"A week costs at most {100 * camp.most_climb:.0f} % more than the whole week before. No share "
         "is proven to keep anybody from harm (Impellizzeri 2020): it is your own brake.", "own setting", _climb),
    Rule("one-knob", "Knob", True, "caution",
         lambda camp: "One knob a week: rest down, then rounds, then work; none in easy weeks.", COMMON, _one_knob),
    Rule("rehearsal", "Bout", True, "note", _bout(lambda camp: "The bout's rounds in the last third, not before."),
         COMMON, _rehearsal),
    Rule("taper-least", "Taper", False, "note", _bout(lambda camp: "No less than 40 % of it, to the end."), BOSQUET,
         _taper_least),
    Rule("frequency", "Taper", False, "note", _bout(lambda camp: "As often as before, to the end; shorter."),
         "Mujika and Padilla 2003, MSSE 35:1182-1187, from memory", _frequency),
    Rule("rehearsed", "Bout", False, "note", _bout(lambda camp: "The bout is rehearsed every week of the last third."),
         COMMON, _rehearsed),
    Rule("apart", "Row", False, "note", lambda camp: "A day between hard days.", COMMON, _apart),
)  # fmt: skip
BY_ID = {rule.id: rule for rule in RULES}


@dataclass(frozen=True)
class Ruled:
    """How a rule stands in a plan."""

    rule: Rule
    sentence: str
    breaches: tuple[Breach, ...]

    @property
    def held(self) -> bool:
        return not self.breaches


def ruled(camp: Camp, plan: Plan, held_by: Ceilings) -> tuple[Ruled, ...]:
    """Every rule and how it stands, the weightiest first."""
    scene = Scene(camp, plan, held_by)
    return tuple(Ruled(rule, rule.sentence(camp), tuple(rule.finds(scene))) for rule in RULES)
