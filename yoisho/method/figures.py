"""Who says so: what every figure on the screens is, and where it comes from. One entry here is all a new one needs."""

from dataclasses import dataclass

from yoisho.engine.measures import LACTIC_DEEP

OWN_MODEL = "three-store model of this tool, an estimate"
EXACT = "arithmetic on the session itself, exact"


@dataclass(frozen=True)
class Told:
    id: str
    """As the reading names it."""
    name: str
    meaning: str
    source: str
    section: str
    """Of the method document, where more is told."""


FIGURES: dict[str, Told] = {
    figure.id: figure
    for figure in (
        Told("sprint_at_start", "sprint store as efforts start",
               "Share of the sprint store (phosphocreatine and bound oxygen) that is left as each effort starts, mean.",
               f"{OWN_MODEL}; refilling after Bogdanis et al. 1995 and 1996, from memory", "stores"),
        Told("sprint_at_start_lowest", "sprint store at the worst start",
               "The least that is left of the sprint store as any effort starts.", OWN_MODEL, "stores"),
        Told("sprint_lowest", "sprint store at its lowest",
               "The least that is left of the sprint store at any moment.", OWN_MODEL, "stores"),
        Told("lactic_used_highest", "lactic store used",
               "The most that is used of the lactic store (glycolysis with its acidosis).", OWN_MODEL, "stores"),
        Told("lactic_used_end", "lactic store used at the end",
               "What is used of the lactic store when the session ends.", OWN_MODEL, "stores"),
        Told("lactic_reserve_lowest", "lactic store at its lowest",
               "The least that is left of the lactic store at any moment.", OWN_MODEL, "stores"),
        Told("lactic_deep_min", f"lactic store {LACTIC_DEEP}",
               f"Minutes with the lactic store {LACTIC_DEEP}; the bound is our own setting.",
               OWN_MODEL, "stores"),
        Told("lactic_flow", "lactic flow",
               "Mean lactic flow in the efforts, as a share of this person's own in 30 s all out.",
               OWN_MODEL, "stores"),
        Told("vo2_90_min", "above 90 % of VO2peak",
               "Minutes with uptake at 90 % or more of the most that the muscles in play can take up, VO2peak: the "
               "time that is thought to train aerobic power.",
               f"{OWN_MODEL}; the bound after Buchheit and Laursen 2013, from memory", "stores"),
        Told("vo2_75_88_min", "75 to 88 % of VO2peak",
               "Minutes with uptake in the threshold band, of the most that the muscles in play can take up.",
               f"{OWN_MODEL}; the band is common practice, no source", "stores"),
        Told("vo2_75_min", "above 75 % of VO2peak",
               "Minutes with uptake at 75 % or more of the most that the muscles in play can take up: the weeks count "
               "them as aerobic.",
               f"{OWN_MODEL}; the bound is our own setting", "stores"),
        Told("hr_80_90_min", "80 to 90 % of HRmax", "Minutes with the heart rate in the threshold band.",
               "heart rate after Swain and Leutholtz 1997, from memory, up to VO2peak", "readouts"),
        Told("hr_60_75_min", "60 to 75 % of HRmax", "Minutes with the heart rate in the band of aerobic base.",
               "heart rate after Swain and Leutholtz 1997, from memory, up to VO2peak", "readouts"),
        Told("base_min", "steady easy work", "Minutes with uptake at 40 to 70 % of its maximum.",
               f"{OWN_MODEL}; the band is our own setting", "stores"),
        Told("aerobic_share", "aerobic share", "Share of the energy of the efforts that oxygen pays for at once.",
               f"{OWN_MODEL}, fitted to Gastin 2001, from memory", "fit"),
        Told("alactic_share", "sprint share", "Share of the energy of the efforts out of the sprint store.",
               f"{OWN_MODEL}, fitted to Gaitanos et al. 1993, from memory", "fit"),
        Told("lactic_share", "lactic share", "Share of the energy of the efforts out of the lactic store.",
               f"{OWN_MODEL}, fitted to Beneke et al. 2002, from memory", "fit"),
        Told("fatigue_peak", "fatigue at its highest",
               "Tiredness that is not a lack of energy, from fresh to exhausted: what ends hard work in turns.",
               f"{OWN_MODEL}; fitted to Chidnok 2012, Dupont 2003 and Thevenet 2007, from memory", "stores"),
        Told("fade_mean", "fade over the efforts",
               "What is asked and cannot be delivered: strikes slow, power drops. Mean over the efforts.",
               OWN_MODEL, "stores"),
        Told("fade_last", "fade of the last effort",
               "What is asked of the last effort and cannot be delivered.", OWN_MODEL, "stores"),
        Told("o2_deficit_ml_kg", "oxygen deficit",
               "Energy that oxygen did not pay for as it was spent: the sprint and the lactic store together.",
               f"{OWN_MODEL}; Tabata et al. 1997 and Medbo et al. 1988 for its size, from memory", "fit"),
        Told("lactate_peak_mmol", "peak lactate", "Highest blood lactate, minutes after the last bell.",
               "3.0 mL O2/kg per mmol/L, di Prampero and Ferretti 1999, from memory; own clearance times", "readouts"),
        Told("heart_rate_peak_bpm", "peak heart rate", "Highest heart rate.",
               "Swain and Leutholtz 1997, from memory; punching as in Kravitz et al. 2003, from memory", "readouts"),
        Told("kcal", "kcal in all",
               "Oxygen breathed in the session and above rest in the ten minutes after, and lactate, at 5.0 kcal/L.",
               OWN_MODEL, "readouts"),
        Told("kcal_met", "kcal by tables", "What tables of whole sessions give: bag 5.5 to sparring 7.8 MET.",
               "2011 Compendium of Physical Activities, from memory", "readouts"),
        Told("strikes", "strikes expected",
               "The effort's own rate or the combination's time per pass, less the fade; rep rounds are exact.",
               "common practice, no source; the fade from the model", "effort"),
        Told("rpe", "expected RPE", "How hard the whole session should feel on the scale of 0 to 10.",
               "CR10 words by effort; common practice, no source", "effort"),
        Told("load", "load", "Expected RPE times minutes.", "session RPE, Foster et al. 2001, from memory", "effort"),
        Told("work_to_rest", "work to rest", "Seconds of work to seconds of rest and active recovery.",
               EXACT, "purposes"),
        Told("fade_onset", "where the fade starts",
             "The first effort that falls short by more than the purpose allows.", OWN_MODEL, "stores"),
        Told("fails", "where it fails",
             "The effort in which what is asked can no longer be given: whoever goes on slows.", OWN_MODEL, "stores"),
        Told("limbs", "strikes by limb", "Strikes by hand and leg for this person's stance, after the fade.",
               "the combination's own count; what is open is shared over two hands, own setting", "effort"),
        Told("strokes", "strokes of the tally",
               "The purpose's measures joined: 5 on target, 4 well aimed, 3 part way.",
               "desirability after Derringer and Suich 1980, from memory; bounds by school or our own", "purposes"),
    )
}  # fmt: skip
