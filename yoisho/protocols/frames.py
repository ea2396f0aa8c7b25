"""What goes around a main set: one definition of the warm-up and the cool-down, for the library, proposals and nudges.

Common practice, no source; the lengths are our own settings.
"""

from yoisho.session.document import Part
from yoisho.session.interval import Interval
from yoisho.session.tree import Sequence

NO_SKIPPING_FROM_YEARS = 50
"""From here on the joints are worked instead. Own setting."""


def warm_up(first_s: int, shadow_s: int, *, skipping: bool = True) -> Part:
    """Skipping or joint work, then easy shadow, then a minute to get ready."""
    first = (
        Interval(first_s, "flow", modality="skip") if skipping else Interval(first_s, "recover", modality="joint-work")
    )
    shadow = Interval(shadow_s, "flow", modality="shadow")
    return Part("Warm-up", Sequence((first, shadow, Interval(60, "rest"))), "warm-up")


def cool_down(shadow_s: int, stretching_s: int = 0) -> Part:
    """Light shadow; then stretching, where there is time for it."""
    shadow = Interval(shadow_s, "recover", modality="shadow")
    if not stretching_s:
        return Part("Cool-down", shadow, "cool-down")
    tree = Sequence((shadow, Interval(stretching_s, "recover", modality="stretching")))
    return Part("Cool-down", tree, "cool-down")
