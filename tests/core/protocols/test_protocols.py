"""The schools' protocols against the trade's own figures. Common practice, no source, unless one is named."""

import pytest

from yoisho.design.nudge import WARM_UP as NUDGED
from yoisho.engine.person import person
from yoisho.engine.readout import NoWorkError, read
from yoisho.judgement.cautions import cautions
from yoisho.judgement.targets import TARGETS
from yoisho.judgement.verdict import judge
from yoisho.protocols import PROTOCOLS, SCALES
from yoisho.protocols.families import FAMILIES
from yoisho.protocols.protocol import WARM_UP, Version
from yoisho.session.rules import RULE_SETS
from yoisho.session.shorthand import read_parts, write_parts
from yoisho.session.timeline import Timeline, unroll
from yoisho.session.volume import volume
from yoisho.strikes.schools import SCHOOLS

EVERY = [
    pytest.param(protocol, version, id=f"{protocol.id}: {version.name}")
    for protocol in PROTOCOLS.values()
    for version in protocol.versions
]
RULES = {"five-minute rounds": "mma-pro", "five rounds, long rests": "muay-thai-pro", "two long rounds": None,
         "short rounds": None}  # fmt: skip


def main_set(protocol_id: str, name: str = "club") -> Timeline:
    found = next(version for version in PROTOCOLS[protocol_id].versions if version.name == name)
    return unroll(*(part.tree for part in found.parts))


def hard(timeline: Timeline, tempo: str) -> int:
    return sum(interval.tempo == tempo for interval in timeline.intervals)


@pytest.mark.parametrize(
    ("protocol_id", "name", "total_s"),
    [
        ("thirties", "club", 3 * 180 + 2 * 60),
        ("thirties", "with a breath", 3 * 195 + 2 * 60),
        ("thirties-in-pairs", "six minutes", 360),
        ("tabata", "club", 240),
        ("lactic-capacity", "club", 18 * 60),
        ("forty-twenty", "club", 600),
        ("minimal-rest-circuit", "club", 15 * 60),
        ("two-on-two-off", "club", 5 * 240),
        ("fight-rounds", "club", 3 * 180 + 2 * 60),
        ("fight-rounds", "two long rounds", 2 * 300 + 60),
        ("fight-rounds", "five-minute rounds", 3 * 300 + 2 * 60),
        ("fight-rounds", "five rounds, long rests", 5 * 180 + 4 * 120),
    ],
)
def test_it_lasts_as_long_as_the_trade_says(protocol_id, name, total_s):
    assert main_set(protocol_id, name).total_s == total_s


def test_in_pairs_everybody_works_thirty_and_rests_thirty():
    intervals = main_set("thirties-in-pairs").intervals
    assert [(one.seconds, one.partner) for one in intervals] == [(30, False), (30, True)] * 18


def test_lactic_capacity_is_sixteen_hard_bouts():
    assert hard(main_set("lactic-capacity"), "power") == 16


def test_a_round_of_bursts_holds_nine_sprints():
    timeline = main_set("bursts")
    assert hard(timeline, "all-out") == 3 * 9
    assert sum(one.seconds for one in timeline.intervals if one.rounds[0] == (1, 3) and one.tempo != "rest") == 180


def test_rep_rounds_are_855_strikes_exactly():
    held = volume(main_set("rep-rounds").intervals)
    assert held.strikes == held.counted == 5 * 60 + 15 * 5 + 4 * 120 == 855


def test_the_climbing_item_makes_300_mountain_climbers_each_time_and_the_others_stay():
    intervals = main_set("ladders", "one item climbs").intervals
    reps = {modality: [one.reps for one in intervals if one.source.modality == modality]
            for modality in ("mountain-climbers", "lunges", "push-ups", "burpees")}  # fmt: skip
    assert sum(reps["mountain-climbers"]) == 2 * 300
    assert (reps["lunges"], reps["push-ups"], reps["burpees"]) == ([12] * 10, [15] * 10, [4] * 10)


def test_threshold_rests_shrink_by_fifteen_seconds_a_week_and_then_it_unloads():
    rests = [
        {one.seconds for one in main_set("threshold-rounds", week).intervals if one.kind == "rest"}
        for week in ("club", "second week", "third week")
    ]
    assert rests == [{90}, {75}, {60}]
    assert main_set("threshold-rounds", "unload").work_s == 2 * 180
    assert main_set("threshold-rounds", "unload in one round").total_s == 300
    assert main_set("threshold-rounds", "five-minute rounds").work_s == 2 * 300


def test_every_round_of_forty_twenty_has_another_combination():
    intervals = [one for one in main_set("forty-twenty").intervals if one.kind == "work"]
    assert len({one.combination for one in intervals}) == len(intervals) == 10


def test_kicks_go_five_right_five_left():
    assert volume(main_set("tabata", "kicks").intervals).left_share == pytest.approx(0.5)


def test_escalating_rounds_add_and_end_with_all_that_was_added():
    build = [one for one in main_set("escalating-rounds").intervals if one.part == 0 and one.kind == "work"]
    lengths = [len(one.combination.actions) for one in build]
    assert lengths == sorted(set(lengths))
    recap = main_set("escalating-rounds").intervals[-1]
    assert recap.combination == build[-1].combination


@pytest.mark.parametrize(("protocol", "version"), EVERY)
def test_a_protocol_reads_in_every_school_as_what_it_is(protocol, version):
    for school in SCHOOLS:
        assert read_parts(write_parts(version.parts, school), school) == version.parts


@pytest.mark.parametrize(("protocol", "version"), EVERY)
def test_it_trains_what_it_says_and_nothing_in_it_is_wrong_for_its_bag(protocol, version: Version):
    session = protocol.session(version)
    level = {"beginner": "beginner", "fighter": "fighter"}.get(version.name, "club")
    rules = RULES.get(version.name, "boxing-amateur")
    try:
        reading = read(person(level=level, rule_set=rules), session.unrolled(), ranges=False)
    except NoWorkError:
        assert protocol.id == "cool-down"
        return
    verdict = judge(reading, protocol.target_of(version))
    assert verdict.strokes >= 4, verdict.sentence
    spoken = {caution.rule for caution in cautions(reading)}
    assert not spoken & {"bag", "warm-up", "beginner"}


@pytest.mark.parametrize("protocol", PROTOCOLS.values(), ids=lambda protocol: protocol.id)
def test_a_protocol_has_its_meaning_reason_scales_cautions_and_source(protocol):
    assert set(protocol.scales) == set(SCALES)
    assert protocol.target in TARGETS
    for text in (protocol.meaning, protocol.reason, *protocol.cautions):
        assert text.endswith("."), "whole sentences"
    assert protocol.cautions
    assert protocol.source
    assert all(scale == "club" or version.note for scale, version in protocol.scales.items())
    assert len({version.name for version in protocol.versions}) == len(protocol.versions)


def test_a_scaled_down_version_never_asks_for_more_strikes_than_a_fighters():
    for protocol in PROTOCOLS.values():
        fighter, beginner = (
            volume(unroll(*(part.tree for part in protocol.scales[scale].parts)).intervals).strikes
            for scale in ("fighter", "beginner")
        )
        assert beginner <= fighter, protocol.id


def test_what_the_search_turns_is_a_form_of_what_the_library_shows_or_stands_alone():
    forms = {family.form_of for family in FAMILIES if family.form_of}
    assert forms <= set(PROTOCOLS)
    assert len(forms) >= 10, "most of the schools' protocols can be searched"
    assert len({family.id for family in FAMILIES}) == len(FAMILIES)


def test_there_is_one_warm_up_whoever_puts_it_there():
    """The shape is the same everywhere: easy work, easy shadow, a minute; only its lengths differ."""
    lengths = {part.tree.items[1].modality for part in WARM_UP.values()}
    assert lengths == {"shadow"}
    assert [type(part.tree).__name__ for part in (*WARM_UP.values(), NUDGED)] == ["Sequence"] * 5
    assert {part.tree.items[-1].seconds for part in (*WARM_UP.values(), NUDGED)} == {60}


def written(seconds: float) -> bool:
    """Whether a coach would write it on a whiteboard: any even second of a burst, else fives."""
    return seconds % 5 == 0 or (seconds < 20 and seconds % 2 == 0)


@pytest.mark.parametrize(("protocol", "version"), EVERY)
def test_every_length_of_a_protocol_is_one_that_a_coach_writes(protocol, version):
    timed = [one.seconds for one in unroll(*(part.tree for part in version.parts)).intervals if not one.reps]
    assert [seconds for seconds in timed if not written(seconds)] == []


@pytest.mark.parametrize("family", FAMILIES, ids=lambda each: each.id)
@pytest.mark.parametrize("at", [0, -1])
def test_every_length_that_a_search_may_take_is_one_that_a_coach_writes(family, at):
    lengths = [value for name in ("work", "rest", "third", "easy") for value in family.knobs.get(name, ())]
    tree = family.build(person(rule_set="mma-pro"), {name: values[at] for name, values in family.knobs.items()})
    # A rest of so many times the work is what comes of it.
    built = [one.seconds for one in unroll(tree).intervals if not one.reps and "ratio" not in family.knobs]
    assert [seconds for seconds in lengths + built if not written(seconds)] == []


@pytest.mark.parametrize("rules", ["boxing-amateur", "mma-pro", "muay-thai-pro"])
def test_the_bouts_rounds_begin_with_the_rules_own_number_and_length(rules):
    family = next(each for each in FAMILIES if each.id == "bout-rounds")
    tree = family.build(person(rule_set=rules), {name: values[0] for name, values in family.knobs.items()})
    assert (tree.count, tree.between.seconds) == (RULE_SETS[rules].rounds, RULE_SETS[rules].rest_s)
    assert sum(one.seconds for one in tree.body.items) == RULE_SETS[rules].round_s


def test_a_version_that_is_not_the_clubs_is_named_in_the_title():
    for protocol in PROTOCOLS.values():
        for scale, version in protocol.scales.items():
            named = protocol.name if version == protocol.scales["club"] else f"{protocol.name}: {version.name}"
            assert protocol.session(version).title == named, (protocol.id, scale)


def test_a_family_says_that_it_kicks_where_kicks_and_knees_are_in_it():
    for family in FAMILIES:
        first = family.build(person(), {name: values[-1] for name, values in family.knobs.items()})
        limbs = volume(unroll(first).intervals).limbs
        assert family.kicks is any(limb.endswith("leg") for limb in limbs), family.id
