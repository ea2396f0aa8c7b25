import json
from collections import Counter
from dataclasses import is_dataclass
from importlib import import_module
from pathlib import Path
from pkgutil import walk_packages

from ninja import Schema

from server import urls  # noqa: F401  every schema is defined once the API is
from server.openapi import dump
from yoisho import answers
from yoisho.answers.shared import shared, vectors

ROOT = Path(__file__).resolve().parents[2]


def test_what_the_front_end_is_held_to_is_what_the_core_says():
    for name, told in (("shared", shared()), ("vectors", vectors())):
        written = (ROOT / f"web/src/api/{name}.json").read_text(encoding="utf-8")
        assert json.loads(written) == json.loads(json.dumps(told)), "run `make types`"


def test_no_two_answers_are_told_by_one_name():
    """Of two that were, one would stand in the OpenAPI document, and the front end would believe it of both."""
    modules = [each.name for each in walk_packages(answers.__path__, f"{answers.__name__}.")]
    plain = {
        each
        for name in modules
        for each in vars(import_module(name)).values()
        if isinstance(each, type) and is_dataclass(each) and each.__module__.startswith(answers.__name__)
    }
    schemas = [each for each in subclasses(Schema) if each.__module__.startswith("server.")]
    assert len(plain) > 20
    assert len(schemas) > 20
    names = Counter(each.__name__ for each in (*plain, *schemas))
    assert [name for name, times in names.items() if times > 1] == []


def subclasses(of: type) -> list[type]:
    return [every for each in of.__subclasses__() for every in (each, *subclasses(each))]


def test_the_openapi_document_in_the_tree_is_the_servers():
    written = (ROOT / "server" / "openapi.json").read_text(encoding="utf-8")
    assert json.loads(written) == json.loads(dump()), "run `make types`"


def test_every_answer_that_can_be_refused_says_so_in_the_schema():
    paths = json.loads(dump())["paths"]
    for path in ("/api/evaluate", "/api/propose", "/api/read", "/api/sessions"):
        assert "422" in paths[path]["post"]["responses"], path


def test_the_page_may_load_nothing_from_elsewhere(nobody):
    policy = nobody.get("/library")["Content-Security-Policy"]
    assert "default-src 'self'" in policy
    assert "http" not in policy
    assert "unsafe" not in policy


def test_the_page_brings_the_cookie_its_requests_carry_back(nobody):
    assert "csrftoken" in nobody.get("/library").cookies


def test_an_unknown_api_path_is_not_the_page(nobody):
    assert nobody.get("/api/nothing").status_code == 404
