"""The wall sheet of a session, as a file to print."""

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router

from server.accounts.current import club_of
from server.errors import Faults, FieldError, Message
from server.files import named
from server.roster.api import find_person
from server.sendout.links import address_of
from server.sendout.models import ShareLink
from server.sendout.wall_sheet import Paper, wall_sheet_pdf
from server.sessions.api import find_session
from yoisho.answers.wall_sheet import wall_sheet
from yoisho.plain import sentence
from yoisho.session.document import from_document
from yoisho.session.interval import SessionError

router = Router(tags=["send out"])


@router.get(
    "/sessions/{session_id}/wall-sheet",
    response={200: None, 404: Message, 422: Faults},
    operation_id="wall_sheet",
)
def wall_sheet_of(
    request: HttpRequest, session_id: int, paper: Paper = "a4", person_id: int | None = None
) -> HttpResponse:
    """The session on one page, as a PDF: for a person, or for anybody. The code of its newest link stands on it."""
    club = club_of(request)
    saved = find_session(club, session_id)
    who = find_person(club, person_id)
    session = from_document(saved.document)
    if not session.parts:
        raise FieldError(["path", "session_id"], "This session has no parts yet: nothing would be on it.", "session")
    try:
        core, name = (who.to_core(), who.name) if who else (None, "")
        sheet = wall_sheet(session, saved.target, club.school, core, name)
    except SessionError as error:
        raise FieldError(["path", "session_id"], sentence(error), "session") from error
    link = ShareLink.live_of(saved)
    made = timezone.localdate()
    pdf = wall_sheet_pdf(sheet, paper, address_of(request, link) if link else "", f"{made.day} {made:%B %Y}")
    answer = HttpResponse(pdf, content_type="application/pdf")
    answer.headers["Cache-Control"] = "no-store"
    return named(answer, session.title, "-wall-sheet.pdf", "session", shown=True)
