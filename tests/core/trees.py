"""Random sessions, for statements that must hold whatever a coach writes."""

from hypothesis import strategies as st

from yoisho.session.tempo import TEMPOS
from yoisho.session.tree import Interval, Repeat, Sequence, SessionError, check_size

intervals = st.builds(Interval, st.integers(1, 600), st.sampled_from(sorted(TEMPOS)))
pauses = st.builds(Interval, st.integers(1, 300), st.sampled_from(["rest", "recover"]))


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
