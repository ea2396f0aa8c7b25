"""Between a document that is told and the core that reads it."""

from server.errors import FieldError
from yoisho.session.document import DocumentError, Session, from_document
from yoisho.session.interval import SessionError
from yoisho.session.timeline import Timeline


def core_session(document: object, *within: str) -> Session:
    """The document as the core reads it. An impossible one is a 422 with the path to the fault."""
    where: list[str | int] = ["body", *within, "document"]
    try:
        return from_document(document)
    except DocumentError as error:
        raise FieldError([*where, error.path], error.message, "document") from error
    except SessionError as error:
        raise FieldError(where, str(error), "document") from error


def unrolled(session: Session, *within: str) -> Timeline:
    """Its timeline. One that is too long or too large is a 422."""
    try:
        return session.unrolled()
    except SessionError as error:
        raise FieldError(["body", *within, "document", "parts"], str(error), "document") from error
