"""Writing a tree as shorthand, in one canonical form: `read(write(tree)) == tree`."""

from dataclasses import replace
from typing import Any

from yoisho.session import kit
from yoisho.session.clock import clock
from yoisho.session.interval import Interval
from yoisho.session.modality import MODALITIES
from yoisho.session.shorthand.settle import HARDLY_SECONDS
from yoisho.session.tree import Node, Repeat, Sequence
from yoisho.strikes import notation
from yoisho.strikes.schools import DEFAULT_SCHOOL
from yoisho.strikes.tempo import TEMPOS


def _dose(interval: Interval) -> str:
    countable = interval.modality is not None and MODALITIES[interval.modality].rep_s is not None
    if interval.reps:
        steps = "-".join(str(step) for step in interval.reps)
        return steps if countable and len(interval.reps) == 1 else f"{steps} reps"
    assert interval.seconds is not None
    if interval.open_ended:
        return f"open {clock(interval.seconds)}"
    if interval.seconds >= 60 or countable:
        return clock(interval.seconds)
    return f"{interval.seconds}s" if interval.seconds <= HARDLY_SECONDS else str(interval.seconds)


def _modalities(interval: Interval) -> list[str]:
    return [MODALITIES[interval.modality].word] if interval.modality else []


def _interval(interval: Interval, school_id: str) -> str:
    """The dose, then the effort (left out where the modality alone says it), then all else in one order."""
    own = MODALITIES[interval.modality] if interval.modality else None
    told = own is not None and not own.strikes and own.tempo == interval.tempo
    words = [_dose(interval), *([] if told else [TEMPOS[interval.tempo].word])]
    if interval.demand_percent is not None:
        words.append(f"at {interval.demand_percent} %")
    if interval.per_min is not None:
        words.append(f"at {interval.per_min} a minute")
    if interval.power_percent is not None:
        words.append("half power" if interval.power_percent == 50 else f"{interval.power_percent} % power")
    words += _modalities(interval)
    if interval.drill:
        words.append(f"[{notation.write_drill(interval.drill, school_id)}]")
    if interval.reset_s is not None:
        words.append(f"reset {interval.reset_s}" if interval.reset_s else "no reset")
    if interval.lead:
        words.append(f"{interval.lead} lead")
    if interval.switch is not None:
        every = interval.switch if isinstance(interval.switch, int) else None
        words.append(f"switch every {clock(every)}" if every else f"switch {_SWITCHES[str(interval.switch)]}")
    words += [f'call "{cue.text.strip()}" every {clock(cue.every_s)}' for cue in interval.cues]
    if interval.beat:
        words.append(f"to {interval.beat.per_min} beats{_TIMES[interval.beat.strikes]}")
    if interval.band:
        words.append(f"@{interval.band.low}-{interval.band.high}%HR")
    words += _kit(interval.gloves, interval.kit)
    if interval.pairs:
        words.append("in pairs")
    return " ".join(words)


def _kit(gloves: str | None, items: tuple[str, ...]) -> list[str]:
    return [f"in {word}" if word in _WORN else f"with {word}" for word in kit.words(gloves, items)]


_WORN = frozenset(gloves.word for gloves in kit.GLOVES.values() if gloves.brought)
_SWITCHES = {"half": "at half", "call": "on call"}
_TIMES: dict[float, str] = {0.5: " half time", 1: "", 2: " double time"}


def work_of(node: Node) -> list[Interval]:
    """Every work interval of the tree, in order, repetitions once."""
    match node:
        case Interval():
            return [node] if node.kind == "work" else []
        case Sequence():
            return [interval for item in node.items for interval in work_of(item)]
        case Repeat():
            return work_of(node.body)


def _without(node: Node, names: tuple[str, ...]) -> Node:
    match node:
        case Interval():
            if node.kind != "work":
                return node
            return replace(node, **{name: UNSAID[name] for name in names})
        case Sequence():
            return Sequence(tuple(_without(item, names) for item in node.items))
        case Repeat():
            return replace(node, body=_without(node.body, names))


def _shared(body: Node) -> tuple[str, ...]:
    """What all the work of a bracket has in common, to be said once behind it: modality, kit, pairs."""
    work = work_of(body)
    if len(work) < 2:
        return ()
    names = []
    if (
        work[0].modality
        and MODALITIES[work[0].modality].strikes
        and all(one.modality == work[0].modality for one in work)
    ):
        names.append("modality")
    common = ("gloves", "kit", "pairs")
    names += [name for name in common if getattr(work[0], name) and len({getattr(one, name) for one in work}) == 1]
    return tuple(names)


UNSAID: dict[str, Any] = {"modality": None, "gloves": None, "kit": (), "pairs": False}


def _bracket(body: Node, school_id: str) -> str:
    shared = _shared(body)
    first = work_of(body)[0] if shared else None
    inner = _without(body, shared) if shared else body
    items = inner.items if isinstance(inner, Sequence) else (inner,)
    words = [f"({', '.join(_item(item, school_id) for item in items)})"]
    if first and "modality" in shared:
        words += _modalities(first)
    if first:
        words += _kit(first.gloves if "gloves" in shared else None, first.kit if "kit" in shared else ())
    if "pairs" in shared:
        words.append("in pairs")
    return " ".join(words)


def _item(node: Node, school_id: str) -> str:
    match node:
        case Interval():
            return _interval(node, school_id)
        case Sequence():
            return _bracket(node, school_id)
        case Repeat():
            return f"{node.count} × {_bracket(node.body, school_id)}{_between(node.between)}"


def _between(pause: Interval | None) -> str:
    if pause is None:
        return ""
    return " ".join(["", TEMPOS[pause.tempo].word, clock(pause.length_s()), *_modalities(pause)])


def _row_item(node: Node, school_id: str) -> str:
    """Where no bracket is around it: a ladder that nothing repeats needs one, or each step would be a round."""
    text = _item(node, school_id)
    return f"({text})" if isinstance(node, Interval) and len(node.reps) > 1 else text


def write(node: Node, school_id: str = DEFAULT_SCHOOL) -> str:
    """The canonical form, with punches numbered as the school does."""
    if not isinstance(node, Sequence):
        return _row_item(node, school_id)
    text = _row_item(node.items[0], school_id)
    for item in node.items[1:]:
        plain = isinstance(item, Interval) and item.tempo == "rest" and item == Interval(item.seconds, "rest")
        after = f"; then {clock(item.length_s())}" if plain and isinstance(item, Interval) else ""
        text += after or f", {_row_item(item, school_id)}"
    return text
