"""Work made from a combination: pyramids, ladders, rounds that add."""

from yoisho.strikes.combination import Action, Combination, CombinationError


def pyramid(combination: Combination) -> tuple[Combination, ...]:
    """1; 1, 2; 1, 2, 3; ... : n techniques give n(n+1)/2 in all."""
    actions = combination.actions
    return tuple(Combination((actions[:length],)) for length in range(1, len(actions) + 1))


def pyramid_with_finish(combination: Combination, finish: Combination) -> tuple[Combination, ...]:
    """The pyramid, each step ended by the same finish."""
    return tuple(Combination((step.actions + finish.actions,)) for step in pyramid(combination))


def ladder(one: Action, counts: tuple[int, ...]) -> tuple[Combination, ...]:
    """The same technique so many times, step by step, such as 9, 7, 5, 3. Raises `CombinationError` for none."""
    if not counts or min(counts) < 1:
        raise CombinationError("a ladder needs steps of at least one, such as 9, 7, 5, 3")
    return tuple(Combination(((one,) * count,)) for count in counts)


def joined(combinations: tuple[Combination, ...]) -> Combination:
    """One after the other, as groups that follow on `then`."""
    return Combination(tuple(group for each in combinations for group in each.groups))


def adding_rounds(additions: tuple[Combination, ...]) -> tuple[Combination, ...]:
    """Every round adds a combination to those before; the last is the recap of all."""
    return tuple(joined(additions[: number + 1]) for number in range(len(additions)))


def alternating(one: Combination, ones: int, other: Combination, others: int, times: int = 1) -> Combination:
    """So many of the one, so many of the other, in turn: four left, four right; three of power, five of speed."""
    if min(ones, others, times) < 1:
        raise CombinationError("alternate at least one of each, at least once")
    return Combination(((one.actions * ones + other.actions * others) * times,))


def medley(combinations: tuple[Combination, ...], each: int) -> Combination:
    """So many of each, one after the other."""
    if each < 1:
        raise CombinationError("a medley has at least one of each")
    return Combination(tuple(one.actions * each for one in combinations))
