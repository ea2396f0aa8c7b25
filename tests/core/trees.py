"""Random sessions, for statements that must hold whatever a coach writes."""

from hypothesis import strategies as st

from tests.core.strikes.test_notation import combinations
from yoisho.session.interval import Beat, HeartBand, Interval, RepeatingCue, SessionError
from yoisho.session.kit import GLOVES, SAID
from yoisho.session.modality import MODALITIES
from yoisho.session.tree import Repeat, Sequence, check_size
from yoisho.strikes.combination import CombinationError
from yoisho.strikes.drill import Drill
from yoisho.strikes.tempo import TEMPOS

plain = st.builds(Interval, st.integers(1, 600), st.sampled_from(sorted(TEMPOS)))
pauses = st.builds(
    Interval, st.integers(1, 300), st.sampled_from(["rest", "recover"]), modality=st.none() | st.just("shadow")
)
words = st.text(st.characters(codec="utf-8", exclude_categories=["C", "Z"], exclude_characters='"'), min_size=1,
                max_size=12)  # fmt: skip


# Made once and not as they are drawn: to make a strategy takes longer than to draw from it.
_parts = st.lists(combinations, min_size=1, max_size=3)
_either = st.booleans()
_order = st.sampled_from(["turns", "adding", "pyramid", "draw"])


@st.composite
def _drills(draw):
    parts = tuple(draw(_parts))
    order = draw(_order)
    recall = order in ("turns", "draw") and len(parts) > 1 and draw(_either)
    try:
        return Drill(parts[:2] if order == "pyramid" else parts, order, recall)
    except CombinationError:
        return Drill(parts[:1])


drills = _drills()
_said = st.fixed_dictionaries(
    {
        "modality": st.none() | st.sampled_from(sorted(MODALITIES)),
        "lead": st.none() | st.sampled_from(["left", "right"]),
        "switch": st.none() | st.sampled_from(["half", "call", 5, 90]),
        "cues": st.lists(st.builds(RepeatingCue, words, st.integers(2, 600)), max_size=2).map(tuple),
        "beat": st.none() | st.builds(Beat, st.integers(30, 240), st.sampled_from([0.5, 1, 2])),
        "band": st.none() | st.builds(HeartBand, st.integers(30, 60), st.integers(61, 100)),
        "pairs": _either,
        "per_min": st.none() | st.integers(1, 480),
        "power_percent": st.none() | st.integers(5, 100),
        "demand_percent": st.none() | st.integers(20, 400),
        "drill": st.none() | drills,
        "reset_s": st.none() | st.integers(0, 30),
        "gloves": st.none() | st.sampled_from(sorted(GLOVES)),
        "kit": st.lists(st.sampled_from(SAID), unique=True).map(tuple),
    }
)
_seconds = st.integers(1, 600)
_reps = st.lists(st.integers(1, 60), max_size=4).map(tuple)
_tempo = st.sampled_from(sorted(TEMPOS))
_kept = st.sampled_from(["modality", "cues", "beat", "band", "gloves", "kit"])


@st.composite
def rich(draw):
    """An interval that says all it can; what makes no sense together is left out."""
    said, seconds, reps, tempo = draw(_said), draw(_seconds), draw(_reps), draw(_tempo)
    try:
        return Interval(None if reps else seconds, tempo, reps=reps, **said)
    except SessionError:
        kept = draw(_kept)
        return Interval(seconds, tempo, **{kept: said[kept]})


unending = st.builds(
    Interval,
    st.integers(1, 600),
    st.sampled_from(sorted(tempo.id for tempo in TEMPOS.values() if tempo.kind == "work")),
    lead=st.none() | st.just("right"),
    switch=st.none() | st.just("call"),
    open_ended=st.just(True),
)
intervals = plain | unending | rich()


def _larger(nodes):
    return st.one_of(
        st.builds(lambda items: Sequence(tuple(items)), st.lists(nodes, min_size=2, max_size=4)),
        st.builds(Repeat, st.integers(1, 4), nodes, st.none() | pauses),
    )


def _fits(node):
    try:
        check_size(node)
    except SessionError:
        return False
    return True


trees = st.recursive(intervals, _larger, max_leaves=6).filter(_fits)
