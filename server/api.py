"""The API: one router per room of the club."""

from collections.abc import Callable
from functools import wraps
from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI, Swagger

from server.accounts.access import Member, Token
from server.accounts.api import router as accounts
from server.accounts.joining import router as joining
from server.accounts.mailbox import router as mailbox
from server.accounts.tokens import router as tokens_of_accounts
from server.bench.api import router as bench
from server.bench.gate import router as gate
from server.bounded import AGAIN_S, BusyError, GoneError
from server.camp.api import router as camp
from server.camp.feed import router as camp_feeds
from server.camp.solving import router as camp_solving
from server.classes.api import router as classes
from server.classes.floor import router as class_floor
from server.classes.solving import router as class_solving
from server.combinations.api import router as combinations
from server.dossier.api import router as dossier
from server.errors import FieldError
from server.library.api import router as library
from server.logbook.api import router as logbook
from server.logbook.by_hand import router as by_hand
from server.method.api import router as method
from server.parsing import waits
from server.records.api import router as records
from server.review.api import router as review
from server.review.heart import router as heart
from server.roster.api import router as roster
from server.roster.csv_import import router as people_import
from server.roster.page import router as people
from server.runs.api import router as runs
from server.sendout.links import router as links
from server.sendout.sheets import router as sheets
from server.sendout.tracks import router as tracks
from server.sessions.api import router as sessions
from server.sessions.documents import with_definitions
from server.today.api import router as today
from server.today.waiting import router as waiting
from server.vocabulary.api import router as vocabulary
from yoisho.method.figures import FIGURES


def signed_in(view: Callable[..., HttpResponse]) -> Callable[..., HttpResponse]:
    """The pages about the API are for those who have an account."""

    @wraps(view)
    def seen(request: HttpRequest, *args: Any, **more: Any) -> HttpResponse:
        if not request.user.is_authenticated:
            return JsonResponse({"detail": "Sign in first: the description of the API is for members."}, status=401)
        return view(request, *args, **more)

    return seen


class Described(NinjaAPI):
    """Its document says all that may come back: the core's own shapes, and the refusals that stand before a view."""

    def get_openapi_schema(self, **how: Any) -> Any:
        document = with_definitions(super().get_openapi_schema(**how))
        # Answers tell figures by their ids; the front end asks for them by this type.
        document["components"]["schemas"]["FigureId"] = {"type": "string", "enum": sorted(FIGURES)}
        document["components"]["responses"] = {
            "422": {"description": "Something is impossible: where, what, and how to mend it.", "content": FAULTY},
            **{str(status): {"description": words, "content": SAID} for status, words in REFUSED.items()},
        }
        for methods in document["paths"].values():
            for operation in methods.values():
                if operation["operationId"] in IN_LINES:
                    told = operation["responses"][200]["content"]
                    told["application/x-ndjson"] = told.pop("application/json")
                asked = operation.get("parameters") or operation.get("requestBody")
                for status in (*REFUSED, *([422] if asked else [])):
                    operation["responses"].setdefault(status, {"$ref": f"#/components/responses/{status}"})
        return document


SAID = {"application/json": {"schema": {"$ref": "#/components/schemas/Message"}}}
FAULTY = {"application/json": {"schema": {"$ref": "#/components/schemas/Faults"}}}
REFUSED = {
    401: "Nobody is signed in, or the token has ended.",
    403: "Not for this role, beyond the token's scopes, or not asked from a page of the app.",
}
IN_LINES = frozenset({"solve_camp", "solve_class", "propose_class"})
"""Answered a line of JSON at a time, as it goes on."""
member = Member()
api = Described(
    title="Yoisho",
    version="1",
    description="Everything that Yoisho's own screens ask for. How to get a token: docs/api.md.",
    docs=Swagger(settings={"validatorUrl": None, "docExpansion": "none"}),
    docs_decorator=signed_in,
    auth=[Token(member), member],
    urls_namespace="api",
)
member.api = api
api.add_router("", accounts)
api.add_router("", joining)
api.add_router("", mailbox)
api.add_router("", tokens_of_accounts)
api.add_router("", roster)
api.add_router("", people_import)
api.add_router("", people)
api.add_router("", dossier)
api.add_router("", vocabulary)
api.add_router("", bench)
api.add_router("", gate)
api.add_router("", sessions)
api.add_router("", today)
api.add_router("", waiting)
api.add_router("", camp)
api.add_router("", class_solving)
api.add_router("", classes)
api.add_router("", class_floor)
api.add_router("", camp_solving)
api.add_router("", camp_feeds)
api.add_router("", library)
api.add_router("", combinations)
api.add_router("", runs)
api.add_router("", logbook)
api.add_router("", by_hand)
api.add_router("", review)
api.add_router("", heart)
api.add_router("", records)
api.add_router("", sheets)
api.add_router("", links)
api.add_router("", tracks)
api.add_router("", method)


@api.exception_handler(BusyError)
def _busy(request: HttpRequest, error: BusyError) -> HttpResponse:
    if not isinstance(error, GoneError):
        waits(request, "more is asked than can be worked out")
    response = api.create_response(
        request, {"detail": "Much is asked at once just now. Ask again in a moment."}, status=429
    )
    response.headers["Retry-After"] = str(AGAIN_S)
    return response


@api.exception_handler(FieldError)
def _field_error(request: HttpRequest, error: FieldError) -> HttpResponse:
    return api.create_response(request, {"detail": [error.fault]}, status=422)
