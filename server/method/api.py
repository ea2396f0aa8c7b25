"""The Method page: what the software computes with, as it stands."""

from dataclasses import asdict

from django.http import HttpRequest
from ninja import Router, Schema

from yoisho.method.build import method as core_method

router = Router(tags=["method"])


class Equation(Schema):
    name: str
    text: str
    about: str


class Table(Schema):
    caption: str
    columns: list[str]
    rows: list[list[str]]


class Section(Schema):
    id: str
    title: str
    text: list[str]
    equations: list[Equation]
    tables: list[Table]


class FitRow(Schema):
    source: str
    what: str
    unit: str
    published: float
    tolerance: float
    ratio: bool
    confidence: int
    value: float
    residual: float
    """In tolerances: within 1 is a hit."""
    within: bool
    note: str


class Method(Schema):
    sections: list[Section]
    fit: list[FitRow]


@router.get("/method", response=Method, operation_id="method")
def method(request: HttpRequest) -> dict[str, object]:
    """Equations, parameters, sources, the fit with its misses, purposes, cautions and limits."""
    return asdict(core_method())
