"""Open formats, one file each and one registry: bytes in, bytes out. One entry in `FORMATS` is all a new one needs."""

from yoisho.formats.format import Format, FormatError
from yoisho.formats.session_json import SESSION_JSON

FORMATS: dict[str, Format] = {each.id: each for each in (SESSION_JSON,)}

__all__ = ["FORMATS", "Format", "FormatError"]
