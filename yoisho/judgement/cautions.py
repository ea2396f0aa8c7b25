"""Cautions: the trade's safety rules, each with its reason, its source and its cure. The coach decides.

One entry in `RULES` is all a new rule needs: a function from the person, the reading and the circumstances to a
caution, or to none. Nothing here diagnoses; licensed practice and local rules come first.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import timedelta
from typing import Literal

from yoisho.engine.demand import mix_of_interval
from yoisho.engine.readout import Reading
from yoisho.engine.strike_cost import top_rate
from yoisho.engine.work_bouts import HARD_FRAC
from yoisho.judgement.circumstances import Circumstances
from yoisho.judgement.fade import fade_bound, first_faded
from yoisho.judgement.limits import Limit
from yoisho.judgement.targets import TARGETS
from yoisho.session.clock import clock
from yoisho.session.kit import GLOVES
from yoisho.session.timeline import Timeline, TimelineInterval
from yoisho.session.volume import HANDS, total
from yoisho.session.wearing import kit_changes
from yoisho.strikes.bags import BAGS, against, lands_on, suitable
from yoisho.strikes.counts import Limb
from yoisho.strikes.tempo import TEMPOS

Severity = Literal["note", "caution", "stop"]

WARM_UP_S = 300
_WARM_UP_FRAC = 0.4
VIGOROUS_FRAC = 0.64
"""Demand from which work is vigorous [x VO2max]: ACSM, Garber et al. 2011, from memory."""
LACTIC_DEEP_MIN = 1.0
"""Minutes with the lactic store far down from which a session counts as lactic work."""
LACTIC_GAP_H = 48
LATEST_LACTIC_DAYS = 7
"""Days before a fight from which lactic work stops, whatever the school."""
FIGHT_AHEAD_DAYS = 28
"""A fight this near is on the Bench. Own setting."""
NIGGLE_DAYS = 14
"""Something that hurt speaks for so long. Own setting."""
HARD_FORCE = 0.8
"""Force of a strike, of a person's full one, from which it loads a hand or a leg hard. Own setting."""
LONGEST_STUDIED_S = 3600
"""The longest exercise of the studies that the engine is fitted to."""
YOUTH_YEARS = 16
HARD_MINUTES = {"beginner": 8.0, "youth": 6.0}
LONGEST_YOUTH_ALL_OUT_S = 10
STRIKES_A_HAND = {"beginner": (300, 900), "club": (600, 2400), "fighter": (1000, 4500)}
"""Strikes with one hand in a session and in a week. Own setting, for wrists and knuckles."""
STRIKES_A_LEG = {"beginner": (100, 300), "club": (200, 800), "fighter": (350, 1500)}
"""Kicks and knees with one leg in a session and in a week. Own setting, for shins, hips and feet."""
RATE_SLACK = 1.1
"""Over the model's top rate before it is questioned: people differ. Own setting."""
LEAST_FOR_BALANCE = 40
"""Strikes from which an uneven share of a side is spoken of."""
BARE_HANDED = frozenset(t.id for t in TEMPOS.values() if t.rung is not None and t.rung <= (TEMPOS["flow"].rung or 0))
"""Tempos at which something may be struck with no padding on the hand. Common practice, no source."""
MOST_BARE_PERCENT = 50
"""Energy of a strike up to which it may [% of a full one]. Own setting."""
UNEVEN = 0.3
"""Share of a side below which it is uneven. Own setting."""
HEAT: tuple[tuple[float, Severity, str, str], ...] = (
    (32.3, "stop", "no training at this heat", "Cancel, or train elsewhere."),
    (30.1, "stop", "hard work only for those used to the heat, and little of it", "Keep to skill work, or cancel."),
    (27.9, "stop", "those not used to the heat stop or do very little", "Halve the work, double the rest, give water."),
    (25.7, "caution", "high risk for the unfit and those not used to it", "Cut effort and length, and give water."),
    (22.3, "caution", "the risk is up for everybody", "Give more rest, and water in every one."),
    (18.4, "note", "the risk begins to rise", "Watch those at higher risk, and have water at hand."),
)
"""WBGT from which each holds [°C], its severity, its meaning and its cure: Armstrong et al. 2007, from memory."""


@dataclass(frozen=True)
class Caution:
    rule: str
    """Id of the rule that speaks."""
    seal: str
    """One word for the seal."""
    severity: Severity
    text: str
    cure: str
    source: str
    at_s: float | None = None
    """Where in the timeline; None where it is about the whole session."""


@dataclass(frozen=True)
class Rule:
    id: str
    seal: str
    about: str
    """What the rule says, in a sentence."""
    source: str
    speaks: Callable[["Rule", Reading, Circumstances], Caution | None]
    curable: bool = False
    """A change to the session can answer it; the others are about the person or the day."""
    barring: bool = False
    """Nothing that is offered may call it up, where it is more than a note."""
    daily: bool = False
    """It is about the person and the day, whatever the session."""
    final: bool = False
    """Where it says stop, no coach goes past it."""

    def caution(self, severity: Severity, text: str, cure: str, at_s: float | None = None) -> Caution:
        return Caution(self.id, self.seal, severity, text, cure, self.source, at_s)


def is_lactic(reading: Reading) -> bool:
    """Whether a session empties the lactic store so far that it counts as a lactic day."""
    return reading.figures["lactic_deep_min"].value >= LACTIC_DEEP_MIN


def _first(reading: Reading, demand_frac: float) -> float | None:
    """Start of the first work at or above a demand [s]."""
    return next(
        (float(i.start_s) for i in reading.timeline.intervals if i.kind == "work"
         and i.demand_frac >= demand_frac),
        None,
    )  # fmt: skip


def _concussion(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    if not circumstances.concussion_uncleared:
        return None
    return rule.caution(
        "stop", "A knock-out or suspected concussion has not been cleared by a licensed physician.",
        "No training until it is; a commission's suspension stands.",
    )  # fmt: skip


def _limit(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    broken = [
        (limit, breach)
        for limit in circumstances.limits
        if (breach := limit.breach(reading, circumstances.strikes_this_week)) is not None
    ]
    if not broken:
        return None
    said = "; ".join(f"{limit.words}{_until(limit)}: {breach.text}" for limit, breach in broken)
    cures = dict.fromkeys(breach.cure for _, breach in broken)
    return rule.caution("stop", f"{said[0].upper()}{said[1:]}.", " ".join(cures), broken[0][1].at_s)


def _until(limit: Limit) -> str:
    return f" until {limit.until:%-d %B}" if limit.until else ""


_SCREENING_SAYS = {
    "stop": ("stop", "There are symptoms: stop, and see a physician before any more.", "Wait for the clearance."),
    "clearance": ("stop", "The screening asks for a physician's clearance before this.",
                  "Wait for the clearance, then begin light to moderate."),
    "clearance before vigorous": ("caution", "A known disease: vigorous work needs a physician's clearance within "
                                  "twelve months.", "Keep to flow and technique until it is there."),
    "gradual": ("caution", "Not regularly active so far: vigorous work comes later.",
                "Begin light to moderate, and build up over weeks."),
}  # fmt: skip


def _screening(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    vigorous = _first(reading, VIGOROUS_FRAC)
    if circumstances.screening is None:
        if vigorous is None or not circumstances.of_somebody:
            return None
        return rule.caution(
            "note", "No screening is on record, and this is vigorous work.",
            "Ask the screening questions first; where they say so, a physician decides.", vigorous,
        )  # fmt: skip
    outcome = circumstances.screening.outcome
    if outcome == "clear" or (vigorous is None and outcome in ("gradual", "clearance before vigorous")):
        return None
    severity, text, cure = _SCREENING_SAYS[outcome]
    return rule.caution(severity, text, cure, vigorous)  # type: ignore[arg-type]


def _clearance_ends(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    screening = circumstances.screening
    if screening is None or not screening.ends_soon or screening.days_left is None:
        return None
    left = screening.days_left
    days = "today" if left == 0 else "tomorrow" if left == 1 else f"in {left} days"
    return rule.caution("note", f"The physician's clearance ends {days}.", "Ask for the next one now.")


def _medication(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    if reading.heart_holds:
        return None
    return rule.caution(
        "caution", "Medication that lowers heart rate: heart-rate figures do not hold for this person.",
        "Steer by perceived effort, and follow the physician's advice.",
    )  # fmt: skip


def first_needing_warmth(timeline: Timeline) -> tuple[TimelineInterval, int] | None:
    """The first hard work or kicks, and the seconds of easy work before it; None where there are neither."""
    warm_s = 0
    for interval in timeline.intervals:
        combination = interval.combination
        kicks = combination is not None and any(one.known.kind == "kick" for one in combination.actions)
        if interval.demand_frac >= HARD_FRAC or kicks:
            return interval, warm_s
        warm_s += interval.seconds if interval.demand_frac >= _WARM_UP_FRAC else 0
    return None


def _warm_up(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    found = first_needing_warmth(reading.timeline)
    if found is None or found[1] >= WARM_UP_S:
        return None
    first, warm_s = found
    what = "Hard work starts" if first.demand_frac >= HARD_FRAC else "Kicks start"
    return rule.caution(
        "caution", f"{what} at {clock(first.start_s)} after {clock(warm_s)} of easy work.",
        "Put 5:00 to 10:00 of easy skipping or shadow first, in this session or before it.",
        float(first.start_s),
    )  # fmt: skip


def _hard_minutes(reading: Reading) -> float:
    return sum(i.seconds for i in reading.timeline.intervals if i.demand_frac >= HARD_FRAC) / 60


def _ceiling(rule: Rule, reading: Reading, most_min: float, whom: str) -> Caution | None:
    minutes = _hard_minutes(reading)
    if minutes <= most_min:
        return None
    return rule.caution(
        "caution", f"{clock(60 * minutes)} of hard work: {clock(60 * most_min)} is the ceiling for {whom}.",
        "Fewer rounds, or flow instead of the last ones.", _first(reading, HARD_FRAC),
    )  # fmt: skip


def _beginner(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    return (
        _ceiling(rule, reading, HARD_MINUTES["beginner"], "a beginner") if reading.person.level == "beginner" else None
    )


def _youth(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    if reading.person.age_years >= YOUTH_YEARS:
        return None
    for interval in reading.timeline.intervals:
        if interval.tempo == "all-out" and interval.seconds > LONGEST_YOUTH_ALL_OUT_S:
            return rule.caution(
                "caution", f"All out for {clock(interval.seconds)} under {YOUTH_YEARS} years.",
                f"Keep all-out efforts to {clock(LONGEST_YOUTH_ALL_OUT_S)}, or make it technique.",
                float(interval.start_s),
            )  # fmt: skip
    if is_lactic(reading):
        return rule.caution(
            "caution", f"Lactic work under {YOUTH_YEARS} years.", "Skill and short bursts serve this age better."
        )
    return _ceiling(rule, reading, HARD_MINUTES["youth"], f"those under {YOUTH_YEARS}")


def _lactic_gap(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    hours = circumstances.hours_since_lactic
    if hours is None or hours >= LACTIC_GAP_H or not is_lactic(reading):
        return None
    return rule.caution(
        "caution", f"The last lactic session was {hours:.0f} h ago, and this is one too.",
        f"Leave {LACTIC_GAP_H} h between, or make this one flow or skill.",
    )  # fmt: skip


def _days(number: int) -> str:
    return "1 day" if number == 1 else f"{number} days"


def _fight_near(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    days, last = circumstances.days_to_fight, circumstances.last_lactic_days
    if days is None or not 0 <= days <= FIGHT_AHEAD_DAYS:
        return None
    to_go = "The bout is today" if days == 0 else f"{_days(days)} to the bout"
    left = days - last
    if left >= 0:
        until = circumstances.today + timedelta(days=left) if circumstances.today else None
        on = f"{until:%-d %B}" if until else "today" if left == 0 else f"in {_days(left)}"
        return rule.caution(
            "note", f"{to_go}. The last hard lactic day is {on}, {last} days before it.",
            "Plan the lactic work before that day; after it pace in short rounds, and skill.",
        )  # fmt: skip
    if not is_lactic(reading):
        return rule.caution(
            "note", f"{to_go}. The last hard lactic day is over.", "Pace in short rounds with full rests, and skill."
        )
    return rule.caution(
        "stop" if days < LATEST_LACTIC_DAYS else "caution",
        f"{to_go}: the last lactic session belongs {last} days before it, and {LATEST_LACTIC_DAYS} at the very latest.",
        "Rehearse the pace in short rounds with full rests, or work on skill.",
    )  # fmt: skip


def _hard_with(reading: Reading, limbs: tuple[Limb, ...]) -> float | None:
    """Where the first hard strike with one of the limbs stands [s]; None where there is none."""
    for interval, volume in zip(reading.timeline.intervals, reading.volumes, strict=True):
        force = interval.source.force or 0.0
        if force >= HARD_FORCE and volume.on(*limbs) > 0:
            return float(interval.start_s)
    return None


def _niggle(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    for niggle in circumstances.niggles:
        loaded = reading.volume.on(*niggle.limbs)
        if niggle.days_ago > NIGGLE_DAYS or loaded < 1:
            continue
        when = "today" if niggle.days_ago == 0 else f"{_days(niggle.days_ago)} ago"
        hard = _hard_with(reading, niggle.limbs)
        what = "hard strikes load it" if hard is not None else f"{loaded:.0f} strikes load it"
        return rule.caution(
            "note" if hard is None else "caution", f"The {niggle.told} hurt {when}, and {what} here.",
            "No power with it until it is free of pain; what stays is for a physician to look at.", hard,
        )  # fmt: skip
    return None


def _evidence(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    total_s = reading.timeline.total_s
    if total_s <= LONGEST_STUDIED_S:
        return None
    return rule.caution(
        "note", f"{clock(total_s)} is longer than any study of this model: past {clock(LONGEST_STUDIED_S)} it has no "
        "evidence.", "Trust what you see over the figures there, and give food and water.", float(LONGEST_STUDIED_S),
    )  # fmt: skip


def _strike_ceiling(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    landed = total(
        volume
        for interval, volume in zip(reading.timeline.intervals, reading.volumes, strict=True)
        if lands_on(interval.source.modality)
    )
    for limb, strikes in landed.limbs.items():
        session_most, week_most = (STRIKES_A_LEG if limb.endswith("leg") else STRIKES_A_HAND)[reading.person.level]
        if strikes > session_most:
            return rule.caution(
                "caution", f"About {strikes:.0f} strikes land with the {limb}: {session_most} a session is the ceiling "
                "at this level.", "Fewer rounds, or footwork and defence in their place.",
            )  # fmt: skip
        week = circumstances.strikes_this_week.get(limb, 0.0) + strikes
        if week > week_most:
            return rule.caution(
                "caution", f"About {week:.0f} strikes with the {limb} in seven days: {week_most} is the ceiling at "
                "this level.", "Shadow, footwork or defence instead of the bag.",
            )  # fmt: skip
    return None


def _bag(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    for interval in reading.timeline.intervals:
        found, modality = interval.combination, interval.source.modality
        if found is None or modality not in BAGS:
            continue
        for why in against(found, modality):
            fitting = ", ".join(BAGS[each].word for each in suitable(found))
            return rule.caution(
                "caution", f"{clock(interval.start_s)}: {why}.",
                f"Aim it at the body, or do it on {fitting}." if fitting else "Leave it out.", float(interval.start_s),
            )  # fmt: skip
    return None


def _bare_hands(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    for interval, volume in zip(reading.timeline.intervals, reading.volumes, strict=True):
        source = interval.source
        gloves = GLOVES[source.gloves] if source.gloves else None
        if gloves is None or not gloves.bare or interval.kind != "work" or not lands_on(source.modality):
            continue
        flows = interval.tempo in BARE_HANDED
        light = flows and (source.power_percent or 0) <= MOST_BARE_PERCENT
        if light or not volume.on(*HANDS):
            continue
        what = f"{source.power_percent} % power" if flows else TEMPOS[interval.tempo].word
        return rule.caution(
            "caution", f"{clock(interval.start_s)}: {gloves.word}, and {what}.",
            "Keep it at flow and half power, or put gloves on: 12 to 16 oz for bag work in general.",
            float(interval.start_s),
        )  # fmt: skip
    return None


def _kit(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    short = [change for change in kit_changes(reading.timeline) if change.short_s]
    if not short:
        return None
    first = short[0]
    others = f", and {len(short) - 1} more such" if len(short) > 1 else ""
    return rule.caution(
        "note", f"{clock(first.at_s)}: {', '.join(first.words)} takes about {clock(first.needs_s)}, and the pause "
        f"before is {clock(first.room_s)}{others}.",
        f"Give a rest of {clock(first.needs_s)} there, or do both in the same kit.", float(first.at_s),
    )  # fmt: skip


def _side_balance(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    held = reading.volume
    placed = held.strikes - held.open
    if placed < LEAST_FOR_BALANCE:
        return None
    legs = {limb: n for limb, n in held.limbs.items() if limb.endswith("leg")}
    for limbs, what in ((legs, "kicks and knees"), (held.limbs, "strikes")):
        left = sum(n for limb, n in limbs.items() if limb.startswith("left"))
        whole = sum(limbs.values())
        share = left / whole if whole else 0.5
        if whole >= LEAST_FOR_BALANCE and not UNEVEN <= share <= 1 - UNEVEN:
            return rule.caution(
                "note", f"{100 * share:.0f} % of the {what} are of the left side.",
                "Switch sides at half, or add a round of the mirrored combination.",
            )  # fmt: skip
    return None


def _heat(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    if circumstances.wbgt_c is None:
        return None
    for least, severity, meaning, cure in HEAT:
        if circumstances.wbgt_c >= least:
            return rule.caution(severity, f"{circumstances.wbgt_c:.1f} °C WBGT: {meaning}.", cure)
    return None


def _rate(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    for interval in reading.timeline.intervals:
        fixed = interval.strikes_per_min_fixed
        if fixed is None or not interval.source.struck or interval.partner:
            continue
        most = 60 * float(top_rate(mix_of_interval(interval), interval.source.force or 1.0))
        most *= reading.person.speed_scale.value
        if fixed > RATE_SLACK * most:
            return rule.caution(
                "caution",
                f"{fixed:.0f} strikes a minute are more than can be thrown: at that force about {most:.0f} are.",
                "Fewer a minute, or lighter ones.",
                float(interval.start_s),
            )
    return None


def _cannot_finish(rule: Rule, reading: Reading, circumstances: Circumstances) -> Caution | None:
    target = TARGETS.get(circumstances.purpose or "")
    number = first_faded(reading, target)
    if number is None:
        return None
    at_s = float(reading.timeline.intervals[reading.work_bouts[number - 1].first].start_s)
    return rule.caution(
        "note",
        f"From about {clock(at_s)}, effort {number} of {len(reading.work_bouts)}, the strikes fall short by more than "
        f"{100 * fade_bound(target):.0f} %.",
        "Stop there if form goes, or give longer rest or fewer rounds.",
        at_s,
    )  # fmt: skip


RULES: tuple[Rule, ...] = (
    Rule("concussion", "Head", "After a knock-out or suspected concussion: nothing until a licensed physician clears.",
         "Amsterdam consensus 2022, BJSM 2023, from memory; commissions' rules", _concussion, final=True, daily=True),
    Rule("screening", "Screen", "Vigorous work only as the screening allows; where it says so, a physician decides.",
         "Riebe et al. 2015, MSSE 47:2473-2479, logic in own words, from memory", _screening, barring=True, daily=True),
    Rule("clearance-ends", "Ends", "A physician's clearance that is about to end is asked for anew in time.",
         "own setting: 30 days before", _clearance_ends, daily=True),
    Rule("limit", "Limit", "What somebody must not do, as whoever treats or coaches them set it.",
         "the person's own limits, each with who set it", _limit, curable=True, barring=True, daily=True),
    Rule("heat", "Heat", "Less work as the wet-bulb globe temperature rises, none at the top.",
         "Armstrong et al. 2007, MSSE 39:556-572, from memory", _heat, daily=True),
    Rule("bout-cut-off", "Bout", "The last lactic session 9 to 10 days before a bout, 7 at the very latest; told four "
         "weeks ahead.", "common practice, no source", _fight_near, curable=True, barring=True, daily=True),
    Rule("niggle", "Hurt", "What hurt in a log of the last two weeks is not loaded hard.",
         "common practice, no source; the two weeks are our own setting", _niggle,
         curable=True, barring=True, daily=True),
    Rule("lactic-gap", "Gap", "Two lactic days need 48 h between them.",
         "Stanley, Peake and Buchheit 2013, 48 h and more after high intensity, from memory", _lactic_gap,
         curable=True, barring=True, daily=True),
    Rule("medication", "RPE", "On medication that lowers heart rate, no heart-rate targets: effort by feel.",
         "common practice, no source", _medication),
    Rule("youth", "Youth", "Under 16: no long all-out work, no lactic work, little hard work.",
         "own setting; paediatric societies advise against boxing as a youth sport (2011), from memory",
         _youth, curable=True, barring=True),
    Rule("beginner", "Dose", "A beginner has a ceiling of hard minutes.", "own setting",
         _beginner, curable=True, barring=True),
    Rule("warm-up", "Cold", "No power and no kicks before five easy minutes.", "common practice, no source",
         _warm_up, curable=True, barring=True),
    Rule("strike-ceiling", "Strikes", "A ceiling of strikes that land with each hand and leg, a session and a week.",
         "own setting",
         _strike_ceiling, curable=True, barring=True, daily=True),
    Rule("rate", "Rate", "No more strikes a minute than the limb can throw at that force.",
         "own setting: the top rates of the Method page", _rate, curable=True, barring=True),
    Rule("bag", "Bag", "What does not belong on its bag, such as an uppercut to the head on a straight one.",
         "common practice, no source",
         _bag, curable=True, barring=True),
    Rule("bare-hands", "Bare", "Bare hands, or wraps alone, hit nothing beyond flow and half power.",
         "common practice, no source", _bare_hands),
    Rule("kit", "Kit", "Gloves and straps that change want a pause long enough for it.",
         "own setting: the seconds are a coach's estimate", _kit),
    Rule("side", "Side", "Left and right are kept even: no side below three tenths.", "common practice, no source; the "
         "share is our own setting",
         _side_balance, curable=True),
    Rule("evidence", "Long", "Past an hour the model has no study to stand on.", "the studies of the Method page",
         _evidence),
    Rule("fade", "Fade", "Where the effort asked can no longer be held.", "three-store model, an estimate",
         _cannot_finish, curable=True),
)  # fmt: skip
"""In order of weight: what must stop somebody comes first."""
CURABLE = frozenset(rule.id for rule in RULES if rule.curable)
BARRING = frozenset(rule.id for rule in RULES if rule.barring)
DAILY = frozenset(rule.id for rule in RULES if rule.daily)
SEALS = {rule.id: rule.seal for rule in RULES}
FINAL = frozenset(rule.id for rule in RULES if rule.final)


def stops(spoken: Iterable[Caution]) -> tuple[Caution, ...]:
    return tuple(caution for caution in spoken if caution.severity == "stop")


def bars(caution: Caution) -> bool:
    """Whether nothing that calls it up is offered: a stop, or what the tool itself could have left out."""
    return caution.severity == "stop" or (caution.rule in BARRING and caution.severity != "note")


def cautions(reading: Reading, circumstances: Circumstances | None = None) -> tuple[Caution, ...]:
    """The cautions that this person, session and day call for, the weightiest rule first."""
    known = circumstances or Circumstances()
    return tuple(found for rule in RULES if (found := rule.speaks(rule, reading, known)))
