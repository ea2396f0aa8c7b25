"""What a tree means in plain words: what is shown under a line as it is typed."""

from yoisho.session import kit
from yoisho.session.clock import clock
from yoisho.session.interval import Interval
from yoisho.session.modality import MODALITIES
from yoisho.session.tree import Node, Repeat, Sequence, duration_s
from yoisho.strikes.drill import Drill
from yoisho.strikes.notation import calls
from yoisho.strikes.tempo import TEMPOS

_ORDERS = {"turns": "in turn", "draw": "drawn by lot", "adding": "adding one each time", "pyramid": "as a pyramid"}


def _dose(interval: Interval) -> str:
    if len(interval.reps) > 1:
        steps = ", ".join(str(step) for step in interval.reps[:-1])
        return f"{steps}, then {interval.reps[-1]} reps"
    if interval.reps:
        about = clock(interval.length_s())
        return f"{interval.reps[0]} reps (about {about})"
    return f"{'about ' if interval.open_ended else ''}{clock(interval.length_s())}"


def _drill(drill: Drill) -> str:
    said = [", ".join(calls(each)) for each in drill.combinations]
    if len(said) == 1 and drill.order == "turns":
        return f": {said[0]}"
    recall = ", the last recalls all" if drill.recall else ""
    return f", {_ORDERS[drill.order]}{recall}: {'; '.join(said)}"


def _interval(interval: Interval) -> str:
    tempo = TEMPOS[interval.tempo]
    words = [_dose(interval)]
    own = MODALITIES[interval.modality] if interval.modality else None
    if own is None or interval.doing != (own.word, ""):
        words.append(tempo.word)
    if own:
        words.append(f"on {own.word}" if own.strikes and own.id not in ("shadow", "partner", "pads") else own.word)
    if interval.demand_percent is not None:
        words.append(f"at {interval.demand_percent} % of VO2max")
    if interval.per_min is not None:
        words.append(f"at {interval.per_min} strikes a minute")
    if interval.power_percent is not None:
        words.append("at half power" if interval.power_percent == 50 else f"at {interval.power_percent} % power")
    text = " ".join(words)
    if interval.open_ended:
        text += ", until you end it"
    if interval.lead:
        text += f", {interval.lead} side in front"
    if interval.switch is not None:
        how = {"half": "at half time", "call": "on your call"}.get(str(interval.switch), "")
        text += f", sides change {how or 'every ' + clock(int(interval.switch))}"
    for cue in interval.cues:
        text += f", “{cue.text}” called every {clock(cue.every_s)}"
    if interval.beat:
        times = {0.5: "half time", 1: "a strike on each", 2: "two on each"}[interval.beat.strikes]
        text += f", to {interval.beat.per_min} beats a minute, {times}"
    if interval.band:
        text += f", heart rate at {interval.band.low} to {interval.band.high} % of maximum"
    if interval.drill:
        text += _drill(interval.drill)
    if interval.reset_s is not None:
        text += f", {interval.reset_s} s between passes" if interval.reset_s else ", no pause between passes"
    if worn := kit.words(interval.gloves, interval.kit):
        text += f", with {' and '.join(worn)}"
    if interval.pairs:
        text += "; then the partner does the same while you rest"
    return text


def _said(node: Node) -> str:
    match node:
        case Interval():
            return _interval(node)
        case Sequence():
            return "; ".join(_said(item) for item in node.items)
        case Repeat():
            inner = _said(node.body)
            pause = node.between
            between = f", with {clock(pause.length_s())} of {pause.tempo} between" if pause else ""
            return f"{node.count} times ({inner}){between}"


def meaning(node: Node) -> str:
    """The tree in plain words, with its length; of reps an estimate, and said so."""
    about = "about " if _estimated(node) else ""
    return f"{_said(node)}. In all {about}{clock(duration_s(node))}."


def _estimated(node: Node) -> bool:
    match node:
        case Interval():
            return not node.timed
        case Sequence():
            return any(_estimated(item) for item in node.items)
        case Repeat():
            return _estimated(node.body)
