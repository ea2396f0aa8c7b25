"""The session document (`docs/session-format.md`): JSON, versioned, with nothing left out."""

import json

from yoisho.formats.format import Format, FormatError
from yoisho.plain import PlainError
from yoisho.session.document import Session, from_document, to_document
from yoisho.session.interval import SessionError


def write(session: Session) -> bytes:
    return json.dumps(to_document(session), indent=2, ensure_ascii=False).encode()


def read(data: bytes) -> Session:
    try:
        told = json.loads(data)
    except (ValueError, RecursionError) as error:
        raise FormatError(f"This is not JSON: {error}. Choose a file that Export wrote.") from error
    try:
        session = from_document(told)
        session.unrolled()
    except PlainError as error:
        raise FormatError.of(error) from error
    except SessionError as error:
        raise FormatError(str(error), "parts") from error
    return session


SESSION_JSON = Format("session-json", "session document", "application/json", "json", write, read)
