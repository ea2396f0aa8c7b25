"""The session shorthand: text to tree and back.

`read` takes what a coach types; `write` gives the canonical form, which `read` turns into the same tree again.
`read_parts` and `write_parts` do so for a whole session of named parts.
"""

from yoisho.session.shorthand.faults import EXAMPLE, ShorthandError
from yoisho.session.shorthand.parts import names_parts, read_parts, write_parts
from yoisho.session.shorthand.reader import LONGEST_TEXT, read
from yoisho.session.shorthand.series import weeks
from yoisho.session.shorthand.writer import write

__all__ = [
    "EXAMPLE", "LONGEST_TEXT", "ShorthandError", "names_parts", "read", "read_parts", "weeks", "write", "write_parts",
]  # fmt: skip
