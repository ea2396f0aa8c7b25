"""docs/notation.md promises what the readers do: its examples, its words and its grammar are held to them."""

import re
from pathlib import Path

import pytest

from yoisho.session.clock import clock
from yoisho.session.modality import MODALITIES
from yoisho.session.purposes import PURPOSES
from yoisho.session.shorthand import ShorthandError, read, read_parts, write, write_parts
from yoisho.session.shorthand.grammar import GRAMMAR
from yoisho.session.tree import duration_s
from yoisho.strikes import notation
from yoisho.strikes.techniques import TECHNIQUES
from yoisho.strikes.tempo import TEMPOS

PAGE = (Path(__file__).resolve().parents[2] / "docs/notation.md").read_text(encoding="utf-8")


def rows(after: str) -> list[list[str]]:
    """The cells of the table that follows a heading."""
    table = PAGE.split(after, 1)[1].split("\n\n|", 1)[1].split("\n\n", 1)[0]
    lines = table.splitlines()[2:]
    cells = [[cell.strip().strip("`") for cell in re.split(r"(?<!\\)\|", line)[1:-1]] for line in lines]
    return [[cell.replace("\\|", "|") for cell in row] for row in cells]


def block(kind: str) -> str:
    return re.search(rf"```{kind}\n(.*?)\n```", PAGE, re.DOTALL)[1]


EXAMPLES = rows("### Examples")
COMBINATIONS = rows("## Combinations")
REFUSED = [re.match(r"(.*?)\s+→ (\d+): (.*)", line).groups() for line in block("refused").splitlines()]


def test_there_are_thirty_examples_and_more():
    assert len(EXAMPLES) >= 30


@pytest.mark.parametrize(("typed", "canonical", "length", "_"), EXAMPLES, ids=[row[0] for row in EXAMPLES])
def test_an_example_is_read_as_the_page_says(typed, canonical, length, _):
    tree = read(typed)
    assert write(tree) == canonical
    assert clock(duration_s(tree)) == length
    assert read(canonical) == tree


@pytest.mark.parametrize(("typed", "canonical", "called", "strikes", "_"), COMBINATIONS)
def test_a_combination_is_read_as_the_page_says(typed, canonical, called, strikes, _):
    found = notation.read(typed)
    assert notation.write(found) == canonical
    assert ", ".join(notation.calls(found)) == called
    assert found.strikes == int(strikes)


@pytest.mark.parametrize(("typed", "character", "words"), REFUSED)
def test_what_cannot_be_read_is_refused_as_the_page_says(typed, character, words):
    with pytest.raises(ShorthandError) as refused:
        read(typed)
    assert refused.value.position + 1 == int(character)
    assert words in f"{refused.value.message} {refused.value.expected}"


def test_the_session_of_the_page_is_five_parts_with_their_purposes():
    parts = read_parts(block("session"))
    assert [(part.name, part.purpose) for part in parts] == [
        ("Warm-up", "warm-up"), ("Skill rounds", "skill"), ("Main set", "lactic-capacity"), ("Core", None),
        ("Cool-down", "cool-down"),
    ]  # fmt: skip
    assert read_parts(write_parts(parts)) == parts


def test_the_grammar_of_the_page_is_the_readers_own():
    assert block("grammar") == GRAMMAR.strip().split("\n\n")[0]


@pytest.mark.parametrize(
    "table", [TEMPOS, MODALITIES, PURPOSES, TECHNIQUES], ids=["efforts", "modality", "purposes", "techniques"]
)
def test_no_word_is_left_out_of_the_page(table):
    page = re.sub(r"\s+", " ", PAGE)
    assert [each.word for each in table.values() if not re.search(rf"(?<![\w-]){each.word}(?![\w-])", page)] == []
