"""Checks a plan against a camp's hard rules from dates and numbers alone; shares nothing with the solver or its rules.

A plan is a list of objects with `on`, `purpose`, `cost` and `step`; a camp is what a coach asked for.
"""

from collections import defaultdict
from datetime import timedelta
from math import floor

WEEKDAYS = ["mon", "tue", "wed", "thu", "fri", "sat", "sun"]


def weeks_of(camp):
    """Lists of the days of each week of the calendar, Monday first."""
    last = camp.bout_on - timedelta(1) if camp.bout_on else camp.start + timedelta(7 * camp.weeks - 1)
    weeks, day = defaultdict(list), camp.start
    while day <= last:
        weeks[day - timedelta(day.weekday())].append(day)
        day += timedelta(1)
    return [weeks[key] for key in sorted(weeks)]


def first_of_taper(camp):
    if not camp.bout_on:
        return None
    two = camp.bout_on - timedelta(14)
    mondays = [two + timedelta(by) for by in range(-3, 4)]
    return max(camp.start, next(day for day in mondays if day.weekday() == 0))


def faults(camp, plan, fixtures, ceilings):
    """The ids of the hard rules that are broken."""
    found = set()
    weeks = weeks_of(camp)
    days = [day for week in weeks for day in week]
    held = defaultdict(list)
    for each in plan:
        held[each.on].append(each)
        if each.on not in days:
            found.add("available")
    load = lambda some: sum(each.cost.load for day in some for each in held[day])  # noqa: E731
    lactic = [day for day in days if any(each.cost.lactic for each in held[day])]
    hard = [day for day in days if any(each.cost.hard for each in held[day])]
    travel = {on for on, purpose in fixtures if purpose == "travel"}
    stands = defaultdict(set)
    for on, purpose in fixtures:
        stands[on].add(purpose)
        if purpose != "travel" and purpose not in [each.purpose for each in held[on]]:
            found.add("fixed")
    for one in lactic:
        if one + timedelta(1) in lactic or sum(each.cost.lactic for each in held[one]) > 1:
            found.add("lactic-gap")
        if camp.bout_on and (camp.bout_on - one).days < camp.lactic_cutoff_days:
            found.add("lactic-cutoff")
    for one in hard:
        if one + timedelta(1) in hard and one + timedelta(2) in hard:
            found.add("hard-days")
    for one in days:
        here = [each.purpose for each in held[one]]
        if here and one in travel:
            found.add("available")
        if here and WEEKDAYS[one.weekday()] not in camp.days and not stands[one]:
            found.add("available")
        if sum(each.cost.total_s for each in held[one]) > 60 * camp.minutes.get(WEEKDAYS[one.weekday()], 75):
            found.add("available")
        if len(here) > 2 or len([purpose for purpose in here if purpose != "skill"]) > 1:
            found.add("one-a-day")
        if len(here) == 2 and here[1] == "skill" and held[one][0].cost.hard:
            found.add("skill-first")
        week_to = [one - timedelta(by) for by in range(7)]
        for limb, most in ceilings.items():
            if sum(each.cost.landed.get(limb, 0) for day in week_to for each in held[day]) > most:
                found.add("strikes")
        for each in held[one]:
            found.update(bar.rule for bar in each.cost.barred if bar.until is None or one <= bar.until)
            early = (one - camp.start).days < floor(2 * (camp.bout_on - camp.start).days / 3) if camp.bout_on else False
            if each.purpose == "fight-rehearsal" and early:
                found.add("rehearsal")
    taper = first_of_taper(camp)
    reached, whole = {}, []
    for number, week in enumerate(weeks, 1):
        if sum(len(held[day]) for day in week) > camp.most_a_week:
            found.add("most-a-week")
        tapers = taper is not None and week[0] >= taper
        eases = camp.ease_every and number % camp.ease_every == 0 and not tapers
        can = any(WEEKDAYS[day.weekday()] in camp.days or stands[day] for day in week if day not in travel)
        if len(week) == 7 and can and not any(held[day] for day in week):
            found.add("trains")
        turned = 0
        for day in week:
            for each in held[day]:
                before = reached.get(each.purpose, each.step)
                turned += max(0, each.step - before)
                reached[each.purpose] = max(before, each.step)
        if turned > (0 if eases or tapers else 1):
            found.add("one-knob")
        if whole and load(whole[-1]):
            if eases and load(week) > 0.6 * load(whole[-1]) + 1e-6:
                found.add("ease")
            if (
                len(week) == 7
                and not eases
                and not tapers
                and load(week) > (1 + camp.most_climb) * load(whole[-1]) + 1e-6
            ):
                found.add("climb")
        if len(week) == 7 and not eases and not tapers:
            whole.append(week)
    if taper is not None and whole and any(load(week) for week in whole[-3:]):
        last = [day for day in days if day >= taper]
        usual = sum(load(week) for week in whole[-3:]) / len(whole[-3:])
        if load(last) / (len(last) / 7) > 0.59 * usual + 1e-6:
            found.add("taper")
    return found
