"""Where the strikes begin to fall short, by the bound of the purpose: one answer for the score, the verdict and the
cautions.

It speaks only where the purpose's own measure of the fade is not met. Work that is as hard as fits its length, such as
power or all out, is meant to end empty: it is held against the first effort of the session, never against itself.
"""

import numpy as np

from yoisho.engine.measures import Measured
from yoisho.engine.readout import FadeOnset, Reading, fade_onset_of
from yoisho.engine.stores import Floats
from yoisho.judgement.structure import fade_last_round, rounds_in
from yoisho.judgement.targets import Measure, Target
from yoisho.strikes.tempo import TEMPOS

FADES_FROM = 0.10
"""Of an effort, for a purpose that has no bound of its own, and where none is named. Own setting."""
_FIGURES = ("fade_mean", "fade_last", "fade_last_round")


def _measure(target: Target | None) -> Measure | None:
    return next((measure for measure in target.measures if measure.figure in _FIGURES), None) if target else None


def fade_bound(target: Target | None) -> float:
    """Fade from which it speaks for a purpose [0-1]."""
    measure = _measure(target)
    return measure.full_to if measure else FADES_FROM


def _ends_empty(reading: Reading, first: int) -> bool:
    source = reading.timeline.intervals[first].source
    tempo = TEMPOS[source.tempo]
    return (tempo.top_rate or tempo.share_s > 0) and source.demand_percent is None and source.per_min is None


def _beyond(reading: Reading, measured: Measured, target: Target | None) -> Floats:
    """For every work bout and draw, whether it falls short by more than the bound. Shape (b, k)."""
    fades = measured.bouts["fade"]
    bound, measure = fade_bound(target), _measure(target)
    inside = reading.timeline.main(target.id if target else None)
    counts = np.array([inside[bout.first] for bout in reading.work_bouts])
    if not counts.any():
        return np.zeros(fades.shape, dtype=bool)
    first = int(np.argmax(counts))
    empty = np.array([_ends_empty(reading, bout.first) for bout in reading.work_bouts])
    least = np.where(empty[:, None], fades[first] if empty[first] else 0.0, 0.0)
    beyond = (fades - least > bound) & counts[:, None]
    beyond[first] &= not empty[first]
    if measure is not None and target is not None:
        if measure.figure == "fade_last_round":
            value = fade_last_round(reading.timeline, rounds_in(reading, target.id), measured.intervals["fade"])
        else:
            value = measured.over(reading.main_bouts(target.id))[measure.figure]
        beyond &= value > measure.full_to
    return np.asarray(beyond)


def failing(reading: Reading) -> FadeOnset:
    """The first work bout in which what is asked can no longer be given at all: the person stops or slows there."""
    ends = np.array([float(reading.timeline.intervals[bout.last].end_s) for bout in reading.work_bouts])[:, None]

    def over(measured: Measured) -> Floats:
        return np.asarray(np.nan_to_num(measured.run.exhausted_at_s, nan=np.inf)[None, :] < ends)

    return fade_onset_of(over(reading.measured), over(reading.spread) if reading.spread else None)


def first_faded(reading: Reading, target: Target | None = None) -> int | None:
    """The first work bout that has faded for a purpose, counted from 1, by the best guess; None where none has."""
    return fade_onset_of(_beyond(reading, reading.measured, target), None).bout


def fade_onset(reading: Reading, target: Target | None = None) -> FadeOnset:
    """Where the fade starts for a purpose, among the session's work bouts; by the general bound for none."""
    spread = _beyond(reading, reading.spread, target) if reading.spread else None
    return fade_onset_of(_beyond(reading, reading.measured, target), spread)
