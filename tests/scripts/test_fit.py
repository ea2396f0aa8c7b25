"""The fit's search: the same numbers each time, within its bounds, and never worse than it began."""

import importlib.util
from dataclasses import fields
from pathlib import Path

import numpy as np
import pytest

from yoisho.engine.parameters import REFERENCE, Parameters, fitted

SCRIPT = Path(__file__).resolve().parents[2] / "scripts/fit.py"


@pytest.fixture(scope="module")
def fit():
    spec = importlib.util.spec_from_file_location("fit", SCRIPT)
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


def test_a_point_is_its_parameters_and_back(fit):
    again = fit.parameters_of(fit.point_of(vars(REFERENCE)))
    for one in fields(Parameters):
        assert getattr(again, one.name) == pytest.approx(getattr(REFERENCE, one.name), rel=0.05)


def test_the_file_lies_within_the_bounds_of_the_search():
    for one in fields(Parameters):
        assert one.metadata["least"] <= fitted()["parameters"][one.name] <= one.metadata["most"]


def test_a_walk_is_the_same_each_time_and_never_goes_uphill(fit):
    begin = fit.point_of(fitted()["parameters"])
    first, second = (fit.walk(begin, 3, seed=5) for _ in range(2))
    assert first == second
    assert first[0] <= fit._told(begin)


def test_the_published_rows_pull_the_search_and_a_worse_point_costs_more(fit):
    begin = fit.point_of(fitted()["parameters"])
    away = np.clip(begin + 0.3, 0, 1)
    assert fit.cost(begin) < fit.cost(away)
    assert fit._told(begin) < fit._told(away)
