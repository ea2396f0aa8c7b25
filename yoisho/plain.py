"""Things as plain values, from one definition: a dataclass and the bounds beside its fields.

From it come reading (with the path to every fault), writing, and the JSON Schema. What a value may be beyond its bounds
is said by the dataclass itself, as it is made.
"""

import re
from collections.abc import Iterable, Mapping
from dataclasses import MISSING, Field, dataclass, fields
from functools import cache
from types import NoneType, UnionType
from typing import Annotated, Any, Literal, Union, get_args, get_origin, get_type_hints


class ImpossibleError(ValueError):
    """A value that makes no sense: what is wrong, how to mend it, and the field, where it is one field's fault."""

    def __init__(self, message: str, field: str | None = None):
        super().__init__(message)
        self.field = field


def sentence(error: ValueError) -> str:
    """What is wrong, as a sentence of its own."""
    text = str(error)
    return f"{text[0].upper()}{text[1:]}."


class PlainError(ImpossibleError):
    """Plain values that are not the thing they should be: where the fault is, and what would be right."""

    def __init__(self, path: str, message: str):
        super().__init__(f"{path}: {message}")
        self.path = path
        self.message = message

    @property
    def steps(self) -> list[str | int]:
        """The path step by step: names of fields, and places in lists."""
        found = re.findall(r"[^.\[\]]+", self.path)
        return [int(step) if step.isdigit() else step for step in found]


@dataclass(frozen=True)
class Within:
    """Bounds of a number."""

    low: float
    high: float


@dataclass(frozen=True)
class Length:
    """Bounds of the length of a text or a list."""

    least: int
    most: int
    checked: bool = False
    """The reader says so itself; where not, the thing does as it is made."""


@dataclass(frozen=True)
class OneOf:
    """A closed list of ids."""

    ids: Iterable[Any]


@dataclass(frozen=True)
class Expected:
    """What is said where something else stands."""

    words: str


TAGS = {"Interval": "interval", "Sequence": "sequence", "Repeat": "repeat"}
"""Things that stand in each other's place, and what tells them apart: their `type`."""
NAMES = {"Interval": "IntervalNode", "Sequence": "SequenceNode", "Repeat": "RepeatNode", "Session": "SessionDocument"}
"""What the schema calls them, where that is another name."""


@cache
def _hints(kind: type) -> dict[str, Any]:
    return get_type_hints(kind, include_extras=True)


@dataclass(frozen=True)
class _Form:
    """What is read in one place: looked up in its annotation once."""

    may_be_none: bool
    tagged: tuple[type, ...]
    """The things that may stand here, where several may."""
    each: "_Form | None"
    """Of a list, its items."""
    kind: type | None
    """The thing that stands here."""
    truth: bool
    texts: tuple[Length, ...]
    """Bounds of a text that the reader says itself."""
    instead: str | None
    """What is said where another thing stands."""


def _form(hint: Any) -> _Form:
    hint, said = _parts(hint)
    choices = tuple(each for each in _choices(hint) if each is not NoneType)
    inner, more = _parts(choices[0]) if len(choices) == 1 else (None, ())
    said = (*said, *more)
    return _Form(
        may_be_none=len(choices) < len(_choices(hint)),
        tagged=choices if len(choices) > 1 and all(getattr(each, "__name__", "") in TAGS for each in choices) else (),
        each=_form(get_args(inner)[0]) if get_origin(inner) is tuple else None,
        kind=inner if hasattr(inner, "__dataclass_fields__") else None,
        truth=inner is bool,
        texts=tuple(each for each in said if isinstance(each, Length) and each.checked) if inner is str else (),
        instead=next((each.words for each in said if isinstance(each, Expected)), None),
    )


@cache
def _forms(kind: type) -> dict[str, _Form]:
    """Of every field, in their order."""
    return {field.name: _form(_hints(kind)[field.name]) for field in fields(kind)}


def _inline(kind: type) -> str | None:
    """The one field that stands for the whole, such as a combination's groups."""
    found: str | None = getattr(kind, "PLAIN", None)
    return found


def _at(path: str, name: str) -> str:
    return f"{path}.{name}" if path else name


def _parts(kind: Any) -> tuple[Any, tuple[Any, ...]]:
    """A type and what is said beside it."""
    if get_origin(kind) is Annotated:
        inner, *said = get_args(kind)
        return inner, tuple(said)
    return kind, ()


def _choices(kind: Any) -> tuple[Any, ...]:
    return get_args(kind) if get_origin(kind) in (Union, UnionType) else (kind,)


# Writing


def unsaid(value: Any) -> bool:
    """Nothing, none, no: a nought is said."""
    return value is None or value is False or value in ([], ())


def write(thing: Any) -> Any:
    """A thing in plain values. What is not said is left out where the kind says so (`OMIT`)."""
    if isinstance(thing, tuple):
        return [write(each) for each in thing]
    kind = type(thing)
    if not hasattr(kind, "__dataclass_fields__"):
        return thing
    if inline := _inline(kind):
        return write(getattr(thing, inline))
    said = {field.name: write(getattr(thing, field.name)) for field in fields(kind)}
    if getattr(kind, "OMIT", False):
        said = {name: value for name, value in said.items() if not unsaid(value)}
    tag = TAGS.get(kind.__name__)
    return {"type": tag, **said} if tag else said


# Reading


def only(value: Any, path: str, names: Iterable[str]) -> dict[str, Any]:
    """The object, if it holds nothing but these."""
    known = tuple(names)
    if not isinstance(value, dict):
        raise PlainError(path, f"expected an object with {', '.join(known)}")
    for name in value:
        if name not in known:
            raise PlainError(_at(path, str(name)), f"this is not known here; there are {', '.join(known)}")
    return value


def read(kind: Any, value: Any, path: str, room: int) -> Any:
    """The thing in plain values; `room` is how deep things may still stand in each other.

    Raises `PlainError` with the path to the fault.
    """
    return _read(_form(kind), value, path, room)


def _read(form: _Form, value: Any, path: str, room: int) -> Any:
    if form.may_be_none and value is None:
        return None
    if form.tagged:
        return _tagged(form.tagged, value, path, room)
    if form.each is not None:
        return _listed(form.each, value, path, room)
    if form.kind is not None:
        return _object(form.kind, value, path, room, form.instead)
    if form.truth and not isinstance(value, bool):
        raise PlainError(path, "expected true or false")
    for bounds in form.texts:
        _text(bounds, value, path)
    return value


def _text(bounds: Length, value: Any, path: str) -> None:
    if not isinstance(value, str) or not bounds.least <= len(value) <= bounds.most:
        least = f"{bounds.least} to {bounds.most}" if bounds.least else f"at most {bounds.most}"
        raise PlainError(path, f"expected text of {least} characters")


def _tagged(kinds: tuple[type, ...], value: Any, path: str, room: int) -> Any:
    if not isinstance(value, dict):
        raise PlainError(path, "expected an object with a type")
    if room < 1:
        raise PlainError(path, "brackets go too deep here; split the session into parts")
    tags = {TAGS[kind.__name__]: kind for kind in kinds}
    tag = value.get("type")
    if not isinstance(tag, str) or tag not in tags:
        words = [*tags]
        raise PlainError(_at(path, "type"), f"expected {', '.join(words[:-1])} or {words[-1]}, not {tag!r}")
    return _object(tags[tag], value, path, room - 1)


def _listed(form: _Form, value: Any, path: str, room: int) -> tuple[Any, ...]:
    if not isinstance(value, list):
        raise PlainError(path, "expected a list")
    return tuple(_read(form, each, f"{path}[{index}]", room) for index, each in enumerate(value))


def _object(kind: type, value: Any, path: str, room: int, instead: str | None = None) -> Any:
    forms = _forms(kind)
    if inline := _inline(kind):
        return made(path, kind, {inline: _read(forms[inline], value, path, room)})
    tag = TAGS.get(kind.__name__)
    if tag and isinstance(value, dict) and value.get("type") != tag:
        raise PlainError(path, instead or f"expected {tag}")
    held = only(value, path, (*(("type",) if tag else ()), *forms))
    given: dict[str, Any] = {}
    for name, form in forms.items():
        if held.get(name) is not None:
            given[name] = _read(form, held[name], _at(path, name), room)
        elif name in held or _wanted(kind, name):
            given[name] = _none(form, held, name, path)
    return made(path, kind, {name: each for name, each in given.items() if each is not MISSING})


def _none(form: _Form, held: Mapping[str, Any], name: str, path: str) -> Any:
    """What stands for nothing said: None where the field may be None, and else its default, if it has one."""
    if form.may_be_none:
        return None
    for bounds in form.texts:
        _text(bounds, held.get(name), _at(path, name))
    return MISSING


def _wanted(kind: type, name: str) -> bool:
    """Whether a field has no default."""
    found: Field[Any] = kind.__dataclass_fields__[name]  # type: ignore[attr-defined]
    return found.default is MISSING and found.default_factory is MISSING


def made(path: str, kind: type, given: Mapping[str, Any]) -> Any:
    """What is made of them, with the path to the fault where it makes no sense."""
    try:
        return kind(**given)
    except PlainError:
        raise
    except ImpossibleError as error:
        raise PlainError(_at(path, error.field) if error.field else path, str(error)) from error
    except TypeError as error:
        raise PlainError(path, "something is missing here, or of the wrong kind") from error


# The schema


def name_of(kind: type) -> str:
    return NAMES.get(kind.__name__, kind.__name__)


class Schema:
    """The JSON Schema of a kind and of all that stands in it, draft 2020-12."""

    def __init__(self, place: str = "#/$defs/"):
        self.place = place
        self.defs: dict[str, Any] = {}

    def ref(self, kind: type) -> dict[str, Any]:
        name = name_of(kind)
        if name not in self.defs:
            self.defs[name] = {}
            self.defs[name] = self._of_dataclass(kind)
        return {"$ref": f"{self.place}{name}"}

    def of(self, hint: Any) -> dict[str, Any]:
        kind, said = _parts(hint)
        choices = _choices(kind)
        if len(choices) > 1:
            of_each = [self.of(each) for each in choices if each is not NoneType]
            if NoneType in choices:
                return {"anyOf": [*(self._bounded(each, said) for each in of_each), {"type": "null"}]}
            tagged = all(getattr(each, "__name__", "") in TAGS for each in choices)
            return {"oneOf" if tagged else "anyOf": of_each}
        return self._bounded(self._plain(kind), said)

    def _plain(self, kind: Any) -> dict[str, Any]:
        if get_origin(kind) is Literal:
            return {"enum": list(get_args(kind))}
        if get_origin(kind) is tuple:
            return {"type": "array", "items": self.of(get_args(kind)[0])}
        if hasattr(kind, "__dataclass_fields__"):
            inline = _inline(kind)
            return self.of(_hints(kind)[inline]) if inline else self.ref(kind)
        return {"type": {int: "integer", float: "number", str: "string", bool: "boolean"}[kind]}

    @staticmethod
    def _bounded(schema: dict[str, Any], said: tuple[Any, ...]) -> dict[str, Any]:
        for each in said:
            match each:
                case Within(low, high):
                    schema = {**schema, "minimum": low, "maximum": high}
                case Length(least, most) if schema.get("type") == "array":
                    schema = {**schema, "minItems": least, "maxItems": most}
                case Length(least, most):
                    schema = {**schema, "minLength": least, "maxLength": most}
                case OneOf(ids):
                    schema = {"enum": list(ids)}
        return schema

    def _of_dataclass(self, kind: type) -> dict[str, Any]:
        hints, tag = _hints(kind), TAGS.get(kind.__name__)
        properties: dict[str, Any] = {"type": {"const": tag}} if tag else {}
        needed = ["type"] if tag else []
        for field in fields(kind):
            inner, _ = _parts(hints[field.name])
            properties[field.name] = self.of(hints[field.name])
            if getattr(kind, "OMIT", False) and NoneType not in _choices(inner) and not _wanted(kind, field.name):
                properties[field.name] = {"anyOf": [properties[field.name], {"type": "null"}]}
            if _wanted(kind, field.name) and NoneType not in _choices(inner):
                needed.append(field.name)
        about = (kind.__doc__ or "").strip()
        return {
            "type": "object",
            **({"description": about} if about and not about.startswith(f"{kind.__name__}(") else {}),
            "properties": properties,
            "required": needed,
            "additionalProperties": False,
        }
