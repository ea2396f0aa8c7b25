"""The sections on the engine: stores, parameters, people, read-outs."""

from dataclasses import fields
from math import hypot

from yoisho.engine import heart_rate, lactate
from yoisho.engine.cohort import DEMAND_CV, DRAWS, TEMPO_DEMAND_CV
from yoisho.engine.demand import FOOTWORK_ML_KG_MIN, LOWEST_ALL_OUT, MOST_FOOTWORK
from yoisho.engine.energy_cost import COMPENDIUM_2011, KCAL_PER_L_O2
from yoisho.engine.kernel import FINE_STEPS, MIDDLE_STEPS, TIRING, WASTE
from yoisho.engine.parameters import REFERENCE, REFERENCE_VO2MAX_ML_KG_MIN, REST_DEMAND_ML_KG_MIN, Parameters
from yoisho.engine.person import (
    CAPACITY_CV,
    DEFAULT_VO2MAX,
    HEART_OFFSET_SD_BPM,
    LEVEL_TRAINING,
    STRIKE_TEST_CV,
    TRAINING_SCALE,
    VO2MAX_CV,
)
from yoisho.engine.stores import STEP_S
from yoisho.engine.strike_cost import BLOWS, COST_CV, EFFICIENCY, J_PER_ML_O2, REFERENCE_MASS_KG
from yoisho.method.document import Equation, Section, Table
from yoisho.session.modality import MODALITIES
from yoisho.strikes.techniques import TECHNIQUES
from yoisho.strikes.tempo import TEMPOS, Tempo

EQUATIONS = (
    Equation("all out", f"D = Dlo + (Dhi - Dlo) q^2;   q = min((1 - X) / {TIRING:g}, 1)",
             "the top of someone fresh, falling with fatigue; a paced demand is D = Dlo = Dhi"),
    Equation("drive", "h = clip((1 - F / (1 - a L)) / (1 - phi), 0, 1);   dv/dt = (c h - v) / tau_v",
             "uptake follows the sprint store's depletion, up to the ceiling c of the muscle in play"),
    Equation("slow component", "dW/dt = (clip(kap (D - Ds c), 0, Wm c) - W) / tau_W",
             "the oxygen cost that creeps up in hard work; its target is 0 while D is under c / 2"),
    Equation("clearance", "S = W + e rL L CL", "what is cleared of the lactic store is paid for in oxygen"),
    Equation("sustained glycolysis", "MS = cs c h^5 (1 - L)", "only while D is over c / 2"),
    Equation("burst limits", "MF0 = c s cF F^2 (1 + Kf) / (F^2 + Kf);   MF = MF0 (1 - X^8);   "
             "ML = c s cL (1 + Kl) A (1 - L) / (1 - L + Kl A);   A = clip((Dhi / c - Dc) / w, 0, 1)^m",
             "alactic and lactic; A is how far glycolysis is called upon, and the more it is, the more an emptying "
             "store holds it down: two resistances in series"),
    Equation("capability", "cap = v + MF + ML (1 - X^8) + MS - S;   D' = min(D, cap)",
             "what can be delivered now; D - D' is the fade"),
    Equation("lost economy", f"waste = {WASTE:g} (min(D, v + MF0 + ML + MS - S) - D')",
             "what tiredness takes from the flows is spent in part for nothing; booked with the slow component"),
    Equation("need", "U = D' + S + waste - v;   g = MS + min(gk max(U - MS, 0), MF + ML) ML / (MF + ML)",
             "what the stores must give"),
    Equation("stores", "dF/dt = -(U - g) / CF;   dL/dt = g / CL - rL L 0.2 / (g + 0.2)",
             "the sprint store refills where U is less than g"),
    Equation("fatigue", "dX/dt = min(max(D' - Dx c, 0), sx c) / (CX s c) - rX exp(-kX Dlo / c) X",
             "builds up above about the critical level and fades the slower the harder the recovery"),
    Equation("blood lactate", "dm/dt = g / b_La - m / tau_b;   dB/dt = m / tau_b - k (B - 1);   "
             "k = ln 2 / 20 min at v = 0.1, rising to ln 2 / T1 at vhi",
             "m waits in the muscle; what is in the blood leaves the quicker the higher the uptake"),
    Equation("start", "F = 1 - (D / c) (1 - phi), L = 0, v = D, W = 0, X = 0 at a demand of 6 mL/kg/min", "rest"),
)  # fmt: skip


def stores() -> Section:
    return Section(
        "stores", "The three stores",
        (
            "State: F is the sprint store left (1 to 0: phosphocreatine and bound oxygen that can be used), L the "
            "lactic store used (0 to 1: glycolysis with its acidosis), v the aerobic uptake and W its slow component, "
            "X fatigue that is not a lack of energy (0 to 1). Demand D, uptake and flows are multiples of VO2max; c is "
            "the share of it that the muscle in play can take up, s the anaerobic scale of the person. Shown on screen "
            "are F, 1 - L and v; fatigue is shown as how long the effort can still be held.",
            "Uptake driven by the sprint store is the first-order picture of Meyer (1988); with the lactic store "
            "it is a relation of the hydraulic models of Margaria and Morton. The capability line is what makes "
            "all-out efforts fade, and hard bouts fail before the stores are empty.",
            f"Integrated by Adams and Bashforth's method of the second order, in steps of {STEP_S:g} s, of "
            f"{2 * STEP_S:g} s once a demand has stood for {STEP_S * FINE_STEPS:g} s and of {4 * STEP_S:g} s once it "
            f"has for {STEP_S * MIDDLE_STEPS:g} s. Checked against scipy's solve_ivp at tight tolerance: every store "
            "within 0.5 %, uptake within 0.2 % of VO2max. Energy balances: delivered + S = aerobic + alactic + "
            "lactic, to 1e-6.",
            "What must hold whatever the parameters, and is tested on random timelines and people: at equal ratio "
            "longer bouts use more of the lactic store; less intense recovery never shortens how long work lasts; "
            "more rest never gives more fade; higher demand never exhausts later; stores stay between 0 and 1.",
        ),
        EQUATIONS,
    )  # fmt: skip


def parameters() -> Section:
    rows = tuple(
        (one.metadata["symbol"], f"{getattr(REFERENCE, one.name):.4g}", one.metadata["unit"], one.metadata["meaning"],
         f"{one.metadata['least']:g} to {one.metadata['most']:g}")
        for one in fields(Parameters)
    )  # fmt: skip
    return Section(
        "parameters", "Parameters",
        (
            "Found by our own search (make fit) for trained young adults with a VO2max of "
            f"{REFERENCE_VO2MAX_ML_KG_MIN:g} mL/kg/min, against the figures of the fit below, and held to what coaches "
            "know of whole sessions. No published vector is copied. V in a unit stands for VO2max.",
        ),
        (),
        (Table("Values, and the bounds searched", ("symbol", "value", "unit", "meaning", "bounds"), rows),),
    )  # fmt: skip


def effort() -> Section:
    rows = tuple(
        (t.word, _share(t), f"{t.force:g}" if t.force else "", t.footwork if t.force else "", t.meaning)
        for t in TEMPOS.values()
    )
    timed = tuple(
        (t.word, f"{t.demand_frac:g}", f"{t.rpe:g}", f"{t.strikes_per_min:g}", f"{t.pace:g}" if t.pace else "",
         f"{t.reset_s:g}" if t.pace else "")
        for t in TEMPOS.values()
    )  # fmt: skip
    done_on = tuple(
        (m.word, TEMPOS[m.tempo].word, f"{m.rep_s:g}" if m.rep_s else "", f"{m.demand_frac:g}" if m.demand_frac else "",
         f"{m.share:g}" if m.share else "", "" if m.strikes else f"{m.ceiling_frac:g}")
        for m in MODALITIES.values()
    )  # fmt: skip
    blows = tuple(
        (name.replace("-", " "), f"{b.mass_kg:g}", f"{b.speed_m_s:g}", f"{b.top_per_s:g}", f"{b.cost_ml_kg:.2f}")
        for name, b in BLOWS.items()
    )
    steps = ", ".join(f"{name} {value:g}" for name, value in FOOTWORK_ML_KG_MIN.items())
    return Section(
        "effort", "From effort words to demand, and from strikes",
        (
            "A word is relative: it asks for a share of the way from rest to the ceiling of the muscle in play, with a "
            f"spread of {100 * hypot(DEMAND_CV, TEMPO_DEMAND_CV):.0f} %, and means as hard as fits its length. The "
            "strikes follow from what one costs this person. What the coach fixes, a beat or strikes a minute, fixes "
            "the strikes, and the demand follows: the same line is harder for the weaker. 'At 170 %' is a paced demand "
            "of VO2max.",
            "A strike costs the kinetic energy of its limb over the efficiency of muscle: "
            f"(m (f v)^2 / 2) / {EFFICIENCY:g} / {J_PER_ML_O2:g} J/mL / {REFERENCE_MASS_KG:g} kg, f its force against "
            "a full strike. Mass and speed of a punch after Walilko 2005, from memory; other limbs, top rates and "
            f"how speed falls with level and age are own settings, and the cost is uncertain by {100 * COST_CV:.0f} %. "
            f"Half power is f = 0.71: half the energy. Stance and steps take mL/kg/min above rest: {steps}; of a word "
            f"at most {100 * MOST_FOOTWORK:.0f} %. Checked against Arseneau 2011: 60, 120 and 180 punches a minute.",
            "Arms alone can take up 80 % of VO2max, rising to 95 % once 30 % of the strikes are kicks and knees; legs "
            "100 %. All out asks for the top rate at its force, which falls with fatigue to "
            f"{100 * LOWEST_ALL_OUT:.0f} % at the least, and fades inside the effort.",
        ),
        (),
        (
            Table("Words; own settings",
                  ("word", "share of the way to the ceiling", "force", "footwork", "meaning"), rows),
            Table("How a word is drawn, rated and struck where nothing else is said; own settings",
                  ("word", "drawn at, x VO2max", "rated, of 10", "strikes a minute", "times a strike's own seconds",
                   "reset between passes, s"), timed),
            Table("What work is done on or with; own settings",
                  ("modality", "word where none is said", "seconds a rep", "drawn at, x VO2max, where not the word's",
                   "share of the way, where not the word's", "ceiling, x VO2max"), done_on),
            Table("How long one takes, at its own pace; own settings", ("", "seconds"),
                  tuple((t.word, f"{t.seconds:g}") for t in TECHNIQUES.values())),
            Table("Punches on a bag, mL/kg/min: Arseneau 2011, from memory, and ours at 30 % of a full punch's energy",
                  ("punches a minute", "measured", "here"),
                  tuple((str(rate), f"{found:g}", f"{_punching(rate):.1f}") for rate, found in ARSENEAU.items())),
            Table("Limbs, at full force", ("strike", "kg", "m/s", "at most a second, light", "mL O2 per kg"), blows),
        ),
    )  # fmt: skip


ARSENEAU = {60: 24.7, 120: 30.4, 180: 38.3}


def _punching(per_min: float) -> float:
    """Demand of so many punches, by the table of limbs [mL/kg/min]."""
    return REST_DEMAND_ML_KG_MIN + FOOTWORK_ML_KG_MIN["stepping"] + per_min * 0.30 * BLOWS["punch"].cost_ml_kg


def _share(t: Tempo) -> str:
    if t.top_rate:
        return "top rate"
    if t.burst:
        hard_s, hard, cycle_s = t.burst
        return f"{t.share:g}: {hard_s:g} s at {hard:g}, {cycle_s - hard_s:g} s light"
    return f"{t.share:g} + {t.share_s:g} / seconds" if t.share_s else f"{t.share:g}"


def people() -> Section:
    defaults = tuple(
        (level, sex, f"{value:g}", LEVEL_TRAINING[level])
        for level, by_sex in DEFAULT_VO2MAX.items() for sex, value in by_sex.items()
    )  # fmt: skip
    spreads = (
        ("VO2max, measured", f"{100 * VO2MAX_CV['measured']:.0f} %"),
        ("VO2max, by field test", f"{100 * VO2MAX_CV['estimated']:.0f} %"),
        ("VO2max, by default", f"{100 * VO2MAX_CV['default']:.0f} %"),
        ("size of a store", f"{100 * CAPACITY_CV:.0f} %"),
        ("lactic store by strike test", f"{100 * STRIKE_TEST_CV:.0f} %"),
        ("demand of all words together", f"{100 * DEMAND_CV:.0f} %"),
        ("demand of one word besides", f"{100 * TEMPO_DEMAND_CV:.0f} %"),
        ("heart against what uptake says", f"{HEART_OFFSET_SD_BPM:g} bpm"),
        ("HRmax, measured", "3 bpm"),
        ("HRmax, by formula", f"{heart_rate.FORMULA_SD_BPM:g} bpm"),
    )
    ages = (20, 40, 60)
    schools = tuple(
        (school.name, school.text, *(f"{school.formula(age):.0f}" for age in ages), school.note)
        for school in heart_rate.SCHOOLS.values()
    )
    training = tuple((name, f"{scale:g}") for name, scale in TRAINING_SCALE.items())
    return Section(
        "people", "People",
        (
            "Each number of a person says where it came from: measured, estimated by a test or a formula, or a "
            "default. A measurement counts before a test, a test before a default.",
            "VO2max by the 12-minute run: (metres - 504.9) / 44.73 (Cooper 1968). By the 20 m shuttle run: 31.025 "
            "+ 3.238 S - 3.248 A + 0.1536 A S, S the speed of the last stage in km/h and A the age up to 18 (Léger "
            "1988). Both from memory. By default: level, sex and age, 1 % less for each year after 25, never under "
            "18 mL/kg/min.",
            "Strike test: straight punches flat out, counted in 10 s, in 30 s, and in 3:00 by 30 s. The last 30 s "
            "give the sustained rate, the sum above it the strike reserve, after the 3-minute all-out test of "
            "Vanhatalo 2007. The person's top rate, cost of a strike and anaerobic scale (0.6 to 1.5) are those whose "
            "counts by the model come nearest to all eight. That strikes go with energy is our own assumption.",
            "Both stores go with VO2max and with anaerobic training, the fatigue that exhausts with training alone; "
            "the uptake of the fitter follows quicker. Own assumption: the same share of VO2max "
            "lasts about as long for anybody, and a line that fixes its strikes is harder for the weaker.",
            f"Ranges are the 10th to 90th percentile of {DRAWS} draws with a fixed seed.",
        ),
        (),
        (
            Table("VO2max at 25 years where nothing is known, mL/kg/min; own setting",
                  ("level", "sex", "VO2max", "anaerobic training"), defaults),
            Table("Anaerobic training, times both stores and their flows; own setting", ("class", "scale"), training),
            Table("Spreads, one standard deviation; own settings", ("number", "spread"), spreads),
            Table("Schools of maximum heart rate, bpm, from memory",
                  ("school", "formula", *(f"at {age}" for age in ages), "note"), schools),
        ),
    )  # fmt: skip


def readouts() -> Section:
    met = tuple((a.code, a.name, f"{a.met:g}") for a in COMPENDIUM_2011)
    return Section(
        "readouts", "From stores to figures",
        (
            "Efforts are consecutive work at or above VO2max; where a session has none, its brisk work; where it "
            "has none of that, all its work. Fade is the share of what was asked that cannot be delivered; it "
            "starts at the first effort that falls short by more than 5 %.",
            f"Blood lactate: fed by glycolysis with {REFERENCE.lactate_ml_kg_per_mmol:.2f} mL O2/kg per mmol/L "
            f"(di Prampero and Ferretti 1999: about 3), with a lag of {REFERENCE.lactate_appearance_s:.0f} s, "
            f"half-time of removal {lactate.REST_HALF_TIME_S / 60:g} min at rest, quicker with uptake down to "
            f"{REFERENCE.lactate_half_time_s / 60:.1f} min at {100 * REFERENCE.lactate_quickest_at:.0f} % of VO2max. "
            "It peaks minutes after the last bell, and that peak is the figure.",
            "Heart rate: fraction of heart-rate reserve = the share of uptake on its way from rest to the ceiling of "
            "the muscle in play (after Swain and Leutholtz 1997, who have it for the whole body): so punching at 70 % "
            "of VO2max stands at the 85 to 93 % of HRmax of Kravitz 2003, and what is asked of small muscle drives the "
            f"heart more. {heart_rate.UP_TAU_S:g} s up, {heart_rate.DOWN_TAU_S:g} s down. On medication that lowers "
            "heart rate there are no heart-rate figures: effort by feel.",
            "Uptake counts as a share of that ceiling too: above 90 % is 90 % of what the muscle in play can take up.",
            "kcal: uptake over the session, what is breathed above rest in the ten minutes after it, and lactate, "
            f"at {KCAL_PER_L_O2:g} kcal per litre of oxygen. Beside it MET x 3.5 x kg / 200 a minute from the 2011 "
            "Compendium. A claim of so many kcal is answered with the share of the draws that reach it.",
            "RPE: the cubic mean over the work of 8 x (delivered / ceiling)^1.5, at most 10, brought nearer to 10 by "
            "the cube of the highest fatigue, or by two and a half times the worst fade. Own settings.",
            "Load is RPE x minutes (Foster 2001), with the expected RPE until the log says otherwise.",
        ),
        (),
        (Table("2011 Compendium, from memory: means over whole sessions", ("code", "activity", "MET"), met),),
    )  # fmt: skip
