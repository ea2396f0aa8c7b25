"""What a plan of a camp is good for, in points: what the solver makes the most of."""

from collections import defaultdict
from math import ceil, floor

from yoisho.camp.camp import BESIDES, DAY, TRAVEL, Phase, Week
from yoisho.camp.constraints import Ruled
from yoisho.camp.model import Var
from yoisho.camp.rules import EASE_AIM, TAPER_LEAST, reference_weeks, rehearsal_weeks, still, taper_days
from yoisho.camp.weights import emphasis

# What the plan is good for, in points. Own settings.
SESSION = 1000
AGAIN = 200
"""The second session of a purpose in a week, and each further one twice as much."""
OFF_SHARE = 300
"""A session that a purpose has too many or too few in a phase of the camp."""
TURN = 150
"""A knob that is turned on, of the purpose that weighs most; as much less as another weighs less."""
ADJACENT = 60
NOT_REHEARSED = 800
SMALL = 100
"""A session that is shortened where the week is not eased."""
OFF_EASE = 1
"""Each unit of load that an ease week is off its half."""
OFF_TAPER = 5
"""Each unit of load under the least of a taper."""


class Model(Ruled):
    """A camp with its rules and what is best."""

    def points(self) -> Var:
        """What is maximised."""
        terms: list[Var] = []
        for week in self.to_come:
            for purpose in self.weights:
                if purpose in self.ask.choices.ladders:
                    terms += self._of_purpose(purpose, week)
        for (phase, purpose), share in self._shares().items():
            count = sum(self.trained(purpose, week) for week in self.camp.calendar if week.phase == phase)
            off = self.model.new_int_var(0, 100, "")
            self.model.add(off >= floor(share) - count)
            self.model.add(off >= count - ceil(share))
            terms.append(-OFF_SHARE * off)
        for spot, var in self.spots.items():
            if spot.size != "whole" and not still(self.camp, self.camp.week_of(spot.on)):
                terms.append(-SMALL * var)
        for day in self.free_days if not self.coarse else ():
            if day + DAY in self.hard and not (
                isinstance(self.hard[day], int) and isinstance(self.hard[day + DAY], int)
            ):
                both = self.model.new_bool_var("")
                self.model.add(both >= self.hard[day] + self.hard[day + DAY] - 1)
                terms.append(-ADJACENT * both)
        terms += self._at_the_end()
        return sum(terms)

    def _of_purpose(self, purpose: str, week: Week) -> list[Var]:
        count = self.trained(purpose, week)
        turn = round(TURN * self.weights[purpose] / max(self.weights.values()))
        over = [self.model.new_int_var(0, 14, "") for _ in range(2)]
        for number, each in enumerate(over, 1):
            self.model.add(each >= count - number)
        return [SESSION * count, *(-AGAIN * each for each in over), turn * self.rise[purpose, week.number]]

    def _shares(self) -> dict[tuple[Phase, str], float]:
        """How many sessions of each purpose a phase should hold, by its weight there and what is possible."""
        shares: dict[tuple[Phase, str], float] = defaultdict(float)
        for week in self.camp.calendar:
            here = {
                purpose: self.weights[purpose] * emphasis(purpose, week.phase)
                for purpose in self.weights
                if self.stood(week, purpose)
                or any(spot.purpose == purpose for day in week.days for spot in self.by_day.get(day, ()))
            }
            open_days = sum(self.camp.minutes_on(day) > 0 for day in week.days)
            besides = {(on, purpose) for on, purpose in self.camp.fixtures if purpose in BESIDES and on in week.days}
            sessions = max(0, min(self.camp.most_a_week, open_days) - sum(purpose != TRAVEL for _, purpose in besides))
            for purpose, weight in here.items():
                shares[week.phase, purpose] += sessions * weight / sum(here.values())
        return shares

    def _at_the_end(self) -> list[Var]:
        camp, terms = self.camp, []
        for week in self.to_come:
            before = camp.before(week)
            if week.phase == "ease" and before is not None:
                now, was = self.load(week.first, week.last)[0], self.load(before.first, before.last)[0]
                off = self.model.new_int_var(0, 10**6, "")
                self.model.add(100 * off >= 100 * now - round(100 * EASE_AIM) * was)
                self.model.add(100 * off >= round(100 * EASE_AIM) * was - 100 * now)
                terms.append(-OFF_EASE * off)
        if "fight-rehearsal" in self.ask.choices.ladders:
            for week in rehearsal_weeks(camp):
                if week in self.to_come:
                    missing = self.model.new_bool_var("")
                    self.model.add(missing >= 1 - self.trained("fight-rehearsal", week))
                    terms.append(-NOT_REHEARSED * missing)
        weeks = reference_weeks(camp)
        if camp.taper_from is not None and weeks and camp.last >= self.first:
            now = self.load(camp.taper_from, camp.last)[0]
            whole = sum(self.load(each.first, each.last)[0] for each in weeks)
            under = self.model.new_int_var(0, 10**6, "")
            least = round(100 * TAPER_LEAST) * taper_days(camp)
            self.model.add(700 * len(weeks) * under >= least * whole - 700 * len(weeks) * now)
            terms.append(-OFF_TAPER * under)
        return terms
