"""The grammar of the session shorthand, and the words its tokens are made of."""

import re
from functools import cache

from lark import Lark, Transformer

from yoisho.session.kit import kit_spellings
from yoisho.session.modality import MODALITIES, modality_spellings
from yoisho.strikes.techniques import plurals, spellings
from yoisho.strikes.tempo import TEMPOS, tempo_spellings

GRAMMAR = r"""
start: sequence
sequence: _row
inner: _row
_row: (SEP | THEN)* item (SEP | THEN | item | SEP afterwards)*
afterwards: LEAD | PAIRS | BAND | KIT | turned
item: times* body (between late*)?
times: NUMBER TIMES
?body: dose modifier*              -> interval
     | timed TIMES NUMBER modifier*   -> timed_so_often
     | (COMBINATION | DRILL) TIMES NUMBER modifier*  -> struck_so_often
     | (EFFORT | MODALITY | paced)+ times* dose modifier*  -> word_first
     | PAUSE_FOR dose MODALITY?       -> pause_first
     | STRIKES                     -> how_many
     | WORD                        -> unknown
     | "(" inner ")" modifier*  -> group
between: PAUSE_FOR dose MODALITY? BETWEEN?
?late: BAND | PAIRS
timed: CLOCK | NUMBER UNIT
dose: timed | NUMBER | NUMBER REPS | LADDER REPS?
    | OPEN (timed | NUMBER)?       -> open_ended
?modifier: EFFORT | PAUSE | MODALITY | DRILL | COMBINATION | STRIKES | LEAD | PAIRS | BAND | BETWEEN | RESET
         | KIT
         | turned
         | CALL (QUOTED | WORD) EVERY dose       -> cue
         | paced
         | AT_PERCENT | PER_MINUTE | POWER
         | WORD                                  -> unknown
paced: BEAT BEAT_TIME?                -> beat
turned: SWITCH (HALF | ON_CALL | EVERY dose)  -> switch

LADDER.6: /\d+(\s*-\s*\d+)+(?=[ \t]*(reps|rep|repetitions|strikes|__COUNTED__)(?![a-z]))|__LADDER_OF_STRIKES__/i
CLOCK.5: /\d+[:']\d\d(?!\d)/
NUMBER: /\d+/
UNIT.4: /(seconds|second|secs|sec|s|minutes|minute|mins|min|m)(?![a-z])\.?|''|'|"/i
REPS.4: /(reps|rep|repetitions|strikes|times(?=\s*[a-z]))(?![a-z])/i
TIMES.4: /(x|×|\*|(times|rounds?|sets?)(?![a-z]):?)/i
SEP.3: /[,;\/\n][ \t\r\f\n]*/
THEN.4: /then(?![a-z])/i
PAUSE_FOR.5: /(__PAUSE__|r)[ \t]*(for[ \t]+)?(?=\d)(?!\d+[ \t]*%)/i
PAUSE.4: /(__PAUSE__)(?![a-z])/i
EFFORT.3: /(__EFFORT__)(?![a-z])/i
MODALITY.4: /((on|with)[ \t]+(the[ \t]+|a[ \t]+)?)?(__MODALITY__)(?![a-z])/i
DRILL.3: /\[[^\[\]]*\]/
STRIKES.3: /__STRIKES__/i
BETWEEN.4: /(in[ \t]+)?between([ \t]+(the[ \t]+)?(rounds?|sets?|efforts?|each|them))?(?![a-z])/i
COMBINATION.3: /\d+b?(\s*-\s*\d+b?)+(?![\d\w%])/i
LEAD.4: /((left|right)[ \t]+(lead|side)|orthodox|southpaw)(?![a-z])/i
KIT.5: /(?!bag[ \t]+gloves[ \t]+off)((in|with|on)[ \t]+(the[ \t]+|a[ \t]+)?)?(__KIT__)(?![a-z])(?![ \t-]*carry)/i
OPEN.4: /open([ \t-]*ended)?(,?[ \t]*about(?![a-z]))?(?![a-z])/i
PAIRS.4: /(in[ \t]+)?pairs(?![a-z])/i
BAND.4: /@[ \t]*\d+[ \t]*(-|–|to)[ \t]*\d+[ \t]*%[ \t]*(of[ \t]+)?(hr[ \t]*max|hr)(?![a-z])/i
SWITCH.4: /switch(ing)?([ \t]+(sides?|stance))?(?![a-z])(?![ \t-]*kick)/i
HALF.4: /(at[ \t]+)?half(way)?(?![ \t-]*time)(?![a-z])/i
ON_CALL.4: /on[ \t]+call(?![a-z])/i
EVERY.4: /every(?![a-z])/i
CALL.4: /(call|cue|say)(?![a-z])/i
QUOTED: /"[^"\n]*"/
BEAT.4: /(to[ \t]+)?\d+[ \t]*(beats|bpm)(?![a-z])/i
BEAT_TIME.4: /(half|single|double)[ \t-]+time(?![a-z])/i
AT_PERCENT.5: /at[ \t]+\d+[ \t]*%(?![ \t]*(power|of[ \t]+hr|hr))/i
PER_MINUTE.5: /(at[ \t]+)?\d+([ \t]+strikes)?[ \t]*(a|per|\/)[ \t]*min(ute)?(?![a-z])/i
RESET.6: /no[ \t]+reset(?![a-z])|reset[ \t]+(of[ \t]+)?(\d+:)?\d+([ \t]*s(ec(ond)?s?)?)?(?![a-z\d:])/i
POWER.6: /((at[ \t]+)?\d+[ \t]*%[ \t]*|half[ \t-]+)power(?![a-z])/i
WORD: /[^\W\d_][\w-]*/
%ignore /[ \t\r\f]+/
FILLER.4: /(of|with|w\/)(?![a-z])/i
%ignore FILLER
"""

PAUSES = tuple(tempo for tempo in TEMPOS.values() if tempo.kind != "work" and not tempo.shows)
EXPECTED = {
    "NUMBER": "a number",
    "CLOCK": "a time such as 0:30",
    "LPAR": "an opening bracket",
    "RPAR": "a closing bracket",
    "EFFORT": "an effort such as power",
    "MODALITY": "a modality such as bag",
    "DRILL": "a combination such as [1-2]",
    "PAUSE_FOR": "rest or recover",
    "TIMES": "x",
    "SEP": "a comma",
    "THEN": "then",
    "OPEN": "open",
    "KIT": "kit such as 16 oz gloves",
    "UNIT": "s or min",
    "REPS": "reps",
    "HALF": "at half",
    "ON_CALL": "on call",
    "EVERY": "every 0:10",
    "QUOTED": "a word to call",
    "BEAT_TIME": "double time",
}
"""What each token is called where it is missing; those left out are too many to name at once."""

KEYWORDS = ("rest", "recover", "then", "reps", "min", "left lead", "right lead", "in pairs", "switch at half",
            "switch every", "switch on call", "call", "every", "beats", "double time", "half time",
            "a minute", "half power", "between", "no reset", "reset", "open", "bare hands", "bag gloves", "wraps",
            "straps", "ball")  # fmt: skip


def _pattern(words: list[str]) -> str:
    longest_first = sorted(words, key=len, reverse=True)
    return "|".join(re.escape(word).replace(r"\ ", r"[\s-]*").replace(r"\-", r"[\s-]*") for word in longest_first)


def _said(*, pauses: bool) -> list[str]:
    """Spellings of what stands between efforts, or of all that stands as they do: what is shown is said like one."""
    return [word for word, tempo in tempo_spellings().items() if (TEMPOS[tempo] in PAUSES) == pauses]


STRIKES = (
    r"((left|right|lead|rear|low|body|head|high)[ \t]+)?"
    rf"({_pattern([many for word in spellings() for many in (word, *plurals(word))])})(?![a-z])"
)
"""How many of one technique are said, or one of them."""


@cache
def _filled() -> str:
    return (
        GRAMMAR.replace("__PAUSE__", _pattern(_said(pauses=True)))
        .replace("__EFFORT__", _pattern(_said(pauses=False)))
        .replace("__MODALITY__", _pattern(list(modality_spellings())))
        .replace("__KIT__", _pattern(list(kit_spellings())))
        .replace("__COUNTED__", _pattern([w for w, m in modality_spellings().items() if MODALITIES[m].rep_s]))
        .replace("__LADDER_OF_STRIKES__", rf"\d\d+(\s*-\s*\d+)+(?=[ \t]*{STRIKES})")
        .replace("__STRIKES__", STRIKES)
    )


def parser(actions: Transformer | None = None) -> Lark:  # type: ignore[type-arg]
    """A parser of the shorthand; with actions it makes nodes as it goes."""
    return Lark(_filled(), parser="lalr", transformer=actions, propagate_positions=False, maybe_placeholders=False)


def squeezed(word: str) -> str:
    """A spelling without its spaces and hyphens, in lower case: how words are told apart."""
    return re.sub(r"[\s-]+", "", word.lower())
