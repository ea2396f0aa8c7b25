"""The sections on the engine: stores, parameters, people, read-outs."""

from dataclasses import fields

from yoisho.engine import heart_rate, lactate
from yoisho.engine.energy_cost import COMPENDIUM_2011, KCAL_PER_L_O2
from yoisho.engine.parameters import REFERENCE, REFERENCE_VO2MAX_ML_KG_MIN, Parameters
from yoisho.engine.person import (
    CAPACITY_CV,
    DEFAULT_VO2MAX,
    DRAWS,
    LEVEL_TRAINING,
    STRIKE_TEST_CV,
    TEMPO_DEMAND_CV,
    TRAINING_SCALE,
    VO2MAX_CV,
)
from yoisho.engine.stores import STEP_S
from yoisho.method.document import Equation, Section, Table
from yoisho.strikes.tempo import TEMPOS

EQUATIONS = (
    Equation("level", "A = 1 - a L", "the level that the sprint store can refill to, lowered by a used lactic store"),
    Equation("drive", "h = clip((A - F) / (A (1 - phi)), 0, 1);   dv/dt = (V h - v) / tau_v",
             "uptake follows the sprint store's depletion"),
    Equation("slow component", "dW/dt = (clip(kap (D - Ds V), 0, Wm V) - W) / tau_W",
             "the oxygen cost that creeps up in hard work; its target is 0 while D is under V / 2"),
    Equation("clearance", "c = rL L;   S = W + e c CL", "what is cleared of the lactic store is paid for in oxygen"),
    Equation("sustained glycolysis", "MS = cs V (1 - F)^3 (1 - L)", "only while D is over V / 2"),
    Equation("burst limits", "MF = cF V F^2 (1 + Kf) / (F^2 + Kf);   "
             "ML = cL V clip((D / V - Dc) / w, 0, 1)^m (1 - L) (1 - b L)", "alactic and lactic"),
    Equation("capability", "cap = v + MF + ML + MS - S;   D' = min(D, cap)",
             "what can be delivered now; D - D' is the fade"),
    Equation("need", "U = D' + S - v;   g = MS + max(U - MS, 0) ML / (MF + ML)", "what the stores must give"),
    Equation("stores", "dF/dt = -(U - g) / CF;   dL/dt = g / CL - c / (1 + g / (0.2 V))",
             "the sprint store refills where U is less than g"),
    Equation("start", "F = 1 - (D / V) (1 - phi), L = 0, v = D, W = 0 at a demand of 6 mL/kg/min", "rest"),
)  # fmt: skip


def stores() -> Section:
    return Section(
        "stores", "The three stores",
        (
            "State: F is the sprint store left (1 to 0: phosphocreatine and bound oxygen that can be used), L the "
            "lactic store used (0 to 1: glycolysis with its acidosis), v the aerobic uptake and W its slow "
            "component, both in mL O2/kg/s. V is VO2max, D the demand of the effort in the same unit. Shown on "
            "screen are F, 1 - L and v / V.",
            "Uptake driven by the sprint store is the first-order picture of Meyer (1988); with the lactic store "
            "it is a relation of the hydraulic models of Margaria and Morton. The capability line is what makes "
            "all-out efforts fade, and hard bouts fail before the stores are empty.",
            f"Integrated in steps of {STEP_S:g} s by two methods of the second order: Adams and Bashforth's for the "
            "best guess, Heun's for the draws. Checked against scipy's solve_ivp at tight tolerance: every store "
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
            f"{REFERENCE_VO2MAX_ML_KG_MIN:g} mL/kg/min, against the figures of the fit below. No published vector "
            "is copied. V in a unit stands for VO2max.",
        ),
        (),
        (Table("Values, and the bounds searched", ("symbol", "value", "unit", "meaning", "bounds"), rows),),
    )  # fmt: skip


def effort() -> Section:
    rows = tuple(
        (t.word, f"{100 * t.demand_frac:.0f} %", f"{t.strikes_per_min:g}", f"{t.rpe:g}", t.meaning)
        for t in TEMPOS.values()
    )
    return Section(
        "effort", "From effort words to demand",
        (
            "Own settings: no study gives the energy cost of a strike. They lie so that continuous punching falls "
            "between Kravitz et al. 2003 (68 to 73 % of VO2max at 60 to 120 strikes a minute, fit adults) and "
            "Arseneau et al. 2011 (40 to 62 % at 60 to 180, trained boxers), both from memory: the gap between the "
            f"two is why the demand of a tempo carries a spread of {100 * TEMPO_DEMAND_CV:.0f} %.",
        ),
        (),
        (Table("Tempos", ("tempo", "demand, of VO2max", "strikes a minute", "RPE, CR10", "meaning"), rows),),
    )  # fmt: skip


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
        ("demand of a tempo", f"{100 * TEMPO_DEMAND_CV:.0f} %"),
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
            "Vanhatalo 2007. Against the reserve that the model expects it scales the lactic store and the "
            "anaerobic flows, from 0.6 to 1.5. That strikes go with energy is our own assumption.",
            "The lactic store goes with VO2max and anaerobic training, the sprint store with the root of VO2max. "
            "Own assumption; it keeps the time constant of uptake within the published bands from the unfit to the "
            "trained.",
            f"Ranges are the 10th to 90th percentile of {DRAWS} draws with a fixed seed.",
        ),
        (),
        (
            Table("VO2max at 25 years where nothing is known, mL/kg/min; own setting",
                  ("level", "sex", "VO2max", "anaerobic training"), defaults),
            Table("Anaerobic training, times the lactic store and flows; own setting", ("class", "scale"), training),
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
            f"Blood lactate: fed by glycolysis with {lactate.O2_EQUIVALENT_ML_KG_PER_MMOL:g} mL O2/kg per mmol/L "
            f"(di Prampero and Ferretti 1999), appearing with a lag of {lactate.APPEARANCE_TAU_S / 60:g} min, "
            f"half-time of removal {lactate.REST_HALF_TIME_S / 60:g} min at rest and "
            f"{lactate.ACTIVE_HALF_TIME_S / 60:g} min moving at 30 to 60 % of VO2max. It peaks minutes after the "
            "last bell, and that peak is the figure. Valid as an accumulation over rest, not as a steady reading.",
            "Heart rate: fraction of heart-rate reserve = fraction of VO2 reserve (Swain and Leutholtz 1997) + "
            f"{heart_rate.PUNCHING_OFFSET:g} for punching, {heart_rate.SHADOW_OFFSET:g} for pads and shadow, "
            f"{heart_rate.KICKING_OFFSET:g} for kicks (once sessions name them), "
            f"{heart_rate.CARRYING_OFFSET:.2f} for carries, capped at 1; "
            f"{heart_rate.UP_TAU_S:g} s up, {heart_rate.DOWN_TAU_S:g} s down. The offsets are own settings, chosen "
            "so that punching at 70 % of VO2max gives the 85 to 93 % of HRmax of Kravitz 2003. On medication that "
            "lowers heart rate there are no heart-rate figures: effort by feel.",
            "kcal: uptake over the session, what is breathed above rest in the ten minutes after it, and lactate, "
            f"at {KCAL_PER_L_O2:g} kcal per litre of oxygen. Beside it MET x 3.5 x kg / 200 a minute from the 2011 "
            "Compendium. A claim of so many kcal is answered with the share of the draws that reach it.",
            "Load is RPE x minutes (Foster 2001), with the RPE of the tempos until the log says otherwise.",
        ),
        (),
        (Table("2011 Compendium, from memory: means over whole sessions", ("code", "activity", "MET"), met),),
    )  # fmt: skip
