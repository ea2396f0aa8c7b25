"""Reading a line of shorthand: text to tree.

A rest behind a repeat stands between repetitions only; a rest inside the brackets belongs to every repetition; `then`
comes after the last. Bare numbers are seconds.
"""

import re
from collections.abc import Callable
from functools import cache
from typing import Any

from lark import Lark, Token, Transformer, UnexpectedInput, v_args

from yoisho.session.interval import Beat, HeartBand, Interval, RepeatingCue
from yoisho.session.modality import MODALITIES, modality_spellings
from yoisho.session.shorthand.faults import ShorthandError, explain, placed, unknown
from yoisho.session.shorthand.grammar import parser, squeezed
from yoisho.session.shorthand.settle import Dose, Item, in_passes, of_what, settle, within_group
from yoisho.session.tree import MOST_REPEATS, Node, check_size, sequence
from yoisho.strikes import notation
from yoisho.strikes.drill import Drill, one
from yoisho.strikes.schools import DEFAULT_SCHOOL
from yoisho.strikes.tempo import LADDER, TEMPOS, tempo_spellings

LONGEST_TEXT = 20_000
MOST_KNOWN = 5_000


@cache
def _tempos() -> dict[str, str]:
    return {squeezed(known): tempo for known, tempo in tempo_spellings().items()} | {"r": "rest"}


@cache
def _modalities() -> dict[str, str]:
    return {squeezed(known): modality for known, modality in modality_spellings().items()}


def _spelled(modifier: Any) -> Any:
    return (modifier.type, str(modifier)) if isinstance(modifier, Token) else modifier


def _bound(token: Token, most: int, what: str) -> int:
    if len(token) > 6 or int(token) > most:
        raise ShorthandError(f"{token[:12]} is too long a number for {what}.", token.start_pos or 0)
    return int(token)


class _Reader(Transformer[Token, Node]):
    """Makes nodes as the parser goes; the meaning of bare numbers is settled where the neighbours are known."""

    def __init__(self, school_id: str):
        super().__init__()
        self.school_id = school_id
        self.known: dict[tuple[Any, ...], Node] = {}
        """Intervals read before, by how they are written: most lines say the same thing again and again."""

    @v_args(inline=True)
    def dose(self, number: Token, unit: Token | None = None) -> Dose:
        position = number.start_pos or 0
        if unit is not None and unit.type == "REPS":
            steps = re.split(r"\s*-\s*", number)
            if any(len(step) > 5 for step in steps):
                raise ShorthandError(f"{number[:12]} is too long a number for reps.", position)
            return Dose(position, reps=tuple(int(step) for step in steps), strikes=unit.lower() == "strikes")
        if number.type == "CLOCK":
            minutes, seconds = re.split("[:']", number)
            if int(seconds) > 59:
                raise ShorthandError(f"{number} is not a time: seconds go from 00 to 59.", position, ("m:ss",))
            return Dose(position, 60 * _bound(Token("NUMBER", minutes, position), 10**6, "a time") + int(seconds))
        minute = 60 if unit is not None and (unit.lower().startswith("m") or unit == "'") else 1
        return Dose(position, _bound(number, 10**6, "a time") * minute, bare=unit is None)

    def _modifier(self, token: Token) -> tuple[str, Any]:
        position = token.start_pos or 0
        with placed(position):
            match token.type:
                case "EFFORT" | "PAUSE" | "PAUSE_FOR":
                    return "tempo", _tempos()[squeezed(re.sub(r"\s+for\s*$", "", token))]
                case "MEANS":
                    return "modality", _modalities()[
                        squeezed(re.sub(r"^(on|with)\s+(the\s+|a\s+)?", "", token.lower()))
                    ]
                case "DRILL":
                    return "drill", self._drill(token[1:-1], position + 1)
                case "COMBINATION":
                    return "drill", one(self._within(notation.read, str(token), position))
                case "LEAD":
                    left = token.lower().startswith(("left", "orthodox"))
                    return "lead", "left" if left else "right"
                case "PAIRS":
                    return "pairs", True
                case "AT_PERCENT":
                    return "demand_percent", _number_in(token)
                case "PER_MINUTE":
                    return "per_min", _number_in(token)
                case "POWER":
                    return "power_percent", 50 if token.lower().startswith("half") else _number_in(token)
                case _:
                    low, high = (int(number) for number in re.findall(r"\d+", token)[:2])
                    return "band", HeartBand(low, high)

    def _within(self, read: Callable[[str, str], Any], text: str, position: int) -> Any:
        try:
            return read(text, self.school_id)
        except notation.NotationError as error:
            raise error.moved(position, ShorthandError) from error

    def _drill(self, text: str, position: int) -> Drill:
        found: Drill = self._within(notation.read_drill, text, position)
        return found

    @v_args(inline=True)
    def switch(self, word: Token, how: Token, every: Dose | None = None) -> tuple[str, Any]:
        if how.type == "EVERY":
            return "switch", self._seconds(every, word)
        return "switch", "half" if how.type == "HALF" else "call"

    @v_args(inline=True)
    def cue(self, word: Token, text: Token, _every: Token, dose: Dose) -> tuple[str, Any]:
        with placed(word.start_pos or 0):
            return "cues", RepeatingCue(text.strip('"').strip(), self._seconds(dose, word))

    def _seconds(self, dose: Dose | None, token: Token) -> int:
        if dose is None or dose.seconds is None:
            raise ShorthandError("Every so many seconds, not reps: give a time such as 0:15.", token.start_pos or 0)
        return dose.seconds

    @v_args(inline=True)
    def beat(self, number: Token, rate: Token | None = None) -> tuple[str, Any]:
        per_min = int(re.findall(r"\d+", number)[0][:6])
        strikes = {"h": 0.5, "s": 1, "d": 2}[rate[0].lower()] if rate else 1
        with placed(number.start_pos or 0):
            return "beat", Beat(per_min, strikes)

    @v_args(inline=True)
    def unknown(self, word: Token) -> None:
        raise unknown(word)

    def _said(self, modifiers: list[object]) -> dict[str, Any]:
        """What the words behind a dose or a bracket say, by field; a cue may come more than once."""
        said: dict[str, Any] = {}
        for modifier in modifiers:
            name: str
            value: Any
            name, value = self._modifier(modifier) if isinstance(modifier, Token) else modifier  # type: ignore[misc]
            if name == "cues":
                said["cues"] = (*said.get("cues", ()), value)
            elif name in said:
                place = (modifier.start_pos or 0) if isinstance(modifier, Token) else 0
                raise ShorthandError(f"Two words for the same thing: the {_CALLED[name]} is said twice.", place)
            else:
                said[name] = value
        return said

    def _interval(self, dose: Dose, said: dict[str, Any]) -> Interval:
        if "tempo" not in said and "modality" not in said and "demand_percent" in said:
            said["tempo"] = _nearest(said["demand_percent"])
        if "tempo" not in said:
            said["tempo"] = MODALITIES[said["modality"]].tempo if "modality" in said else "freestyle"
        counted = dose.bare and "modality" in said and MODALITIES[said["modality"]].rep_s is not None
        with placed(dose.position):
            if counted:
                made = Interval(None, reps=(dose.seconds or 0,), **said)
            else:
                made = Interval(dose.seconds, reps=dose.reps, **said)
            return in_passes(made, dose.position) if dose.strikes else made

    def interval(self, children: list[Any]) -> Item:
        dose, *modifiers = children
        key = (dose.seconds, dose.reps, dose.bare, dose.strikes, *map(_spelled, modifiers))
        known = self.known.get(key)
        if known is None:
            item = self._item(dose, modifiers)
            if item.node is not None and len(self.known) < MOST_KNOWN:
                self.known[key] = item.node
            return item
        return Item(known, position=dose.position)

    def _item(self, dose: Dose, modifiers: list[Any]) -> Item:
        said = self._said(modifiers)
        if not said and dose.seconds is not None:
            return Item(None, dose=dose, position=dose.position)
        if not {"tempo", "modality", "drill", "beat", "per_min", "demand_percent", "power_percent"} & said.keys():
            raise of_what(dose)
        return Item(self._interval(dose, said), position=dose.position)

    @v_args(inline=True)
    def pause_first(self, pause: Token, dose: Dose, modality: Token | None = None) -> Item:
        return Item(self.between(pause, dose, modality), position=pause.start_pos or 0)

    def _pause(self, pause: Token, dose: Dose, modality: Token | None = None) -> Interval:
        return self._interval(dose, self._said([pause] if modality is None else [pause, modality]))

    between = v_args(inline=True)(_pause)

    def group(self, children: list[Any]) -> Item:
        node, *modifiers = children
        said = self._said(modifiers)
        position = next((m.start_pos or 0 for m in modifiers if isinstance(m, Token)), 0)
        for name in said:
            if name not in _OF_GROUPS:
                words = f"The {_CALLED[name]} is said for each interval, inside the brackets."
                raise ShorthandError(words, position)
        with placed(position):
            return Item(within_group(node, said) if said else node, bracketed=True)

    @v_args(inline=True)
    def times(self, number: Token, _times: Token) -> Token:
        return number

    def item(self, children: list[object]) -> Item:
        item = next(child for child in children if isinstance(child, Item))
        tokens = [child for child in children if isinstance(child, Token)]
        late = [token for token in tokens if token.type in ("BAND", "PAIRS")]
        if late and item.node is not None:
            with placed(late[0].start_pos or 0):
                item.node = within_group(item.node, self._said([*late]))
        for count in (token for token in tokens if token not in late):
            if len(count) > 4 or not 1 <= int(count) <= MOST_REPEATS:
                raise ShorthandError(f"A repeat runs from 1 to 200 times, not {count}.", count.start_pos or 0)
            item.counts.append(int(count))
        item.between = next((child for child in children if isinstance(child, Interval)), None)
        return item

    def sequence(self, children: list[object]) -> Node:
        items: list[Item] = []
        joins: list[str] = []
        said = ""
        for child in children:
            if isinstance(child, Item):
                items.append(child)
                joins.append(said)
                said = "/"
            elif isinstance(child, Token) and said != "then":
                said = "then" if child.type == "THEN" else child[0]
        if said == "then":
            last = next(child for child in reversed(children) if isinstance(child, Token) and child.type == "THEN")
            raise ShorthandError("Then what? A time stands behind it, such as then 1:00.", last.start_pos or 0)
        with placed(items[0].position):
            return sequence(settle(items, joins))

    def start(self, children: list[Node]) -> Node:
        return children[0]


def _number_in(token: Token) -> int:
    return int(re.findall(r"\d+", token)[0][:6])


def _nearest(percent: int) -> str:
    """The word on the ladder that comes nearest to a demand [% of VO2max]."""
    return min(LADDER, key=lambda tempo: abs(TEMPOS[tempo].demand_frac - percent / 100))


_CALLED = {"tempo": "effort", "modality": "means", "drill": "combination", "lead": "lead side",
           "pairs": "word pairs", "band": "heart-rate target", "switch": "side switch", "beat": "beat",
           "cues": "cue", "per_min": "number of strikes a minute", "demand_percent": "percentage",
           "power_percent": "power of a strike"}  # fmt: skip
_OF_GROUPS = ("modality", "drill", "lead", "pairs", "band", "switch")
"""What may be said once behind a bracket, for all the work inside that does not say it itself."""


@cache
def parser_in(school_id: str) -> Lark:
    """The parser that makes nodes, for a numbering school."""
    return parser(_Reader(school_id))


def read(text: str, school_id: str = DEFAULT_SCHOOL) -> Node:
    """The tree that a line of shorthand means; the school says which punches its numbers are.

    Raises `ShorthandError` with the character at fault, what was expected there, and an example.
    """
    if not text.strip():
        raise ShorthandError("Nothing to read yet: type a pattern.", 0, ("a number",))
    if len(text) > LONGEST_TEXT:
        raise ShorthandError(f"A pattern has at most {LONGEST_TEXT} characters.", LONGEST_TEXT)
    try:
        with placed(0):
            node: Node = parser_in(school_id).parse(text)  # type: ignore[assignment]
            check_size(node)
    except UnexpectedInput as error:
        raise explain(text, error) from error
    except RecursionError:
        raise ShorthandError("Brackets go at most 12 deep; split the session into parts.", 0) from None
    return node
