"""Reading a line of shorthand: text to tree.

A rest behind a repeat stands between repetitions only; a rest inside the brackets belongs to every repetition; `then`
comes after the last. Bare numbers are seconds.
"""

import re
from collections.abc import Callable
from dataclasses import replace
from functools import cache
from typing import Any

from lark import Lark, Token, Transformer, UnexpectedInput, v_args

from yoisho.session.interval import Beat, HeartBand, Interval, RepeatingCue
from yoisho.session.kit import kit_spellings
from yoisho.session.modality import MODALITIES, modality_spellings
from yoisho.session.shorthand.faults import (
    ShorthandError,
    UnknownWordError,
    explain,
    how_many,
    over_weeks,
    placed,
    unknown_in,
)
from yoisho.session.shorthand.grammar import parser, squeezed
from yoisho.session.shorthand.series import weeks
from yoisho.session.shorthand.settle import (
    OPEN_S,
    UNSAID,
    Dose,
    Item,
    in_passes,
    of_what,
    seconds_or_minutes,
    settle,
)
from yoisho.session.tree import MOST_REPEATS, Node, check_size, saying, sequence
from yoisho.strikes import notation
from yoisho.strikes.drill import Drill, one
from yoisho.strikes.line import position_of
from yoisho.strikes.schools import DEFAULT_SCHOOL
from yoisho.strikes.techniques import plurals, spellings
from yoisho.strikes.tempo import LADDER, TEMPOS, tempo_spellings

LONGEST_TEXT = 20_000
MOST_KNOWN = 5_000


@cache
def _tempos() -> dict[str, str]:
    return {squeezed(known): tempo for known, tempo in tempo_spellings().items()} | {"r": "rest"}


@cache
def _modalities() -> dict[str, str]:
    return {squeezed(known): modality for known, modality in modality_spellings().items()}


@cache
def _kit() -> dict[str, tuple[str, str]]:
    return {squeezed(known): said for known, said in kit_spellings().items()}


_KIT_BEFORE = re.compile(r"^(in|with|on)\s+(the\s+|a\s+)?", re.IGNORECASE)


def _spelled(modifier: Any) -> Any:
    return (modifier.type, str(modifier)) if isinstance(modifier, Token) else modifier[:2]


def _place(modifier: Any) -> int:
    """Where a word stands, or what a rule made of several: its field, its value and its place."""
    return position_of(modifier) if isinstance(modifier, Token) else int(modifier[2])


def _number(token: Token, what: str = "a time") -> int:
    """What is longer than anybody trains is refused unread: it may be thousands of digits."""
    if len(token) > 6:
        raise ShorthandError(f"{token[:12]} is too long a number for {what}.", position_of(token))
    return int(token)


def _is(child: object, kind: str) -> bool:
    return isinstance(child, Token) and child.type == kind


_BURST_PER_MIN = 120
"""Strikes a minute from which nobody means minutes: 4 all out is four seconds."""


class _Reader(Transformer[Token, Node]):
    """Makes nodes as the parser goes; the meaning of bare numbers is settled where the neighbours are known."""

    def __init__(self, school_id: str, unsaid: str | None = None):
        super().__init__()
        self.school_id, self.unsaid = school_id, unsaid
        self.known: dict[tuple[Any, ...], Node] = {}
        """Intervals read before, by how they are written: most lines say the same thing again and again."""

    @v_args(inline=True)
    def dose(self, number: Token | Dose, unit: Token | None = None) -> Dose:
        if isinstance(number, Dose):
            return number
        position = position_of(number)
        if number.type == "LADDER" or unit is not None:
            steps = re.split(r"\s*-\s*", number)
            if any(len(step) > 5 for step in steps):
                raise ShorthandError(f"{number[:12]} is too long a number for reps.", position)
            strikes = unit is not None and unit.lower() == "strikes"
            return Dose(position, reps=tuple(int(step) for step in steps), strikes=strikes)
        return Dose(position, _number(number), bare=True)

    @v_args(inline=True)
    def open_ended(self, word: Token, about: Token | Dose | None = None) -> Dose:
        found = self.dose(about) if about is not None else Dose(0, OPEN_S)
        return replace(found, position=position_of(word), open_ended=True)

    @v_args(inline=True)
    def timed(self, number: Token, unit: Token | None = None) -> Dose:
        position = position_of(number)
        if number.type == "CLOCK":
            minutes, seconds = re.split("[:']", number)
            if int(seconds) > 59:
                raise ShorthandError(f"{number} is not a time: seconds go from 00 to 59.", position, ("m:ss",))
            return Dose(position, 60 * _number(Token("NUMBER", minutes, position)) + int(seconds))
        minute = 60 if unit is not None and (unit.lower().startswith("m") or unit == "'") else 1
        return Dose(position, _number(number) * minute)

    def _modifier(self, token: Token) -> tuple[str, Any]:
        position = position_of(token)
        with placed(position):
            match token.type:
                case "EFFORT" | "PAUSE" | "PAUSE_FOR":
                    return "tempo", _tempos()[squeezed(re.sub(r"\s+for\s*$", "", token))]
                case "MODALITY":
                    return "modality", _modalities()[
                        squeezed(re.sub(r"^(on|with)\s+(the\s+|a\s+)?", "", token.lower()))
                    ]
                case "DRILL":
                    return "drill", self._drill(token[1:-1], position + 1)
                case "COMBINATION":
                    return "drill", one(self._within(notation.read, str(token), position))
                case "STRIKES":
                    return "drill", one(self._within(notation.read, _one_of(token), position))
                case "KIT":
                    return _kit()[squeezed(_KIT_BEFORE.sub("", token))]
                case "BETWEEN":
                    return "is_between", True
                case "LEAD":
                    left = token.lower().startswith(("left", "orthodox"))
                    return "lead", "left" if left else "right"
                case "PAIRS":
                    return "pairs", True
                case "AT_PERCENT":
                    return "demand_percent", _number_in(token)
                case "PER_MINUTE":
                    return "per_min", _number_in(token)
                case "RESET":
                    *minutes, seconds = (int(number[:6]) for number in re.findall(r"\d+", token) or ["0"])
                    return "reset_s", 60 * sum(minutes) + seconds
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
    def switch(self, word: Token, how: Token, every: Dose | None = None) -> tuple[str, Any, int]:
        if how.type == "EVERY":
            return "switch", self._seconds(every, word), position_of(word)
        return "switch", "half" if how.type == "HALF" else "call", position_of(word)

    @v_args(inline=True)
    def cue(self, word: Token, text: Token, _every: Token, dose: Dose) -> tuple[str, Any, int]:
        position = position_of(word)
        with placed(position):
            return "cues", RepeatingCue(text.strip('"').strip(), self._seconds(dose, word)), position

    def _seconds(self, dose: Dose | None, token: Token) -> int:
        if dose is None or dose.seconds is None or dose.open_ended:
            raise ShorthandError("Every so many seconds, not reps: give a time such as 0:15.", position_of(token))
        return dose.seconds

    @v_args(inline=True)
    def beat(self, number: Token, rate: Token | None = None) -> tuple[str, Any, int]:
        per_min = int(re.findall(r"\d+", number)[0][:6])
        strikes = {"h": 0.5, "s": 1, "d": 2}[rate[0].lower()] if rate else 1
        position = position_of(number)
        with placed(position):
            return "beat", Beat(per_min, strikes), position

    @v_args(inline=True)
    def how_many(self, strikes: Token) -> None:
        raise how_many(strikes)

    @v_args(inline=True)
    def unknown(self, word: Token) -> None:
        raise UnknownWordError(word)

    def _said(self, modifiers: list[Any]) -> dict[str, Any]:
        """What the words behind a dose or a bracket say, by field; a cue may come more than once."""
        said: dict[str, Any] = {}
        for modifier in modifiers:
            name, value = self._modifier(modifier) if isinstance(modifier, Token) else modifier[:2]
            if name in ("cues", "kit"):
                said[name] = (*said.get(name, ()), value)
            elif name in said:
                words = f"Two words for the same thing: the {_CALLED[name]} is said twice. "
                raise ShorthandError(words + "What comes next begins with a comma.", _place(modifier))
            else:
                said[name] = value
        return said

    def _interval(self, dose: Dose, said: dict[str, Any]) -> Interval:
        if "tempo" not in said and "modality" not in said and "demand_percent" in said:
            said["tempo"] = _nearest(said["demand_percent"])
        if "tempo" not in said:
            said["tempo"] = MODALITIES[said["modality"]].tempo if "modality" in said else "freestyle"
        counted = self._counted(dose, said)
        with placed(dose.position):
            if counted:
                made = Interval(None, reps=(dose.seconds or 0,), **said)
            else:
                made = Interval(dose.seconds, reps=dose.reps, open_ended=dose.open_ended, **said)
            return in_passes(made, dose.position) if dose.strikes else made

    @staticmethod
    def _counted(dose: Dose, said: dict[str, Any]) -> bool:
        """Whether a bare number counts: push-ups, or jabs right behind it."""
        modality = said.get("modality")
        return (
            dose.bare
            and not dose.open_ended
            and (dose.of_strikes or (modality is not None and MODALITIES[modality].rep_s is not None))
        )

    def interval(self, children: list[Any]) -> Item:
        dose, *modifiers = children
        first = modifiers[0] if modifiers else None
        dose.of_strikes = _is(first, "STRIKES")
        key = (dose.seconds, dose.reps, dose.bare, dose.strikes, dose.open_ended, *map(_spelled, modifiers))
        known = self.known.get(key)
        if known is None:
            item = self._item(dose, modifiers)
            if item.node is not None and not item.is_between and len(self.known) < MOST_KNOWN:
                self.known[key] = item.node
            return item
        return self._timed(Item(known, position=dose.position), dose)

    def _item(self, dose: Dose, modifiers: list[Any]) -> Item:
        said = self._said(modifiers)
        is_between = said.pop("is_between", False)
        if not said and dose.seconds is not None and not is_between:
            return Item(None, dose=dose, position=dose.position, time=dose)
        if not said and dose.strikes:
            said = {"tempo": UNSAID}
        if not {"tempo", "modality", "drill", "beat", "per_min", "demand_percent", "power_percent"} & said.keys():
            raise of_what(dose)
        strikes = next((modifier for modifier in modifiers if _is(modifier, "STRIKES")), None)
        if strikes is not None and dose.bare and not dose.of_strikes:
            raise _how_many(dose, strikes, said.get("tempo", UNSAID))
        item = Item(self._interval(dose, said), position=dose.position, is_between=is_between)
        return self._timed(item, dose)

    def _timed(self, item: Item, dose: Dose) -> Item:
        """With the length as it was typed, where that could be a slip; a burst is a matter of seconds."""
        node = item.node
        if isinstance(node, Interval) and not node.reps:
            burst = TEMPOS[node.tempo].strikes_per_min >= _BURST_PER_MIN
            item.time = None if burst and dose.unsure else dose
        return item

    @v_args(inline=True)
    def timed_so_often(self, dose: Dose, _times: Token, number: Token, *modifiers: Any) -> Item:
        item = self.interval([dose, *modifiers])
        item.counts.append(_so_often(number))
        return item

    @v_args(inline=True)
    def struck_so_often(self, struck: Token, _times: Token, number: Token, *modifiers: Any) -> Item:
        dose = Dose(position_of(struck), reps=(_number(number, "reps"),))
        return self.interval([dose, struck, *modifiers])

    def word_first(self, children: list[Any]) -> Item:
        at = next(index for index, child in enumerate(children) if isinstance(child, Dose))
        words = [*children[:at], *children[at + 1 :]]
        counts = [word for word in words if _is(word, "NUMBER")]
        item = self.interval([children[at], *(word for word in words if word not in counts)])
        item.counts += map(_so_often, counts)
        return item

    def pause_first(self, children: list[Any]) -> Item:
        found = self._pause(children)
        return Item(found.node, position=position_of(children[0]))

    def _pause(self, children: list[Any]) -> Item:
        pause, dose, *others = children
        if dose.unsure:
            raise seconds_or_minutes(dose)
        return self._item(dose, [pause, *others])

    def between(self, children: list[Any]) -> Node:
        node = self._pause(children).node
        assert node is not None
        return node

    def group(self, children: list[Any]) -> Item:
        node, *modifiers = children
        said = self._said(modifiers)
        position = next(map(_place, modifiers), 0)
        for name in said:
            if name not in _OF_GROUPS:
                words = f"The {_CALLED[name]} is said for each interval, inside the brackets."
                raise ShorthandError(words, position)
        with placed(position):
            return Item(saying(node, said) if said else node, bracketed=True)

    @v_args(inline=True)
    def afterwards(self, modifier: object) -> dict[str, Any]:
        return self._said([modifier])

    @v_args(inline=True)
    def times(self, number: Token, _times: Token) -> Token:
        return number

    def item(self, children: list[object]) -> Item:
        item = next(child for child in children if isinstance(child, Item))
        tokens = [child for child in children if isinstance(child, Token)]
        late = [token for token in tokens if token.type in ("BAND", "PAIRS")]
        if late and item.node is not None:
            with placed(position_of(late[0])):
                item.node = saying(item.node, self._said([*late]))
        for count in (token for token in tokens if token not in late):
            item.counts.append(_so_often(count))
        if item.counts and not item.bracketed and item.plain_rest:
            raise ShorthandError("Rounds of what? The work comes before its rest.", item.position, ("an effort",))
        item.between = next((child for child in children if isinstance(child, Interval)), None)
        return item

    def sequence(self, children: list[object]) -> Node:
        """A row that no bracket is around: a ladder in it is climbed once, a round for each step."""
        for item in children:
            if isinstance(item, Item) and item.alone_in_steps:
                item.counts.append(item.alone_in_steps)
        return self.inner(children)

    def inner(self, children: list[object]) -> Node:
        items: list[Item] = []
        joins: list[str] = []
        said = ""
        for child in children:
            if isinstance(child, dict):
                items[-1].say(child)
            elif isinstance(child, Item):
                items.append(child)
                joins.append(said)
                said = "/"
            elif isinstance(child, Token) and said != "then":
                said = "then" if child.type == "THEN" else child[0]
        if said == "then":
            last = next(child for child in reversed(children) if isinstance(child, Token) and child.type == "THEN")
            raise ShorthandError("Then what? A time stands behind it, such as then 1:00.", position_of(last))
        with placed(items[0].position):
            return sequence(settle(items, joins, self.unsaid))

    def start(self, children: list[Node]) -> Node:
        return children[0]


def _so_often(count: Token) -> int:
    if len(count) > 4 or not 1 <= int(count) <= MOST_REPEATS:
        raise ShorthandError(f"A repeat runs from 1 to 200 times, not {count}.", position_of(count))
    return int(count)


def _one_of(strikes: Token) -> str:
    """What is struck, in the notation's words: `low kicks` is a kick, low."""
    said = " ".join(strikes.lower().split())
    height, _, rest = said.partition(" ")
    if height in ("low", "body", "head", "high") and rest:
        said = f"{rest} {height}"
    known = spellings()
    for word in sorted(known, key=len, reverse=True):
        for many in plurals(word):
            if re.search(rf"(?<![a-z]){many}(?![a-z])", said):
                return said.replace(many, word)
    return said


def _how_many(dose: Dose, strikes: Token, tempo: str) -> ShorthandError:
    what = f"{TEMPOS[tempo].word} [{_one_of(strikes)}]"
    said = f"{dose.seconds} strikes, or {dose.seconds} seconds of them? Write {dose.seconds} reps {what} or "
    return ShorthandError(said + f"{dose.seconds}s {what}.", dose.position, ("reps", "s"))


def _number_in(token: Token) -> int:
    return int(re.findall(r"\d+", token)[0][:6])


def _nearest(percent: int) -> str:
    """The word on the ladder that comes nearest to a demand [% of VO2max]."""
    return min(LADDER, key=lambda tempo: abs(TEMPOS[tempo].demand_frac - percent / 100))


_CALLED = {"tempo": "effort", "modality": "modality", "drill": "combination", "lead": "lead side",
           "pairs": "word pairs", "band": "heart-rate target", "switch": "side switch", "beat": "beat",
           "cues": "cue", "per_min": "number of strikes a minute", "demand_percent": "percentage",
           "power_percent": "power of a strike", "reset_s": "reset", "gloves": "gloves", "kit": "kit"}  # fmt: skip
_OF_GROUPS = ("modality", "drill", "lead", "pairs", "band", "switch", "reset_s", "gloves", "kit")
"""What may be said once behind a bracket, for all the work inside that does not say it itself."""


@cache
def parser_in(school_id: str, unsaid: str | None = None) -> Lark:
    """The parser that makes nodes, for a numbering school and the effort of a time that says none."""
    return parser(_Reader(school_id, unsaid))


def read(text: str, school_id: str = DEFAULT_SCHOOL, unsaid: str | None = None) -> Node:
    """The tree that a line of shorthand means; the school says which punches its numbers are.

    `unsaid` is the effort of a time that says none, such as in a warm-up; None where it has to be said.

    Raises `ShorthandError` with the character at fault, what was expected there, and an example.
    """
    if not text.strip():
        raise ShorthandError("Nothing to read yet: type a pattern.", 0, ("a number",))
    if len(text) > LONGEST_TEXT:
        raise ShorthandError(f"A pattern has at most {LONGEST_TEXT} characters.", LONGEST_TEXT)
    sessions = weeks(text)
    if len(sessions) > 1:
        raise over_weeks(text, len(sessions))
    try:
        with placed(0):
            node: Node = parser_in(school_id, unsaid).parse(text)  # type: ignore[assignment]
            check_size(node)
    except UnexpectedInput as error:
        raise explain(text, error) from error
    except UnknownWordError as error:
        raise unknown_in(text, error.word) from None
    except RecursionError:
        raise ShorthandError("Brackets go at most 12 deep; split the session into parts.", 0) from None
    return node
