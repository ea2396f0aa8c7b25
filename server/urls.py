from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from django.urls import include, path, re_path
from django.views.decorators.cache import never_cache

from server.api import api
from server.health import alive, ready
from server.settings import WEB_DIST


@never_cache
def page(request: HttpRequest, path: str = "") -> HttpResponse:
    """The one page of the app, with the cookie that its requests carry back."""
    get_token(request)
    try:
        return HttpResponse((WEB_DIST / "index.html").read_bytes())
    except FileNotFoundError:
        return HttpResponse("The front end is not built. Run `make demo`.", status=503, content_type="text/plain")


@never_cache
def athlete(request: HttpRequest, token: str) -> HttpResponse:
    """The page of a link, for whoever has it: nobody signs in, no search engine lists it, no address is passed on."""
    try:
        answer = HttpResponse((WEB_DIST / "athlete.html").read_bytes())
    except FileNotFoundError:
        return HttpResponse("The front end is not built. Run `make demo`.", status=503, content_type="text/plain")
    answer.headers["X-Robots-Tag"] = "noindex, nofollow"
    answer.headers["Referrer-Policy"] = "no-referrer"
    return answer


handler500 = "server.parsing.failed"

urlpatterns = [
    re_path(r"^s/(?P<token>[\w-]{1,64})$", athlete),
    path("api/", api.urls),
    path("_allauth/", include("allauth.headless.urls")),
    path("healthz", alive),
    path("readyz", ready),
    re_path(r"^(?!api/|_allauth/|assets/)(?P<path>[\w/:-]*)$", page),
]
