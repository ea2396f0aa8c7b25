"""Worked examples: what the tool says of whole sessions is written down, and nothing of it changes unseen."""

import re
from pathlib import Path

import pytest

from yoisho.method.examples import EXAMPLES, SECTIONS, section

PAGE = (Path(__file__).resolve().parents[3] / "docs/examples.md").read_text(encoding="utf-8")
WRITTEN = [f"## {each}" for each in re.split(r"^## ", PAGE, flags=re.MULTILINE)[1:]]


def test_every_section_stands_in_the_document_once():
    assert len(WRITTEN) == len(SECTIONS)
    assert [each.splitlines()[0] for each in WRITTEN[: len(EXAMPLES)]] == [f"## {each.title}" for each in EXAMPLES]


@pytest.mark.parametrize(("name", "written"), [*zip(SECTIONS, WRITTEN, strict=True)], ids=list(SECTIONS))
def test_what_is_said_of_a_session_is_what_is_written_down(name, written):
    assert section(name).splitlines() == written.rstrip().splitlines(), "if it is meant, run make docs"


def test_nothing_is_told_more_finely_than_it_is_known():
    """No trace of how a machine counts: neither -0 nor a figure of sixteen digits."""
    assert not re.search(r"\d\.\d{5}|\de-\d|[( ]-0[ )|]|\bNone\b|\bnan\b", PAGE)
