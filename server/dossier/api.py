"""Taking one person's data out, and erasing it."""

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from server.accounts.current import club_of
from server.dossier.erase import erase
from server.dossier.export import archive
from server.errors import Message
from server.files import named
from server.roster.api import the_person

router = Router(tags=["roster"])


@router.get("/people/{person_id}/data", response={200: None, 404: Message}, operation_id="export_person")
def export_person(request: HttpRequest, person_id: int) -> HttpResponse:
    """Everything that is kept of somebody, as JSON and CSV in a zip."""
    who = the_person(club_of(request), person_id)
    return named(HttpResponse(archive(who), content_type="application/zip"), who.name, ".zip", "somebody")


@router.delete("/people/{person_id}/data", response={204: None, 404: Message}, operation_id="erase_person")
def erase_person(request: HttpRequest, person_id: int) -> Status[None]:
    """Somebody erased for good. What they did stays in the club's sums, without a name."""
    erase(the_person(club_of(request), person_id))
    return Status(204, None)
