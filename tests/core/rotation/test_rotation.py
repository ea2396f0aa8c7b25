"""Rotations held against a class's places, pairs, limits and turns, by code that shares nothing with the solver."""

import random
import re
from collections import Counter
from itertools import pairwise

import pytest

from tests.core import RANDOM
from tests.core.test_cli import answer, command, written
from yoisho.rotation import solve as solve_module
from yoisho.rotation.group import ClassError, Group
from yoisho.rotation.ring import constructed
from yoisho.rotation.score import against
from yoisho.rotation.solve import solve

STATION = re.compile(r"^(?:bag (?P<bag>\d+)|pads (?P<pads>\d+) (?P<role>hit|hold)|floor|wait|away)$")


def faults(group, rows):
    """What is wrong with who stands where; nothing of what is only less than best."""
    found = []
    for wave in range(group.waves):
        here = {who: rows[who][wave] for who in group.people}
        read = {who: STATION.match(station) for who, station in here.items()}
        found += [f"{station}?" for who, station in here.items() if not read[who]]
        bags = [int(match["bag"]) for match in read.values() if match and match["bag"]]
        found += ["one bag, two people"] * (len(bags) != len(set(bags)))
        found += ["no such bag"] * any(not 1 <= bag <= group.bags for bag in bags)
        pads = {}
        for who, match in read.items():
            if match and match["pads"]:
                pads.setdefault(int(match["pads"]), []).append((match["role"], who))
        for number, there in pads.items():
            if sorted(role for role, _ in there) != ["hit", "hold"] or not 1 <= number <= group.pad_pairs:
                found.append(f"pads {number}: {there}")
            names = {who for _, who in there}
            found += [f"{pair} apart" for pair in group.together if len(names & set(pair)) == 1]
        found += ["too many on the floor"] * (list(here.values()).count("floor") > group.floor)
        for who, station in here.items():
            there = group.from_wave.get(who, 1) <= wave + 1 <= group.absent_after.get(who, group.waves)
            if there == (station == "away"):
                found.append(f"{who} in wave {wave + 1}: {station}")
        for who, what in group.limits:
            shut = {"pads": "pads", "bag": "bag", "floor": "floor", "hold": "hold"}[what]
            if shut in here[who].split():
                found.append(f"{who} must not {what}")
    return found


def room(group, wave):
    present = sum(
        group.from_wave.get(who, 1) <= wave <= group.absent_after.get(who, group.waves) for who in group.people
    )
    return present, group.bags + group.floor + 2 * min(group.pad_pairs, present // 2)


def counted(group, rows, who):
    """Turns of each kind."""
    return Counter(re.sub(r" ?\d+", "", station) for station in rows[who])


def random_group(seed):
    draw = random.Random(seed)
    people = tuple(f"p{number}" for number in range(draw.choice((1, 2, 3, 5, 6, 7, 9, 11, 14, 15))))
    waves = draw.randrange(1, 9)
    names = list(people)
    draw.shuffle(names)
    limits = [(who, draw.choice(("pads", "bag", "hold", "floor"))) for who in names[:2] if draw.random() < 0.35]
    together = [(names[-1], names[-2])] if len(names) > 4 and draw.random() < 0.35 else []
    late = {who: draw.randrange(1, waves + 1) for who in names[2:4] if draw.random() < 0.3}
    early = {who: draw.randrange(0, waves + 1) for who in names[4:6] if draw.random() < 0.3}
    return Group(
        people, waves, draw.choice((0, 1, 3, 6)), draw.choice((0, 1, 2, 4)), draw.choice((0, 2, 5, 12)),
        tuple(limits), tuple(together), late, early,
    )  # fmt: skip


@pytest.mark.parametrize("batch", range(RANDOM // 50))
def test_of_random_classes_every_answer_keeps_to_places_pairs_limits_and_presence(batch, monkeypatch):
    # How near the best it comes is asked elsewhere.
    monkeypatch.setattr(solve_module, "SHARE_BUDGET", 0.05)
    monkeypatch.setattr(solve_module, "WAIT_BUDGET", 0.3)
    for seed in range(50 * batch, 50 * batch + 50):
        group = random_group(seed)
        found = solve(group)
        assert faults(group, found.rows) == [], seed
        waiting = sum(row.count("wait") for row in found.rows.values())
        assert waiting == found.against.waiting
        assert waiting >= sum(
            max(0, present - places) for present, places in (room(group, w + 1) for w in range(group.waves))
        )
        assert found.against.points <= min(against(group, rows).points for rows in constructed(group)), seed
        plain = not group.limits and not group.together
        if plain:
            assert waiting == sum(max(0, p - r) for p, r in (room(group, w + 1) for w in range(group.waves))), seed
        assert bool(found.clash) == bool(waiting) or not plain


def group(people=14, waves=7, bags=6, pad_pairs=2, floor=4, **more):
    names = tuple(f"p{number}" for number in range(1, people + 1))
    return Group(names, waves, bags, pad_pairs, floor, **more)


@pytest.mark.parametrize(
    "asked",
    [group(), group(pad_pairs=0, floor=8), group(15, floor=5), group(9, 6, 0, 3, 4), group(40, 12, 10, 6, 20)],
    ids=["14 x 7", "no pads", "odd", "no bags", "40 x 12"],
)
def test_where_there_is_room_nobody_waits_and_all_turns_are_equal_within_one(asked):
    found = solve(asked)
    assert found.against.waiting == 0
    assert found.bound_gap <= 0.02
    for kind in ("bag", "pads hit", "pads hold", "floor"):
        turns = [counted(asked, found.rows, who)[kind] for who in asked.people]
        assert max(turns) - min(turns) <= 1, kind
    for who in asked.people:
        assert abs(counted(asked, found.rows, who)["pads hit"] - counted(asked, found.rows, who)["pads hold"]) <= 1


def test_nobody_stands_at_the_same_bag_twice_running_where_there_are_two():
    found = solve(group(12, 8, 6, 0, 6))
    for row in found.rows.values():
        assert not any(one == two and one.startswith("bag") for one, two in pairwise(row))


def test_more_people_than_places_wait_as_little_as_can_be_and_by_turns():
    asked = group(20, 8, 4, 2, 4)
    found = solve(asked)
    assert found.against.waiting == 8 * (20 - 12)
    assert found.status == "optimal"
    waits = [row.count("wait") for row in found.rows.values()]
    assert max(waits) - min(waits) <= 2
    assert [each.what for each in found.clash] == ["places"]
    assert "8 more would do" in found.clash[0].sentence


def test_an_odd_number_with_pads_alone_leaves_one_waiting():
    found = solve(group(5, 5, 0, 4, 0))
    assert found.against.waiting == 5
    assert {row.count("wait") for row in found.rows.values()} == {1}


def test_limits_that_leave_no_place_are_named_as_the_reason():
    found = solve(group(4, 4, 4, 0, 0, limits=(("p1", "bag"),)))
    assert found.rows["p1"] == ["wait"] * 4
    assert [each.what for each in found.clash] == ["limits"]


def test_partners_hold_only_for_each_other_and_share_it_evenly():
    asked = group(6, 8, 2, 2, 2, together=(("p1", "p2"),))
    found = solve(asked)
    assert faults(asked, found.rows) == []
    mine = counted(asked, found.rows, "p1")
    assert mine["pads hit"] + mine["pads hold"] > 0
    assert abs(mine["pads hit"] - mine["pads hold"]) <= 1


def test_the_same_class_gives_the_same_rotation():
    asked = group(11, 6, 3, 2, 4, limits=(("p2", "pads"),), from_wave={"p5": 3})
    assert solve(asked).rows == solve(asked).rows


@pytest.mark.parametrize(
    ("said", "field", "words"),
    [
        ({"people": 0}, "people", "1 to 60"),
        ({"waves": 0}, "waves", "1 to 40"),
        ({"bags": -1}, "bags", "0 to 120"),
        ({"limits": (("nobody", "pads"),)}, "limits", "nobody here is called"),
        ({"limits": (("p1", "run"),)}, "limits", "there are pads, bag"),
        ({"together": (("p1", "p1"),)}, "together", "two different people"),
        ({"together": (("p1", "p2"), ("p2", "p3"))}, "together", "one partner"),
        ({"from_wave": {"p1": 9}}, "from_wave", "1 to 7"),
        ({"absent_after": {"p1": -1}}, "absent_after", "0 to 7"),
    ],
)
def test_a_class_that_cannot_be_says_what_is_wrong(said, field, words):
    with pytest.raises(ClassError, match=words) as fault:
        group(**said)
    assert fault.value.field == field


def test_two_of_one_name_are_told_apart_first():
    with pytest.raises(ClassError, match="'Ada' stands twice"):
        Group(("Ada", "Ada"), 3, 2)


CLASS = {"people": ["Ada", "Bo", "Cy"], "waves": 3, "bags": 2, "floor": 1, "limits": [{"person": "Cy", "not": "bag"}],
         "from_wave": {"Bo": 2}}  # fmt: skip


def test_the_command_gives_rows_in_the_order_of_people_and_their_turns(capsys, tmp_path):
    found = answer(capsys, "rotation", written(tmp_path, "class.json", CLASS))
    assert found["people"] == ["Ada", "Bo", "Cy"]
    assert [len(row) for row in found["rows"]] == [3, 3, 3]
    assert found["rows"][1][0] == "away"
    assert found["turns"][2] == {"bag": 0, "hit": 0, "hold": 0, "floor": 3}
    assert (found["waiting"], found["status"], found["clash"]) == (0, "optimal", [])
    many = answer(
        capsys,
        "rotation",
        written(tmp_path, "many.json", {"people": 14, "waves": 7, "bags": 6, "pad_pairs": 2, "floor": 4}),
    )
    assert len(many["rows"]) == 14


@pytest.mark.parametrize(
    ("said", "words"),
    [
        ({"people": "all"}, "people: a list"),
        ({"people": [1]}, "names are wanted"),
        ({"people": 0}, "1 to 60"),
        ({"waves": "six"}, "waves, 1 to 40"),
        ({"limits": [{"person": "Cy"}]}, "limits, 1: 'not' is missing"),
        ({"limits": [{"person": "Di", "not": "bag"}]}, "nobody here is called 'Di'"),
        ({"together": [["Ada"]]}, "two different people"),
        ({"from_wave": [2]}, "from_wave: an object"),
        ({"gear": 1}, "there is no 'gear'"),
    ],
)
def test_the_command_says_what_is_wrong_and_where(capsys, tmp_path, said, words):
    path = written(tmp_path, "class.json", {**CLASS, **said})
    assert words in command(capsys, "rotation", path, fails=True)[1]
