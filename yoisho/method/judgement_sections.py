"""The sections on judgement: purposes, cautions, rule sets, and what none of it can tell."""

from math import isfinite

from yoisho.engine.measures import LACTIC_DEEP
from yoisho.judgement import cautions
from yoisho.judgement.targets import TARGETS, Measure, Target
from yoisho.judgement.verdict import HOLDS
from yoisho.method.document import Section, Table
from yoisho.session.kit import GLOVES, ITEMS
from yoisho.session.rules import CHECK, RULE_SETS

LIMITS = (
    "Fitted to cycling and running studies of trained young adults. Striking is mapped on to it, and that mapping "
    "is ours.",
    "No published cost per strike exists; nor an accepted critical power for striking.",
    "The figures of the studies are recalled from memory, without the documents at hand, and say so.",
    "Recovery in intermittent hard work is too generous: where the model's oxygen books still balance people stop, "
    "by a fatigue that is not a lack of energy. Long sessions of hard rounds with light rests end sooner than it "
    "says.",
    "Two short bouts at twice VO2max with minutes of rest leave the model more breathless than people.",
    "After a hard effort uptake falls faster in the model than in people.",
    "Blood lactate, heart rate and kcal are estimates with ranges; one person may lie outside them.",
    "The tool never diagnoses. Physicians, licensed practice and local rules come first.",
)


def _number(value: float, measure: Measure) -> str:
    if not isfinite(value):
        return ""
    return f"{100 * value:.0f} %" if measure.unit in ("percent", "demand") else f"{value:g}"


def _band(target: Target) -> str:
    if target.heart_band is None:
        return ""
    low, high = target.heart_band
    return f"{100 * low:g} to {100 * high:g} %"


def purposes() -> Section:
    schools = tuple((t.name, t.meaning, t.work, t.ratio, _band(t), t.source) for t in TARGETS.values())
    measures = tuple(
        (t.name, m.label, m.unit, _number(m.none_below, m), _number(m.full_from, m), _number(m.full_to, m),
         _number(m.none_above, m), f"{m.weight:g}", m.source)
        for t in TARGETS.values() for m in t.measures
    )  # fmt: skip
    return Section(
        "purposes", "Purposes and the verdict",
        (
            "A purpose is a small set of measures. Each has a desirability from 0 to 1: nothing up to the first "
            "bound, full marks between the next two, nothing again from the last; an empty bound is none. They are "
            "joined by a weighted geometric mean (Derringer and Suich 1980, from memory): the score.",
            *HOLDS,
        ),
        (),
        (
            Table("The nine purposes and their schools",
                  ("purpose", "meaning", "work", "work to rest", "heart, of its maximum", "source"), schools),
            Table("Their measures", ("purpose", "measure", "unit", "none under", "full from", "full to", "none over",
                                     "weight", "source"), measures),
        ),
    )  # fmt: skip


def safety() -> Section:
    rules = tuple((rule.seal, rule.about, rule.source) for rule in cautions.RULES)
    heat = tuple((f"{least:g} °C", level, meaning, cure) for least, level, meaning, cure in cautions.HEAT)
    strikes = tuple((level, str(a), str(b)) for level, (a, b) in cautions.STRIKES_A_HAND.items())
    kit = tuple((k.word, k.on, str(k.on_s), k.off, str(k.off_s)) for k in (*GLOVES.values(), *ITEMS.values()))
    return Section(
        "safety", "Cautions",
        (
            "Every caution has a level (note, caution, stop), a place in the session where it has one, a cure and "
            "a source. The coach decides; a physician's word, licensed practice and local rules stand above all of "
            "it.",
            f"A session counts as lactic work when the lactic store is {LACTIC_DEEP} for "
            f"{cautions.LACTIC_DEEP_MIN:g} min or more.",
        ),
        (),
        (
            Table("The rules, the weightiest first", ("seal", "rule", "source"), rules),
            Table("Heat by wet-bulb globe temperature, which is not the air's; Armstrong et al. 2007, from memory",
                  ("from", "severity", "meaning", "cure"), heat),
            Table("Strikes with one hand; own setting", ("level", "a session", "a week"), strikes),
            Table("What kit takes to change, with a helper; own settings",
                  ("kit", "called as it goes on", "seconds", "called as it comes off", "seconds off"), kit),
        ),
    )  # fmt: skip


def rule_sets() -> Section:
    rows = tuple((rules.name, rules.text) for rules in RULE_SETS.values())
    return Section("rule-sets", "Rule sets", (f"For bout rehearsal: {CHECK}.",), (),
                   (Table("Rounds and rests", ("rule set", "rounds"), rows),))  # fmt: skip


def limits() -> Section:
    return Section("limits", "Known limits", LIMITS)
