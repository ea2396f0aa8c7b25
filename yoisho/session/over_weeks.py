"""A series: one line with a ladder over weeks, as one session for each week."""

from dataclasses import replace

from yoisho.session.called import called
from yoisho.session.document import LONGEST_TITLE, Part, Session
from yoisho.session.interval import SessionError
from yoisho.session.shorthand import names_parts, read, read_parts, weeks
from yoisho.strikes.schools import DEFAULT_SCHOOL


def sessions_over(session: Session, part: int, text: str, school_id: str = DEFAULT_SCHOOL) -> tuple[Session, ...]:
    """The sessions of a series: the given one with the lines of each week in the place of a part.

    `part` counts from 0; behind the last the lines are added. Lines that name no part leave its name and purpose alone.
    Raises `SessionError` where the text holds no ladder over weeks, or a part is not there; `ShorthandError` where a
    week's line cannot be read.
    """
    lines = weeks(text)
    if len(lines) == 1:
        raise SessionError("this line is one session; a series has a ladder over weeks, such as rest 90/75/60", "text")
    if not 0 <= part <= len(session.parts):
        raise SessionError(f"there is no part {part + 1} in this session", "part")
    before = session.parts[part] if part < len(session.parts) else None

    def week(line: str, number: int) -> Session:
        if names_parts(line):
            inside = read_parts(line, school_id)
        else:
            tree = read(line, school_id)
            inside = (replace(before, tree=tree) if before else Part("Main set", tree),)
        said = f", week {number} of {len(lines)}"
        whole = Session(session.title, (*session.parts[:part], *inside, *session.parts[part + 1 :]))
        return replace(whole, title=called(whole, school_id).title[: LONGEST_TITLE - len(said)] + said)

    return tuple(week(line, number) for number, line in enumerate(lines, 1))
