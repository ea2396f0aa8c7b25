"""One definition gives reading, writing and the schema; every fault is told with its path."""

import pytest
from jsonschema import Draft202012Validator

from yoisho.plain import PlainError, Schema, read, write
from yoisho.session.interval import HeartBand, Interval
from yoisho.session.tree import DEEPEST, Node, Repeat, Sequence


def faulty(value, kind=Node):
    with pytest.raises(PlainError) as caught:
        read(kind, value, "tree", DEEPEST)
    return caught.value.path, caught.value.message


REST = {"type": "interval", "seconds": 10, "tempo": "rest"}


def test_what_is_not_said_is_left_out_and_comes_back_as_it_was():
    tree = Sequence((Interval(30, "power", band=HeartBand(80, 90)), Repeat(2, Interval(None, "power", (5, 3)))))
    told = write(tree)
    assert told["items"][0] == {"type": "interval", "seconds": 30, "tempo": "power", "band": {"low": 80, "high": 90}}
    assert "pairs" not in told["items"][0]
    assert read(Node, told, "tree", DEEPEST) == tree


@pytest.mark.parametrize(
    ("value", "path", "words"),
    [
        (7, "tree", "an object with a type"),
        ({"type": "loop"}, "tree.type", "interval, sequence or repeat, not 'loop'"),
        ({**REST, "speed": 3}, "tree.speed", "not known here"),
        ({**REST, "pairs": 1}, "tree.pairs", "true or false"),
        ({**REST, "tempo": "sped"}, "tree.tempo", "is not an effort"),
        ({**REST, "seconds": 0}, "tree.seconds", "from 1 second to 2 hours"),
        ({**REST, "cues": {"text": "go"}}, "tree.cues", "expected a list"),
        ({**REST, "cues": [{"text": "go"}]}, "tree.cues[0]", "something is missing here"),
        ({"type": "sequence", "items": [REST]}, "tree.items", "at least two things"),
        (
            {"type": "repeat", "count": 2, "body": REST, "between": {"type": "repeat"}},
            "tree.between",
            "rest or recover",
        ),
        ({"type": "repeat", "count": 2}, "tree", "something is missing here"),
        ({"type": "interval", "seconds": 10}, "tree", "something is missing here"),
    ],
)
def test_a_fault_is_told_with_its_path(value, path, words):
    where, message = faulty(value)
    assert where == path
    assert words in message


def test_a_path_goes_step_by_step_through_names_and_places():
    with pytest.raises(PlainError) as caught:
        read(Node, {"type": "sequence", "items": [REST, {**REST, "seconds": 0}]}, "parts[3].tree", DEEPEST)
    assert caught.value.steps == ["parts", 3, "tree", "items", 1, "seconds"]


def test_what_stands_too_deep_is_refused_however_deep_it_is():
    tree = REST
    for _ in range(200):
        tree = {"type": "repeat", "count": 2, "body": tree}
    assert "too deep" in faulty(tree)[1]


def test_the_schema_holds_the_bounds_that_stand_beside_the_fields():
    schema = Schema()
    schema.ref(Interval)
    accepts = Draft202012Validator({**schema.defs["IntervalNode"], "$defs": schema.defs})
    assert accepts.is_valid(REST)
    assert accepts.is_valid({**REST, "pairs": None, "cues": None})
    for wrong in ({"seconds": 7201}, {"tempo": "sped"}, {"reps": [0]}, {"switch": 1}, {"speed": 3}, {"pairs": 1}):
        assert not accepts.is_valid({**REST, **wrong}), wrong
