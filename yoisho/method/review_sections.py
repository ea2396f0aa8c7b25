"""The section on what logs teach: how it is done, what is taken to be noise, and how near it comes."""

from yoisho.engine.cohort import DEMAND_CV, TEMPO_DEMAND_CV
from yoisho.method.document import Section, Table
from yoisho.review.calibration import DRAWN, HALF_LIFE_DAYS, KEPT, SEARCHED
from yoisho.review.evidence import HEART_WINDOW_S, NOISE, OTHER_REASONS
from yoisho.review.load import CRITICISM, MONOTONOUS
from yoisho.review.progression import CLEAN_IN_A_ROW, ORDER, TOO_HARD
from yoisho.review.proof import HELD_OUT, proven
from yoisho.review.repeats import FIELD_TESTS, FieldTestKind

_KINDS = {"strikes": "strikes of an effort", "heart": "heart rate", "rpe": "rating"}


def _share(value: float) -> str:
    return f"{100 * value:.0f} %"


def _test(test: FieldTestKind) -> tuple[str, ...]:
    error = _share(test.error) if test.relative else f"{test.error:g} {test.unit}"
    better = "more" if test.more_is_better else "less"
    return test.name, test.how, f"{test.low:g} to {test.high:g} {test.unit}", better, error, test.why


def learning() -> Section:
    """What logs teach, with the proof that `make prove` has written down."""
    found = proven()
    noise = tuple((_KINDS[kind], f"{each.own:g}", f"{each.day:g}", each.unit, each.why) for kind, each in NOISE.items())
    capacities = tuple(
        (world, row["name"], f"{row['error_before']:.3g}", f"{row['error_after']:.3g}", _share(row["inside"]))
        for world, told in found["worlds"].items() for row in told["capacities"]
    )  # fmt: skip
    forecasts = tuple(
        (world, _KINDS[row["kind"]], _share(row["inside_before"]), _share(row["inside_after"]),
         f"{row['crps_before']:.2f}", f"{row['crps_after']:.2f}", _share(row["worse"]))
        for world, told in found["worlds"].items() for row in told["forecasts"]
    )  # fmt: skip
    return Section(
        "learning", "What logs teach",
        (
            "Tests, formulas and defaults say what somebody probably has, each with its spread. Every log is held "
            "against what the model would expect of somebody with other numbers: strikes of each effort, and so the "
            f"fade; heart rate, by {HEART_WINDOW_S} s; the rating; and whether it could be finished. {DRAWN} draws "
            f"about the best fit are weighed by how well they fit all logs and the prior, and {KEPT} are kept: they "
            "make every range from then on. Best guesses are their means.",
            f"A log counts half after {HALF_LIFE_DAYS:.0f} days. All words of effort share a factor (spread "
            f"{_share(DEMAND_CV)}), and each has its own besides ({_share(TEMPO_DEMAND_CV)}); a word that was never "
            f"done stays as it was. {_share(OTHER_REASONS)} of sessions that were stopped are taken to have ended for "
            f"reasons of their own. Ranges are made {SEARCHED:g} times as wide as the draws alone would have them.",
            "Nothing a hall sees tells a cheap striker from a fit one. The cost of a strike is held at the model's, so "
            "what is learned of VO2max is in the model's terms: it forecasts strikes, fade and heart, and is no "
            "laboratory value.",
            f"The proof: {found['people']} simulated people for each row, true numbers drawn from the prior, "
            f"{found['logs']} logs each with the noise below, and {HELD_OUT} more that were held out. In the second "
            "and third world the engine that learns is wrong on purpose.",
            "What simulated devices tell teaches nothing, but in the demo's own history. Any log can be left out, and "
            "all of it can be switched off for a person.",
        ),
        (),
        (
            Table("What is taken to be noise (standard deviations)",
                  ("of", "each number", "the day", "unit", "why"), noise),
            Table("Field tests of one number, and how far two of the same person differ (typical error)",
                  ("test", "how", "taken from", "better is", "typical error", "why"),
                  tuple(map(_test, FIELD_TESTS.values()))),
            Table("Errors of what is learned (root mean square), and true values inside the 80 % range",
                  ("world", "capacity", "error before", "error after", "inside"), capacities),
            Table("Forecasts of sessions that were held out: inside the 80 % range, and mean CRPS",
                  ("world", "of", "inside before", "inside after", "CRPS before", "CRPS after", "worse for"),
                  forecasts),
        ),
    )  # fmt: skip


def weeks() -> Section:
    """Sums of weeks, and what to do next time."""
    order = tuple((purpose, ", ".join(knobs)) for purpose, knobs in ORDER.items())
    return Section(
        "weeks", "Weeks, and next time",
        (
            "Load is rating times minutes (Foster 2001, from memory). Monotony is the mean of a week's daily loads "
            "over their sample standard deviation, days of rest as 0; strain is load times monotony (Foster 1998, from "
            f"memory; which deviation he took we do not know). From {MONOTONOUS:g} on the days are called much alike.",
            "Moving means weigh a day by 2 / (N + 1), N being 7 or 28 (Williams 2017, from memory). " + CRITICISM,
            f"Next time: {CLEAN_IN_A_ROW} clean goes (all efforts done, fade within the purpose's bound, no harder "
            f"than expected) turn one knob by one notch; not finished, or {TOO_HARD:g} points over, is held, and twice "
            "in a row goes a notch back; what hurts is left out. Common practice, no source; the order of the knobs is "
            "our own setting: rest down, rounds, work, effort, but for those named here.",
        ),
        (),
        (Table("The order of the knobs", ("purpose", "turned in this order"), order),),
    )  # fmt: skip
