"""Every format is whole: what it writes it reads back, and what it cannot read it says."""

import pytest
from hypothesis import given, settings

from tests.core.trees import trees
from yoisho.formats import FORMATS, FormatError
from yoisho.session.document import Part, Session

BOTH_WAYS = [each for each in FORMATS.values() if each.read and each.write]


@pytest.mark.parametrize("known", FORMATS.values(), ids=lambda each: each.id)
def test_a_format_is_named_and_goes_at_least_one_way(known):
    assert known.write or known.read
    assert "/" in known.media_type
    assert known.extension.isalnum()
    assert len({each.extension for each in FORMATS.values()}) == len(FORMATS)


@pytest.mark.parametrize("known", BOTH_WAYS, ids=lambda each: each.id)
@given(tree=trees)
@settings(max_examples=40)
def test_what_is_written_is_read_back_without_loss(known, tree):
    session = Session("Ünder the crane", (Part("Main set", tree, "skill"),))
    assert known.read(known.write(session)) == session


@pytest.mark.parametrize("known", BOTH_WAYS, ids=lambda each: each.id)
@pytest.mark.parametrize("data", [b"", b"\xff\xfe", b"[1, 2]", b"{", b"[" * 5000])
def test_what_is_none_is_refused_in_words(known, data):
    with pytest.raises(FormatError) as refused:
        known.read(data)
    assert refused.value.message


def test_the_place_of_a_fault_is_told():
    wrong = FORMATS["session-json"].write(Session("T", ())).replace(b'"title": "T"', b'"title": ""')
    with pytest.raises(FormatError) as refused:
        FORMATS["session-json"].read(wrong)
    assert refused.value.path == "title"
