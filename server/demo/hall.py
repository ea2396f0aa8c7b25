"""The demo: an invented harbour-side hall. Nobody and nothing here exists."""

from dataclasses import dataclass, field

CLUB = "Capstan Hall"
CLASS = "Dinner bell, seven waves"
COACH_FIRST, COACH_LAST = "Marit", "Askew"


@dataclass(frozen=True)
class DemoTest:
    kind: str
    days_ago: int
    value: float = 0.0
    counts: tuple[int, ...] | None = None
    where: str = ""
    counted_by: str = ""


@dataclass(frozen=True)
class DemoLimit:
    kind: str
    set_by: str
    limb: str | None = None
    most: int | None = None
    period: str | None = None
    days: int | None = None
    """That it still holds; None until it is lifted."""


@dataclass(frozen=True)
class DemoPerson:
    name: str
    sport: str
    level: str
    sex: str
    age: int
    mass_kg: float
    vo2max_ml_kg_min: float | None = None
    heart_rate_lowering_medication: bool = False
    rule_set: str = ""
    days_to_fight: int | None = None
    stance: str = "orthodox"
    screening: tuple[bool, bool, bool] | None = None
    """Regularly active, known disease, cleared by a physician; None where there was no screening."""
    cleared_days_left: int = 305
    groups: tuple[str, ...] = ()
    tests: tuple[DemoTest, ...] = ()
    limits: tuple[DemoLimit, ...] = ()
    knocked_days_ago: int | None = None


@dataclass(frozen=True)
class DemoRun:
    days_ago: int
    done_frac: float
    rpe: int
    note: str


@dataclass(frozen=True)
class DemoSession:
    title: str
    person: str
    target: str
    parts: tuple[tuple[str, str], ...]
    runs: tuple[DemoRun, ...] = field(default=())
    tags: tuple[str, ...] = field(default=())


@dataclass(frozen=True)
class DemoEntry:
    name: str
    text: str
    tags: tuple[str, ...]
    note: str = ""


ACTIVE = (True, False, False)

BOOK = (
    DemoEntry("Bread and butter", "1-2", ("basics", "beginner")),
    DemoEntry("Over the rail", "1-3-2", ("basics", "hook")),
    DemoEntry("Harbour wall", "1-2, slip, 2", ("defence",), "The slip is small. Hands come back to the chin."),
    DemoEntry("Up and under", "1-2-3b, roll, 3", ("level change", "body"), "Sit down into the body hook."),
    DemoEntry("Rising tide", "6-3-2", ("pads", "uppercut"), "Pads or the uppercut bag only."),
    DemoEntry("Chop the mast", "1-2, rk-l", ("kicks",), "Only when warm."),
    DemoEntry("Both sheets", "4x lk-m, 4x rk-m", ("kicks", "balance"), "Four left, four right, at hip height."),
    DemoEntry("Build to the bell", "adding 5-2-4 | 1-3-2 | 2b-3 | slip, 2-3", ("escalating", "pads")),
    DemoEntry("Lucky dip", "draw 1-2 | 1-3-2 | 2-3-2 | 2b-3 | slip, 2-3 | recall", ("draw", "40/20"),
              "A different one each round; the last recalls all."),
    DemoEntry("Ladder of five", "pyramid 1-2-3b-2-3", ("pyramid", "memory")),
)  # fmt: skip

GROUPS = ("Capstan squad", "Dinner bell", "Slack water")


def _heart(rest: float, most: float) -> tuple[DemoTest, ...]:
    return DemoTest("hr-max", 60, most, where="four by four"), DemoTest("hr-rest", 25, rest, counted_by="strap")


def _strikes(days_ago: int, *counts: int) -> DemoTest:
    return DemoTest("strikes", days_ago, float(counts[0]), counts, "bag 4", "video")


SQUAD, DOCKERS, OVER_55 = (("Capstan squad",), ("Dinner bell",), ("Slack water",))

PEOPLE = (
    DemoPerson("Runa Velde", "kickboxer, 61 kg", "fighter", "female", 27, 63.5, 50, rule_set="kickboxing-amateur",
               days_to_fight=30, stance="southpaw", screening=ACTIVE, groups=SQUAD,
               tests=(*_heart(52, 192), _strikes(75, 57, 147, 145, 121, 103, 93, 89, 86),
                      _strikes(6, 60, 154, 152, 126, 106, 95, 90, 87)),
               limits=(DemoLimit("most-strikes", "M. Askew", "right leg", 250, "session", 14),)),
    DemoPerson("Ife Marlowe", "boxer, 54 kg", "club", "female", 23, 55.0, rule_set="boxing-amateur", days_to_fight=12,
               screening=ACTIVE, groups=SQUAD,
               tests=(*_heart(60, 196), DemoTest("cooper", 80, 2380), DemoTest("cooper", 20, 2450))),
    DemoPerson("Tomas Brill", "boxer, 69 kg", "club", "male", 31, 71.0, groups=SQUAD),
    DemoPerson("Dario Fenn", "mixed martial artist, 77 kg", "fighter", "male", 29, 81.0, 56, rule_set="mma-amateur",
               screening=ACTIVE, groups=SQUAD, tests=(*_heart(49, 189), DemoTest("hr-recovery", 10, 38))),
    DemoPerson("Hedda Quill", "over-55s class", "beginner", "female", 58, 68.0, heart_rate_lowering_medication=True,
               screening=(True, True, True), groups=OVER_55, tests=(DemoTest("hr-rest", 30, 70),),
               limits=(DemoLimit("joints", "Dr A. Holm"),)),
    DemoPerson("Bram Oster", "boxer, 75 kg", "club", "male", 25, 76.5, rule_set="boxing-amateur", screening=ACTIVE,
               groups=SQUAD, tests=(_strikes(33, 55, 140, 138, 116, 101, 92, 88, 85),), knocked_days_ago=4),
    DemoPerson("Nell Ostrow", "boxer, 57 kg", "beginner", "female", 19, 58.5, groups=SQUAD),
    DemoPerson("Sef Arden", "boxer, 63 kg", "club", "male", 15, 61.0, rule_set="boxing-junior", screening=ACTIVE,
               groups=SQUAD, tests=(DemoTest("shuttle", 40, 11.5),)),
    DemoPerson("Wim Tarn", "docker", "beginner", "male", 44, 92.0, screening=(False, False, False), groups=DOCKERS),
    DemoPerson("Oda Brandt", "docker", "beginner", "female", 38, 74.0, screening=ACTIVE, groups=DOCKERS),
    DemoPerson("Jory Pell", "docker", "club", "male", 35, 84.0, screening=ACTIVE, groups=DOCKERS,
               limits=(DemoLimit("no-limb", "M. Askew", "right hand", days=9),)),
    DemoPerson("Mats Kroon", "docker", "beginner", "male", 51, 88.5, screening=(True, True, True), cleared_days_left=18,
               groups=DOCKERS, limits=(DemoLimit("heart-rate", "Dr A. Holm", most=150),)),
    DemoPerson("Lis Haven", "docker, boxer", "club", "female", 29, 66.0, screening=ACTIVE, groups=(*DOCKERS, *SQUAD)),
    DemoPerson("Greta Voss", "over-55s class", "beginner", "female", 63, 71.0, screening=ACTIVE, groups=OVER_55,
               limits=(DemoLimit("breaks", "Dr A. Holm"),)),
    DemoPerson("Anton Reel", "over-55s class", "beginner", "male", 67, 79.0, screening=(True, True, True),
               groups=OVER_55, limits=(DemoLimit("no-power", "Dr A. Holm"),
                                       DemoLimit("heart-untrusted", "Dr A. Holm"))),
    DemoPerson("Bodil Strand", "over-55s class", "beginner", "female", 59, 62.5, screening=ACTIVE, groups=OVER_55),
)  # fmt: skip

SESSIONS = (
    DemoSession(
        "Flow for the over-55s", "Hedda Quill", "aerobic-base",
        (("Loosen (warm-up)", "4:00 joint work"), ("Flow rounds", "3 x (5:00 flow shadow switch at half) recover 1:00"),
         ("Cool-down", "3:00 recover footwork")),
        (DemoRun(5, 1.0, 3, "Talked all the way through. Good."),),
        ("class", "joints"),
    ),
    DemoSession(
        "Six-second bursts", "Tomas Brill", "sprint-power",
        (("Warm-up", "10:00 flow; then 1:00"), ("Bursts", "10 x (6 all out) rest 1:30"), ("Cool-down", "3:00 recover")),
        (DemoRun(3, 1.0, 6, "Snap was there to the end."),),
        ("bag", "short"),
    ),
    DemoSession(
        "Four by four", "Dario Fenn", "aerobic-power",
        (("Warm-up", "10:00 flow; then 1:00"), ("Long rounds", "4 x (4:00 combination) recover 3:00"),
         ("Cool-down", "3:00 recover")),
        (DemoRun(9, 1.0, 7, "Steady. Fourth round the best."), DemoRun(2, 0.78, 8, "Stopped in round 4, shoulder.")),
        ("bag",),
    ),
    DemoSession(
        "Thirties and twenty-tens", "Runa Velde", "lactic-capacity",
        (("Prepare (warm-up)", "3:00 joint work, 2:00 flow shadow; then 1:00"),
         ("Skill rounds (16 oz gloves)", "3 x (3:00 technique bag [1-2-3b | 1-2, rk-l | recall]) rest 1:00; then 1:00"),
         ("Thirties", "2 x (2 x (30 technique [1-2-3b], 30 speed [1-2], 30 power [2, lk-m]) rest 0:15) bag rest 1:00; "
                      "then 1:00"),
         ("Twenty-tens (lactic capacity)", "8 x (20 all out bag [4x lk-m, 4x rk-m]) rest 0:10; then 2:00"),
         ("Restore (cool-down)", "4:00 recover shadow")),
        (DemoRun(14, 0.9, 9, "Hip dropped from round 6, kicks became pushes."),
         DemoRun(7, 1.0, 9, "All eight this time. Left side still lazy.")),
        ("bag", "kicks", "Thursday"),
    ),
)  # fmt: skip


@dataclass(frozen=True)
class DemoTraining:
    """What a group has done every week: a session whose knob was turned every four weeks."""

    title: str
    group: str
    weekday: int
    """0 is Monday."""
    hour: int
    target: str
    warm_up: str
    steps: tuple[str, ...]
    """Its main part, from the first weeks to the last."""
    but: tuple[str, ...] = ()
    """Who does not do this."""
    devices: tuple[str, ...] = ()

    def lines(self, step: int) -> str:
        main = self.steps[min(step, len(self.steps) - 1)]
        return f"Warm-up: {self.warm_up}\nMain: {main}\nCool-down: 3:00 recover"


WEEKS_OF_HISTORY = 12
IN_CAMP, LIKED = "Runa Velde", "Thirties and twenty-tens"
"""Who prepares a bout, and what is liked for the lactic days."""
WEEKS_A_STEP = 4
MISSED_SHARE = 0.15
"""Of the trainings that somebody stayed away from."""

HISTORY = (
    DemoTraining("Tuesday rounds", "Capstan squad", 1, 18, "aerobic-power", "8:00 flow shadow; then 1:00",
                 ("5 x (3:00 combination bag [1-2-3b]) rest 1:30", "5 x (3:00 combination bag [1-2-3b]) rest 1:15",
                  "6 x (3:00 combination bag [1-2-3b]) rest 1:00"), devices=("strap", "sensor")),
    DemoTraining("Thursday twenty-tens", "Capstan squad", 3, 18, "lactic-capacity", "10:00 flow shadow; then 2:00",
                 ("6 x (20 all out bag [1-2]) rest 0:10", "7 x (20 all out bag [1-2]) rest 0:10",
                  "8 x (20 all out bag [1-2]) rest 0:10"),
                 but=("Sef Arden", "Nell Ostrow"), devices=("strap", "sensor")),
    DemoTraining("Dinner bell thirties", "Dinner bell", 0, 12, "aerobic-power", "6:00 flow shadow; then 1:00",
                 ("8 x (30 combination bag [1-2]) rest 0:30", "10 x (30 combination bag [1-2]) rest 0:30",
                  "12 x (30 combination bag [1-2]) rest 0:30"), devices=("strap",)),
    DemoTraining("Slack water flow", "Slack water", 4, 20, "aerobic-base", "4:00 joint work",
                 ("3 x (4:00 flow shadow) recover 1:00", "3 x (5:00 flow shadow) recover 1:00")),
)  # fmt: skip


@dataclass(frozen=True)
class DemoPlanned:
    """A session of today's plan, every week."""

    at: str
    title: str
    group: str | None = None
    people: tuple[str, ...] = ()


PLANNED = (
    DemoPlanned("07:00", "Four by four", people=("Dario Fenn",)),
    DemoPlanned("12:10", "Six-second bursts", group="Dinner bell"),
    DemoPlanned("18:20", "Thirties and twenty-tens", people=("Runa Velde", "Ife Marlowe", "Bram Oster")),
    DemoPlanned("20:00", "Flow for the over-55s", group="Slack water"),
)
WEEKS_PLANNED = 6
