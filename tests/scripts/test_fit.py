"""The fit's search: the same numbers each time, within its bounds, and never worse than it began."""

import importlib.util
from dataclasses import fields, replace
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
    assert first[0] <= fit.cost(begin, fit.SHORT_RAMP)


def test_the_published_rows_pull_the_search_and_a_worse_point_costs_more(fit):
    begin = fit.point_of(fitted()["parameters"])
    away = np.clip(begin + 0.3, 0, 1)
    assert fit.cost(begin) < fit.cost(away)
    assert fit.cost(begin, fit.SHORT_RAMP) < fit.cost(away, fit.SHORT_RAMP)


def test_what_coaches_know_holds_about_the_search_and_costs_where_it_does_not(fit):
    facts = importlib.import_module("trade_facts")
    assert facts.Fact("heart", 0.85, 0.81, 0.915, 0.02).miss == 0
    assert facts.Fact("heart", 0.79, 0.81, 0.915, 0.02).miss == pytest.approx(1)
    assert facts.Fact("fade", 0.135, -facts.ANY, 0.035, 0.05).miss == pytest.approx(2)
    found = list(facts.facts(REFERENCE))
    assert len({fact.what for fact in found}) == len(found) > 50
    assert max(fact.miss for fact in found) < 1, "no fact is missed by more than its own measure"
    slow = replace(REFERENCE, uptake_tau_s=14.0, steady_glycolysis=0.7)
    assert facts.breaches(slow) > facts.breaches(REFERENCE) + 1
