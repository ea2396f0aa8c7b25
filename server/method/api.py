"""The Method page: what the software computes with, as it stands."""

from django.http import HttpRequest
from ninja import Router

from yoisho.method import build
from yoisho.method.document import Method

router = Router(tags=["method"])


@router.get("/method", response=Method, operation_id="method")
def method(request: HttpRequest) -> Method:
    """Equations, parameters, sources, the fit with its misses, purposes, cautions and limits."""
    return build.method()
