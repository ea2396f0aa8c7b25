"""Rounds and rests of the rule sets, as the federations had them in 2024. From memory: check your federation's."""

import pytest

from yoisho.session.rules import RULE_SETS

KNOWN = {
    "boxing-amateur": "3 × 3:00, rest 1:00", "boxing-junior": "3 × 2:00, rest 1:00",
    "boxing-pro-6": "6 × 3:00, rest 1:00", "boxing-pro-12": "12 × 3:00, rest 1:00",
    "boxing-pro-women": "8 × 2:00, rest 1:00", "kickboxing-full-rules": "3 × 3:00, rest 1:00",
    "kickboxing-amateur": "3 × 2:00, rest 1:00", "muay-thai-pro": "5 × 3:00, rest 2:00",
    "muay-thai-amateur": "3 × 3:00, rest 1:00", "mma-pro": "3 × 5:00, rest 1:00", "mma-title": "5 × 5:00, rest 1:00",
    "mma-amateur": "3 × 3:00, rest 1:00", "taekwondo": "3 × 2:00, rest 1:00", "sanda": "3 × 2:00, rest 1:00",
}  # fmt: skip


@pytest.mark.parametrize("rules", RULE_SETS.values(), ids=lambda rules: rules.id)
def test_a_rule_set_has_the_rounds_and_rests_of_its_federation(rules):
    assert rules.text == KNOWN[rules.id]
