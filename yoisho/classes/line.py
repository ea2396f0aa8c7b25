"""A class from one line, as a coach says it: "20/10 for Thursday, 14 people, 6 bags, 25 min with warm-up"."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from datetime import date, time, timedelta
from typing import Any

from yoisho.classes.asked import STATIONS, SchoolId
from yoisho.judgement.targets import TARGETS
from yoisho.rotation.group import ClassError
from yoisho.session.modality import MODALITIES, modality_spellings
from yoisho.session.purposes import purpose_spellings
from yoisho.session.shorthand import ShorthandError, read, write
from yoisho.strikes.combination import CombinationError
from yoisho.strikes.line import LineError
from yoisho.strikes.notation import read as read_combination
from yoisho.strikes.schools import DEFAULT_SCHOOL
from yoisho.strikes.tempo import TEMPOS, tempo_spellings

LONGEST_LINE = 300
HARD = "power"
"""How hard work is of which nothing is said: people of a class differ, and all out is for those who are ready."""
DAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")
_SCHOOLS: dict[str, SchoolId] = {
    r"(?:2|two)[ -]on[ /-]+(?:2|two)[ -]off|in (?:two )?halves|two halves": "halves",
    r"in waves|waves": "waves",
    r"(?:2|two) (?:at|to|on) a bag|pairs? on a bag|in pairs": "pairs",
    r"circuit(?: of stations)?": "circuit",
    r"(?:to|on) the (?:beat|music)|to music|beat[ -]led": "beat",
}
_FILLERS = frozenset(
    ("a", "all", "an", "and", "at", "class", "each", "everybody", "fit", "for", "in", "is", "of", "on", "our", "people",
     "session", "short", "the", "to", "total", "us", "we", "with")
)  # fmt: skip


@dataclass(frozen=True)
class Understood:
    text: str
    """As it stands in the line."""
    meaning: str


@dataclass
class Line:
    """What was read of a line: fields of a class, in its own names, and what they were read from."""

    fields: dict[str, Any] = field(default_factory=dict)
    group: str | None = None
    on: date | None = None
    at: time | None = None
    understood: list[Understood] = field(default_factory=list)
    unread: list[str] = field(default_factory=list)


def _number(name: str, words: str, meaning: str) -> tuple[str, str, str]:
    return name, words, meaning


_NUMBERS = (
    _number("warm_up_min", r"(\d+) ?(?:-?min(?:ute)?s?|') (?:of )?warm[ -]?up", "{0} min warm-up"),
    _number("cool_down_min", r"(\d+) ?(?:-?min(?:ute)?s?|') (?:of )?cool[ -]?down", "{0} min cool-down"),
    _number("minutes", r"(\d+) ?(?:-?min(?:ute)?s?\b|')(?: in all| all in)?", "{0} minutes in all"),
    _number(
        "count",
        r"(\d+) (?:people|persons?|athletes?|boxers?|kickboxers?|fighters?|kids|juniors|adults|beginners)",
        "{0} people",
    ),
    _number("pad_pairs", r"(\d+) (?:pad pairs?|pairs? of pads|sets? of pads|pads)", "{0} pairs of pads"),
    _number("bags", r"(\d+) (?:heavy |hanging )?bags?", "{0} bags"),
    _number("floor", r"(\d+) (?:floor )?(?:spots|places)(?: on the floor)?", "{0} floor spots"),
    _number("waves", r"(\d+) waves", "{0} waves"),
    _number("beats", r"(\d+) (?:beats(?: a minute)?|bpm)", "music of {0} beats a minute"),
)


class _Reader:
    def __init__(self, text: str, today: date, groups: Sequence[str], school: str):
        if not text.strip():
            raise ClassError('say what the class is, such as "20/10 for Thursday, 14 people, 6 bags, 25 min"', "line")
        if len(text) > LONGEST_LINE:
            raise ClassError(f"a line has at most {LONGEST_LINE} characters", "line")
        self.left, self.today, self.groups, self.school = text.strip(), today, groups, school
        self.found = Line()

    def take(self, pattern: str) -> re.Match[str] | None:
        """The first place where it stands, taken out of the line."""
        match = re.search(rf"(?<![\w:/-])(?:{pattern})(?![\w:])", self.left, re.IGNORECASE)
        if match:
            self.left = f"{self.left[: match.start()]} , {self.left[match.end() :]}"
        return match

    def say(self, text: str, meaning: str) -> None:
        self.found.understood.append(Understood(text.strip(" ,"), meaning))

    def read(self) -> Line:
        self._combination()
        self._group()
        self._day()
        for name, pattern, meaning in _NUMBERS:
            if match := self.take(pattern):
                self.found.fields[name] = int(match[1])
                self.say(match[0], meaning.format(match[1]))
        self._warm_up()
        if match := self.take(r"(?:the )?coach (?:holds|has to hold|must hold)"):
            self.found.fields["coach_holds"] = True
            self.say(match[0], "the coach holds for one")
        for pattern, school in _SCHOOLS.items():
            if match := self.take(pattern):
                self.found.fields["school"] = school
                self.say(match[0], f"{school}")
        self._purpose()
        self._ratio()
        self._rest()
        return self.found

    def _combination(self) -> None:
        match = re.search(r"\[([^\[\]]+)\]", self.left)
        if match is None:
            return
        try:
            found = read_combination(match[1], self.school)
        except (LineError, CombinationError) as error:
            raise ClassError(f"the combination {match[0]}: {error}", "line") from error
        self.left = f"{self.left[: match.start()]} , {self.left[match.end() :]}"
        self.found.fields["combination"] = found
        self.say(match[0], "what is shown and struck")

    def _group(self) -> None:
        """The longest name of a group that stands in the line, with or without the words around it."""
        for name in sorted(self.groups, key=len, reverse=True):
            if match := self.take(rf"(?:for )?(?:the )?{re.escape(name)}(?:['’]s?)?"):
                self.found.group = name
                self.say(match[0], f"the group {name}")
                return

    def _day(self) -> None:
        if match := self.take(
            r"(?:for |on )?(today|tonight|tomorrow|\d{4}-\d\d-\d\d|" + "|".join(DAYS) + r")(?:['’]s)?"
        ):
            said = match[1].lower()
            if said[0].isdigit():
                try:
                    self.found.on = date.fromisoformat(said)
                except ValueError as error:
                    raise ClassError(f"there is no {said} in the calendar", "line") from error
            elif said in DAYS:
                self.found.on = self.today + timedelta(days=(DAYS.index(said) - self.today.weekday()) % 7)
            else:
                self.found.on = self.today + timedelta(days=said == "tomorrow")
            self.say(match[0], f"{self.found.on:%A} {self.found.on.day} {self.found.on:%B}")
        if match := self.take(r"(?:at|from) (\d{1,2})[:.](\d\d)|(\d{1,2})(?:[:.](\d\d))? ?(am|pm)"):
            hour, minute = int(match[1] or match[3]), int(match[2] or match[4] or 0)
            hour = hour % 12 + 12 if (match[5] or "").lower() == "pm" else hour
            if hour > 23 or minute > 59:
                raise ClassError(f"'{match[0]}' is no hour of the day", "line")
            self.found.at = time(hour, minute)
            self.say(match[0], f"at {self.found.at:%H:%M}")

    def _warm_up(self) -> None:
        for name, word, usual in (("warm_up_min", "warm", 5), ("cool_down_min", "cool", 3)):
            side = "up" if word == "warm" else "down"
            if match := self.take(rf"(?:with(?: an?)?|and(?: an?)?|incl(?:uding|\.)?) {word}[ -]?{side}"):
                self.found.fields.setdefault(name, usual)
                self.say(match[0], f"{self.found.fields[name]} min {word}-{side} in it")
            elif match := self.take(rf"(?:no|without(?: an?)?) {word}[ -]?{side}"):
                self.found.fields[name] = 0
                self.say(match[0], f"no {word}-{side}")

    def _purpose(self) -> None:
        known = {word: id_ for word, id_ in purpose_spellings().items() if id_ in TARGETS}
        efforts = tempo_spellings()
        for word in sorted(known, key=len, reverse=True):
            # What is also said of an effort is a purpose only where it is said so.
            said = "(?:for |to train )" if word in efforts else "(?:for |to train )?"
            if match := self.take(rf"{said}{re.escape(word)}"):
                self.found.fields["target"] = known[word]
                self.say(match[0], f"for {TARGETS[known[word]].name}")
                return

    def _ratio(self) -> None:
        """Work and rest in seconds, such as 20/10; how hard, where it is said."""
        words = {word: id_ for word, id_ in tempo_spellings().items() if TEMPOS[id_].kind == "work"}
        effort = "|".join(re.escape(word) for word in sorted(words, key=len, reverse=True))
        if match := self.take(rf"(\d+) ?/ ?(\d+)(?: ?s(?:ec(?:onds)?)?)?(?: ({effort}))?"):
            work, rest = int(match[1]), int(match[2])
            tempo = words[match[3].lower()] if match[3] else HARD
        elif match := self.take(rf"tabata(?: ({effort}))?"):
            work, rest, tempo = 20, 10, words[match[1].lower()] if match[1] else HARD
        else:
            return
        if not 1 <= work <= 3600 or not 1 <= rest <= 3600:
            raise ClassError(f"'{match[0].strip()}': work and rest are 1 to 3600 seconds", "line")
        text = f"{work}s {TEMPOS[tempo].word}, {rest}s rest"
        self.found.fields["pattern"] = read(text)
        self.say(match[0], f"{work} s {TEMPOS[tempo].word}, {rest} s rest")

    def _rest(self) -> None:
        """Stations off the bag, and shorthand; what is neither is told as not read."""
        spelled = modality_spellings()
        for piece in _pieces(self.left):
            known = spelled.get(piece.lower())
            if known in STATIONS or (known and not MODALITIES[known].strikes):
                self.found.fields["stations"] = (*self.found.fields.get("stations", ()), known)
                self.say(piece, f"{MODALITIES[known].word}, off the bag")
            elif "pattern" not in self.found.fields and (tree := self._tree(piece)) is not None:
                self.found.fields["pattern"] = tree
                self.say(piece, write(tree, self.school))
            else:
                self.found.unread.append(piece)

    def _tree(self, piece: str) -> Any:
        try:
            return read(piece, self.school, HARD)
        except (ShorthandError, LineError):
            return None


def _pieces(left: str) -> Iterator[str]:
    for piece in re.split(r"[,;]+|\.(?=\s|$)", left):
        words = piece.split()
        while words and words[0].lower().strip(".") in _FILLERS:
            words.pop(0)
        while words and words[-1].lower().strip(".") in _FILLERS:
            words.pop()
        if words:
            yield " ".join(words)


def read_line(text: str, today: date, groups: Sequence[str] = (), school: str = DEFAULT_SCHOOL) -> Line:
    """What a line says of a class; what is not understood stands in `unread`.

    Raises `ClassError` for what cannot be.
    """
    return _Reader(text, today, groups, school).read()
