"""What a session is called that nobody has given a title: after its pattern."""

from dataclasses import replace

from yoisho.session.document import Part, Session
from yoisho.session.purposes import FRAMES
from yoisho.session.shorthand import write
from yoisho.session.tree import duration_s

UNTITLED = "New session"
"""As the Bench calls what it begins with."""
LONGEST = 60
"""What a title of a pattern is cut to, at a space [characters]."""


def called(session: Session, school: str) -> Session:
    """The session, called after the pattern of its longest main part, where it has no title of its own."""
    if session.title != UNTITLED or not session.parts:
        return session

    def weight(part: Part) -> tuple[bool, int]:
        return part.purpose not in FRAMES, duration_s(part.tree)

    text = write(max(session.parts, key=weight).tree, school)
    if len(text) > LONGEST:
        text = text[: LONGEST - 1].rsplit(" ", 1)[0].rstrip(",;") + " …"
    return replace(session, title=text)
