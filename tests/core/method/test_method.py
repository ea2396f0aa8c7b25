"""The Method page hides nothing: every parameter, purpose, rule and published figure stands on it."""

from dataclasses import fields
from pathlib import Path

from tests.core.people import club_boxer
from yoisho.engine.parameters import REFERENCE, Parameters
from yoisho.engine.readout import read
from yoisho.engine.studies import STUDIES
from yoisho.judgement.cautions import RULES
from yoisho.judgement.targets import TARGETS
from yoisho.method.build import markdown, method
from yoisho.method.figures import FIGURES
from yoisho.method.settings import settings_of, settings_page
from yoisho.protocols.families import FAMILIES
from yoisho.review.proof import proven
from yoisho.session.shorthand import read as line
from yoisho.session.timeline import unroll
from yoisho.strikes.tempo import TEMPOS

ROOT = Path(__file__).resolve().parents[3]
SECTIONS = {section.id: section for section in method().sections}


def cells(section: str) -> set[str]:
    return {cell for table in SECTIONS[section].tables for row in table.rows for cell in row}


def test_the_document_in_the_tree_is_the_one_the_software_writes():
    written = (ROOT / "docs/method.md").read_text(encoding="utf-8")
    assert written == markdown(), "run make docs"


def test_the_settings_in_the_tree_are_those_of_the_sources():
    assert (ROOT / "docs/settings.md").read_text(encoding="utf-8") == settings_page(), "run make docs"


def test_a_setting_is_told_with_its_value_and_the_first_of_what_is_said_of_it():
    source = '''
"""A module."""
MOST, LEAST = 4, 1 + 2
"""Of them, by
day.

And more."""
YEARS: int = 16
WORDS = ("a", "b")
ON = True
plain = 3
'''
    assert list(settings_of(source)) == [("MOST, LEAST", "(4, 1 + 2)", "Of them, by day."), ("YEARS", "16", "")]


def test_every_parameter_stands_with_its_unit_meaning_and_value():
    for one in fields(Parameters):
        assert one.metadata["symbol"] in cells("parameters")
        assert f"{getattr(REFERENCE, one.name):.4g}" in cells("parameters")
        assert one.metadata["least"] <= getattr(REFERENCE, one.name) <= one.metadata["most"]


def test_every_symbol_of_a_parameter_is_used_in_an_equation():
    text = " ".join(equation.text for equation in SECTIONS["stores"].equations)
    for one in fields(Parameters):
        assert one.metadata["symbol"] in text, one.metadata["symbol"]


def test_every_published_figure_is_shown_hit_or_missed():
    shown = {(row.source, row.what) for row in method().fit}
    assert shown == {(study.citation, row.what) for study in STUDIES.values() for row in study.rows}
    words = [row[5] for row in SECTIONS["fit"].tables[0].rows]
    assert words.count("missed") == sum(not row.within for row in method().fit) > 0


def test_every_form_that_a_proposal_is_chosen_from_stands_with_all_its_values():
    forms = {row[0]: row for row in SECTIONS["proposals"].tables[0].rows}
    assert list(forms) == [family.name for family in FAMILIES]
    assert forms["Tabata, as researched"][1:4] == (
        "6 × (20 all out, 10 rest)", "3 × (8 × (20 all out, 10 rest)) rest 5:00",
        "tempo: all out; rounds: 6, 7, 8; sets: 1, 2, 3; rest: 180, 300",
    )  # fmt: skip
    assert "rounds: 2 to 12" in forms["Rep rounds"][3]
    assert forms["Flow"][3] == "minutes: 4 to 60 by 2"
    assert forms["The bout's rounds"][4:] == ("bout rehearsal", "rule sets, from memory: check your federation's")


def test_what_goes_around_a_protocol_stands_for_each_scale():
    around = {row[0]: row[1:] for row in SECTIONS["proposals"].tables[1].rows}
    assert around["fighter"] == ("10:00 skip, 5:00 flow shadow; then 1:00", "3:00 recover shadow, 2:00 stretching")
    assert around["easy on the joints"][0].startswith("5:00 joint work")


def test_the_proof_of_learning_stands_with_every_world_also_where_the_model_is_wrong():
    found = proven()
    for world, told in found["worlds"].items():
        assert world in cells("learning")
        for row in told["capacities"]:
            assert f"{100 * row['inside']:.0f} %" in cells("learning")
    assert str(found["people"]) in " ".join(SECTIONS["learning"].text)


def test_every_tempo_purpose_measure_and_rule_is_told_with_its_source():
    assert {tempo.word for tempo in TEMPOS.values()} <= cells("effort")
    for target in TARGETS.values():
        assert target.name in cells("purposes")
        for measure in target.measures:
            assert measure.label in cells("purposes")
            assert measure.source in cells("purposes")
    for rule in RULES:
        assert {rule.seal, rule.about, rule.source} <= cells("safety")


def test_every_figure_of_a_reading_says_who_says_so_and_points_at_a_section_there_is():
    found = read(club_boxer(), unroll(line("8 x (20 all out) rest 0:10"))).figures
    assert set(found) <= set(FIGURES)
    for figure in FIGURES.values():
        assert figure.section in SECTIONS
        assert {figure.name, figure.meaning, figure.source} <= cells("figures")
    of_the_measures = {measure.figure for target in TARGETS.values() for measure in target.measures}
    assert of_the_measures & set(found) <= set(FIGURES)


def test_the_known_limits_are_said_plainly():
    said = " ".join(SECTIONS["limits"].text)
    for words in ("Fitted to cycling and running", "No published cost per strike", "never diagnoses", "too generous"):
        assert words in said


def test_tables_are_rectangular():
    for section in SECTIONS.values():
        for table in section.tables:
            assert {len(row) for row in table.rows} == {len(table.columns)}, table.caption
