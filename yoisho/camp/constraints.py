"""The hard rules of a camp as the solver keeps them, each under its id in `rules.py`."""

from collections import defaultdict
from collections.abc import Callable, Sequence
from datetime import date

from yoisho.camp.camp import BESIDES, DAY, TRAVEL, Week, days
from yoisho.camp.model import Ask, Frame, Steps, Var
from yoisho.camp.plan import Cost, limbs
from yoisho.camp.rules import (
    EASE_MOST,
    LACTIC_GAP_DAYS,
    MOST_HARD_RUNNING,
    SEVEN_DAYS,
    TAPER_MOST,
    done,
    must_train,
    reference_weeks,
    said,
    taper_days,
)


class Ruled(Frame):
    """A camp that keeps its rules."""

    def __init__(self, ask: Ask, *, guarded: bool = False, coarse: bool = False, steps: Steps | None = None):
        super().__init__(ask, guarded=guarded, coarse=coarse, steps=steps)
        self.hard: dict[date, Var] = {}
        pieces = [self._days, self._room, self._limbs, self._fixtures]
        if coarse:
            pieces = [self._room_in_weeks]
        for each in (*pieces, self._weeks, self._loads, self.knobs):
            each()

    def _room_s(self, day: date) -> int:
        if "available" in self.without:
            return 24 * 3600
        return max(0, 60 * self.camp.minutes_on(day) - sum(each.cost.total_s for each in self.kept.on(day)))

    def _room(self) -> None:
        for day in self.free_days:
            for skill in (True, False):
                same = [self.spots[spot] for spot in self.by_day[day] if (spot.purpose == "skill") == skill]
                if same:
                    self.keep("one-a-day", sum(same) <= 1)
            total_s = self.chosen(day, day, lambda spot: spot.cost.total_s)
            if self.by_day[day]:
                self.keep("available", total_s <= self._room_s(day))

    def _room_in_weeks(self) -> None:
        """What the days of a week hold together."""
        wanted: dict[tuple[int, str], int] = defaultdict(int)
        for on, purpose in self.camp.fixtures:
            if purpose != TRAVEL and on >= self.first and not any(o.purpose == purpose for o in self.kept.on(on)):
                wanted[self.camp.week_of(on).number, purpose] += 1
        for week in self.to_come:
            free = [
                day for day in week.days if day >= self.first and (self._room_s(day) or "available" in self.without)
            ]
            for skill in (True, False):
                open_days = sum(not any((o.purpose == "skill") == skill for o in self.kept.on(day)) for day in free)
                count = self.chosen(week.first, week.last, lambda s, skill=skill: int((s.purpose == "skill") == skill))  # type: ignore[misc]
                self.keep("one-a-day", count <= open_days)
            room_s = sum(self._room_s(day) for day in free)
            # Beside a skill session there is room for another where both are short enough.
            twice = sum(self._shortest_s(week) <= self._room_s(day) and not self.kept.on(day) for day in free)
            self.keep("one-a-day", self.chosen(week.first, week.last) <= len(free) + twice)
            self.keep("available", self.chosen(week.first, week.last, lambda spot: spot.cost.total_s) <= room_s)
            lactic = self.chosen(week.first, week.last, lambda spot: int(spot.cost.lactic))
            self.keep("lactic-gap", lactic <= self._most_lactic(free))
            for limb, most in self.ask.ceilings.most.items():
                stood = limbs(self.kept.of(week), landed=True).get(limb, 0)
                struck = self.chosen(week.first, week.last, lambda s, limb=limb: s.cost.landed.get(limb, 0))  # type: ignore[misc]
                if len(week.days) == 7:
                    self.keep("strikes", struck <= max(0, most - stood))
            for purpose in self.ask.choices.ladders:
                least = wanted.get((week.number, purpose), 0)
                count = self.chosen(week.first, week.last, lambda s, p=purpose: int(s.purpose == p))  # type: ignore[misc]
                if least:
                    self.keep("fixed", count >= least)
                if purpose in BESIDES or purpose not in self.weights:
                    self.model.add(count <= least)

    def _shortest_s(self, week: Week) -> int:
        """The shortest skill session and another after it."""
        here = [spot for day in week.days for spot in self.by_day.get(day, ())]
        each = [[spot.cost.total_s for spot in here if (spot.purpose == "skill") == skill] for skill in (True, False)]
        return sum(min(lengths, default=24 * 3600) for lengths in each)

    def _most_lactic(self, free: Sequence[date]) -> int:
        """Lactic days that can stand among some days at the most."""
        stands = [on.on for on in done(self.kept.placed) if on.cost.lactic]
        count, last = 0, None
        for day in sorted(free):
            near = any(abs((day - on).days) < LACTIC_GAP_DAYS for on in stands)
            if not near and (last is None or (day - last).days >= LACTIC_GAP_DAYS):
                count, last = count + 1, day
        return count

    def _days(self) -> None:
        self.hard = {day: self._is(day, lambda cost: cost.hard) for day in days(self.camp.start, self.camp.last)}
        self.lactic = {day: self._is(day, lambda cost: cost.lactic) for day in days(self.camp.start, self.camp.last)}
        for day in self.hard:
            self._at_most(self.hard, day, MOST_HARD_RUNNING + 1, MOST_HARD_RUNNING, "hard-days")
            for gap in range(1, LACTIC_GAP_DAYS):
                self._at_most(self.lactic, day, gap + 1, 1, "lactic-gap")
            both = [self.spots[spot] for spot in self.by_day[day] if spot.cost.lactic]
            already = any(each.cost.lactic for each in done(self.kept.on(day)))
            if len(both) > 1 or (both and already):
                self.keep("lactic-gap", sum(both) <= (0 if already else 1))

    def _is(self, day: date, wanted: Callable[[Cost], bool]) -> Var:
        """Whether a day is of a kind, by what stands or is chosen."""
        if any(wanted(each.cost) for each in done(self.kept.on(day))):
            return 1
        ways = [self.spots[spot] for spot in self.by_day.get(day, ()) if wanted(spot.cost)]
        if not ways:
            return 0
        found = self.model.new_bool_var("")
        self.model.add_max_equality(found, ways)
        return found

    def _at_most(self, kind: dict[date, Var], day: date, running: int, most: int, rule: str) -> None:
        those = [kind.get(day + number * DAY, 0) for number in range(running)]
        known = sum(each for each in those if isinstance(each, int))
        if any(not isinstance(each, int) for each in those):
            self.keep(rule, sum(those) <= max(most, known))

    def _weeks(self) -> None:
        for week in self.to_come:
            sessions = self.chosen(week.first, week.last)
            held = len(self.kept.of(week))
            self.keep("most-a-week", sessions <= max(0, self.camp.most_a_week - held))
            if must_train(self.camp, week) and not held and any(day >= self.first for day in week.days):
                self.keep("trains", sessions >= 1, f"week {week.number}")

    def _loads(self) -> None:
        camp = self.camp
        climbs = 100 + round(100 * camp.most_climb)
        for week in self.to_come:
            before = camp.before(week)
            if before is None:
                continue
            (now, kept), (was, stood) = self.load(week.first, week.last), self.load(before.first, before.last)
            over = before.last < self.first
            if over and not stood:
                continue
            free = self.chosen(week.first, week.last)
            if week.whole:
                self.or_nothing_more("climb", 100 * now <= climbs * was, free, kept=kept > 0)
            elif week.phase == "ease":
                most = round(100 * EASE_MOST)
                self.or_nothing_more("ease", 100 * now <= most * was, free, kept=kept > 0)
        weeks = reference_weeks(camp)
        if camp.taper_from is None or not weeks or camp.last < self.first:
            return
        (now, kept), whole = self.load(camp.taper_from, camp.last), sum(self.load(w.first, w.last)[0] for w in weeks)
        if isinstance(whole, int) and not whole:
            return
        free = self.chosen(camp.taper_from, camp.last)
        share = round(100 * TAPER_MOST) * taper_days(camp)
        self.or_nothing_more("taper", 700 * len(weeks) * now <= share * whole, free, kept=kept > 0)

    def _limbs(self) -> None:
        for limb, most in self.ask.ceilings.most.items():
            for day in self.free_days:
                first = day - SEVEN_DAYS
                stood = limbs(self.kept.within(first, day), landed=True).get(limb, 0)
                struck = self.chosen(first, day, lambda spot, limb=limb: spot.cost.landed.get(limb, 0))  # type: ignore[misc]
                if self.by_day[day]:
                    self.keep("strikes", struck <= max(0, most - stood))

    def _fixtures(self) -> None:
        for on, purpose in self.camp.fixtures:
            if purpose == TRAVEL or on < self.first or any(each.purpose == purpose for each in self.kept.on(on)):
                continue
            ways = [self.spots[spot] for spot in self.by_day[on] if spot.purpose == purpose]
            name = BESIDES.get(purpose, purpose.replace("-", " "))
            self.keep("fixed", sum(ways) >= 1, f"{name} on {said(on)}")
