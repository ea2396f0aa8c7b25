"""Between a document that is told and the core that reads it: read once, and told as it was read."""

from collections.abc import Callable
from typing import TYPE_CHECKING, Annotated, Any, TypeAlias

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, core_schema

from server.errors import FieldError
from yoisho.session.document import DocumentError, Session, definitions, from_document
from yoisho.session.interval import SessionError
from yoisho.session.timeline import Timeline


def core_session(document: object, *within: str) -> Session:
    """The document as the core reads it. An impossible one is a 422 with the path to the fault."""
    where: list[str | int] = ["body", *within, "document"]
    try:
        return from_document(document)
    except DocumentError as error:
        raise FieldError([*where, *error.steps], error.message, "document", {"path": error.path}) from error
    except SessionError as error:
        raise FieldError(where, str(error), "document") from error


def unrolled(session: Session, *within: str) -> Timeline:
    """Its timeline. One that is too long or too large is a 422."""
    try:
        return session.unrolled()
    except SessionError as error:
        raise FieldError(["body", *within, "document", "parts"], str(error), "document") from error


SHAPE = "x-defined-in-the-core"


class _Shape:
    """A value that pydantic passes on: the core has the say over what is in it, and over its JSON Schema."""

    def __init__(self, name: str, read: Callable[[Any], Any] | None = None):
        self.name, self.read = name, read

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        if self.read is None:
            return core_schema.any_schema()
        return core_schema.no_info_plain_validator_function(self.read)

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        return {SHAPE: self.name}


if TYPE_CHECKING:
    DocumentIn: TypeAlias = Session
    DocumentOut: TypeAlias = dict[str, Any]
    PartOut: TypeAlias = dict[str, Any]
else:
    DocumentIn = Annotated[Any, _Shape("SessionDocument", core_session)]
    """A document of any version, read by the core: what a request holds is a session already."""
    DocumentOut = Annotated[Any, _Shape("SessionDocument")]
    PartOut = Annotated[Any, _Shape("Part")]


def with_definitions(document: dict[str, Any]) -> dict[str, Any]:
    """An OpenAPI document with the core's own definitions in the places where they are named."""
    place = "#/components/schemas/"

    def filled(value: Any) -> Any:
        if isinstance(value, dict):
            if SHAPE in value:
                return {"$ref": f"{place}{value[SHAPE]}"}
            return {name: filled(each) for name, each in value.items()}
        return [filled(each) for each in value] if isinstance(value, list) else value

    found: dict[str, Any] = filled(document)
    found["components"]["schemas"].update(definitions(place))
    return found
