from yoisho.judgement.targets import TARGETS
from yoisho.session.purposes import PURPOSES


def test_a_part_can_state_every_purpose_that_is_judged_and_the_two_that_frame_them():
    assert set(PURPOSES) == {*TARGETS, "warm-up", "cool-down"}
    for target in TARGETS.values():
        word = PURPOSES[target.id].word
        assert target.name.startswith(word), "one word per purpose everywhere"
