"""Help while a line is typed: what each word is, and what could come next. Both come from the grammar itself."""

import re
from dataclasses import dataclass
from functools import cache

from lark import Lark
from lark.exceptions import UnexpectedInput

from yoisho.session.kit import GLOVES, SAID
from yoisho.session.modality import MODALITIES
from yoisho.session.purposes import PURPOSES
from yoisho.session.shorthand.grammar import PAUSES, parser
from yoisho.strikes.line import position_of
from yoisho.strikes.techniques import TECHNIQUES
from yoisho.strikes.tempo import TEMPOS

MOST_OPTIONS = 12
_KINDS = {
    "effort": ("EFFORT",),
    "pause": ("PAUSE", "PAUSE_FOR"),
    "modality": ("MODALITY",),
    "strikes": ("DRILL", "COMBINATION"),
    "dose": (
        "NUMBER",
        "CLOCK",
        "LADDER",
        "UNIT",
        "REPS",
        "BEAT",
        "BAND",
        "AT_PERCENT",
        "PER_MINUTE",
        "POWER",
        "RESET",
        "OPEN",
    ),
    "frame": ("TIMES", "LPAR", "RPAR", "SEP", "THEN"),
    "word": ("LEAD", "PAIRS", "SWITCH", "HALF", "ON_CALL", "EVERY", "CALL", "QUOTED", "BEAT_TIME", "KIT"),
}
_KIND_OF = {token: kind for kind, tokens in _KINDS.items() for token in tokens}


@dataclass(frozen=True)
class Span:
    """A stretch of the line, and what it is."""

    start: int
    end: int
    kind: str
    """effort, pause, modality, strikes, dose, frame or word."""


@dataclass(frozen=True)
class Option:
    """Something that could be typed next."""

    text: str
    meaning: str


@dataclass(frozen=True)
class Completion:
    start: int
    """Where what is typed begins, that an option takes the place of."""
    options: tuple[Option, ...]


_EFFORTS = {"EFFORT", "PAUSE"}
_ONCE = ("MODALITY", "LEAD", "PAIRS", "BAND", "SWITCH", "BEAT", "AT_PERCENT", "PER_MINUTE", "POWER", "RESET")
_BARRED = {name: _EFFORTS for name in (*_EFFORTS, "PAUSE_FOR")} | {"RPAR": _EFFORTS | {"RESET"}} | {
    name: {name} for name in _ONCE
} | {"DRILL": {"DRILL", "COMBINATION"}, "COMBINATION": {"DRILL", "COMBINATION"}}  # fmt: skip
"""What is not said a second time behind each word."""
_BEGINS = ("NUMBER", "CLOCK", "LADDER", "SEP", "THEN", "LPAR", "RPAR")


@cache
def _plain() -> Lark:
    return parser()


def spans(text: str) -> tuple[Span, ...]:
    """What each word of the line is, up to the first that cannot be read."""
    found = []
    going = _plain().parse_interactive(text)
    try:
        for token in going.iter_parse():
            kind = _KIND_OF.get(token.type)
            if kind:
                start = position_of(token)
                found.append(Span(start, start + len(token), kind))
    except UnexpectedInput:
        pass
    return tuple(found)


def _options(names: set[str]) -> list[Option]:
    options: list[Option] = []
    for name in ("EFFORT", "PAUSE", "PAUSE_FOR"):
        if name in names:
            known = [tempo for tempo in TEMPOS.values() if (tempo in PAUSES) == (name != "EFFORT")]
            options += [Option(tempo.word, tempo.meaning) for tempo in known]
    if "MODALITY" in names:
        options += [Option(m.word, "struck" if m.strikes else "off the bag") for m in MODALITIES.values()]
    if "KIT" in names:
        options += _KIT
    options += [option for name, option in _WORDS if name in names]
    return list(dict.fromkeys(options))


_KIT = [Option(word, "kit") for word in (*(gloves.word for gloves in GLOVES.values()), *SAID)]
_WORDS = (
    ("DRILL", Option("[1-2]", "a combination")),
    ("DRILL", Option("[adding 1-2 | 3-2]", "each round adds the next")),
    ("REPS", Option("reps", "counted, not timed")),
    ("UNIT", Option("min", "minutes")),
    ("OPEN", Option("open", "it ends when you say so")),
    ("THEN", Option("then", "once, after the last")),
    ("LEAD", Option("left lead", "the left side in front")),
    ("LEAD", Option("right lead", "the right side in front")),
    ("SWITCH", Option("switch at half", "sides change half way")),
    ("SWITCH", Option("switch every 0:15", "sides change again and again")),
    ("SWITCH", Option("switch on call", "sides change on your call")),
    ("HALF", Option("at half", "half way")),
    ("ON_CALL", Option("on call", "when you call it")),
    ("EVERY", Option("every 0:10", "again and again")),
    ("CALL", Option('call "breathe" every 0:20', "a word called again and again")),
    ("BEAT", Option("to 120 beats", "strikes on the beat of music")),
    ("BEAT_TIME", Option("double time", "two strikes on a beat")),
    ("BEAT_TIME", Option("half time", "a strike on every other beat")),
    ("AT_PERCENT", Option("at 170 %", "paced, of VO2max")),
    ("PER_MINUTE", Option("60 a minute", "strikes, whatever they cost")),
    ("POWER", Option("half power", "half the energy of a full strike")),
    ("RESET", Option("reset 2", "seconds between one pass and the next")),
    ("RESET", Option("no reset", "one pass right behind the other")),
    ("BAND", Option("@80-90%HR", "heart rate to be kept, of maximum")),
    ("PAIRS", Option("in pairs", "one works, the partner rests, then the other")),
)


def complete(text: str) -> Completion:
    """What could be typed at the end of the line; options that begin as the word begun there does."""
    line = text.rsplit("\n", 1)[-1]
    purpose = re.match(r"[ \t]*[^\W\d][^:\n(]*\(([^)\n]*)$", line)
    if purpose:
        options = [Option(p.word, "what the part is for") for p in PURPOSES.values()]
        return _begun(text, purpose[1].rpartition(",")[2].lstrip(), options + _KIT)
    named = re.match(r"[ \t]*[^\W\d][^:\n(\[]*(\([^)\n]*\)[ \t]*)?:(?=\s|$)", line)
    head = line[named.end() if named else 0 :]
    if not head.strip():
        return Completion(len(text), ())
    inside = re.search(r"\[[^\]]*$", head)
    if inside:
        word = re.search(r"[^\W\d_][\w ]*$", inside[0])
        return _begun(text, word[0] if word else "", [Option(t.word, t.kind) for t in TECHNIQUES.values()])
    word = re.search(r"[^\W\d_@][\w-]*$|@$", head)
    begun = word[0] if word and not re.search(r"\d$", head[: word.start()]) else ""
    going = _plain().parse_interactive(head[: len(head) - len(begun)])
    said: set[str] = set()
    try:
        for token in going.iter_parse():
            said = _BARRED.get(token.type, set()) | (set() if token.type in _BEGINS else said)
    except UnexpectedInput:
        return Completion(len(text), ())
    accepted: set[str] = going.accepts()  # type: ignore[no-untyped-call]
    return _begun(text, begun, _options(accepted - said))


def _begun(text: str, begun: str, options: list[Option]) -> Completion:
    fitting = [option for option in options if option.text.lower().startswith(begun.lower())]
    if any(option.text.lower() == begun.lower() for option in fitting):
        return Completion(len(text), ())
    return Completion(len(text) - len(begun), tuple(fitting[:MOST_OPTIONS]))
