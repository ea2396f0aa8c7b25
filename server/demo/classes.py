"""A class of the demo: the dockers at their dinner hour, solved as any other."""

from datetime import time, timedelta

from django.utils import timezone

from server.accounts.models import Club, User
from server.classes.api import of_group
from server.classes.asked import core_class
from server.classes.keep import save
from server.classes.schemas import ClassAskedIn, ClassIn, ComerIn
from server.demo import hall
from server.roster.models import Group
from yoisho.classes.made import make

FRIDAY, HOUR = 4, time(12, 10)
GUESTS = ("Abel K.", "Bea R.", "Cormac D.", "Dunja P.", "Eli S.", "Farah N.", "Ivo M.", "Kit W.", "Lorna B.", "Nell O.")
PEOPLE = 14


def load_class(club: Club, coach: User, group: Group) -> None:
    """Those of the group, and whoever else turns up, at six bags and two pairs of pads."""
    people = of_group(group)
    guests = [ComerIn(uid=f"guest-{number}", name=name) for number, name in enumerate(GUESTS, 1)]
    today = timezone.localdate()
    asked = ClassAskedIn(
        title=hall.CLASS, group_id=group.pk, on=today + timedelta(days=(FRIDAY - today.weekday()) % 7), at=HOUR,
        target="aerobic-power", pattern="30 power, 30 flow", minutes=40, warm_up_min=6, cool_down_min=4, bags=6,
        pad_pairs=2, waves=7, rounds=3, change_s=30, people=(people + guests)[:PEOPLE],
    )  # fmt: skip
    made = make(core_class(club, asked))
    rows = [list(made.rotation.rows[each.name]) for each in made.asked.people]
    save(coach, ClassIn(asked=asked, rows=rows), None)
