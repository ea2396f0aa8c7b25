"""Sessions as they are told and kept."""

from typing import Annotated

from pydantic import BaseModel, Field

from server.sessions.documents import DocumentIn, DocumentOut
from yoisho.judgement.targets import TargetId
from yoisho.session.shorthand import LONGEST_TEXT

Tag = Annotated[str, Field(min_length=1, max_length=30)]


class _State(BaseModel):
    person_id: int | None = None
    target: TargetId
    tags: Annotated[list[Tag], Field(max_length=12)] = []


class SessionState(_State):
    document: DocumentIn


class SessionIn(SessionState):
    revision: int | None = None
    """The revision the edit began from; leave out for a new session."""
    by_itself: bool = False
    """Saved by the app while the coach works, not by a key."""


class SeriesIn(SessionState):
    """A session, and a line with a ladder over weeks in the place of one of its parts."""

    part: Annotated[int, Field(ge=0, le=40)]
    """From 0; behind the last the lines are added."""
    text: Annotated[str, Field(max_length=LONGEST_TEXT)]


class InSeries(BaseModel):
    """Where a session stands in its series."""

    id: str
    week: int
    weeks: int
    due: bool
    """It is the first of them that nobody has run."""


class SessionOut(_State):
    document: DocumentOut
    id: int
    revision: int
    saved_at: str


class SavedVersion(_State):
    """One state in the history of a session."""

    document: DocumentOut

    revision: int
    saved_at: str
    saved_by: str | None
    by_itself: bool
    total_s: int
    text: list[str]


class MergeIn(BaseModel):
    base: SessionState
    """What both edits began from."""
    mine: SessionState
    theirs: SessionState


class MergeOut(_State):
    document: DocumentOut
    notes: list[str]
    """What both had changed, and what was done about it."""


class SessionRow(BaseModel):
    id: int
    title: str
    person: str | None
    target: TargetId
    tags: list[str]
    total_s: int
    text: list[str]
    saved_at: str
    series: InSeries | None
