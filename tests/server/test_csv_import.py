"""People from a spreadsheet: every bad row with its cure, and nothing half done."""

import pytest
from django.utils import timezone

from server.roster.models import Group, Person
from tests.server.conftest import fault

HEAD = "name,year of birth,mass,level,sport,sex,groups\n"
TWO = HEAD + 'Ada Quay,1996,62.5,club,"boxer, 63 kg",female,Tuesday/Beginners\nBen Moor,1988,81,beginner,,m,tuesday\n'


def preview(coach, text):
    return coach.post("people/csv/preview", {"text": text})


def take(coach, text, *left):
    return coach.post("people/csv", {"text": text, "leave_out": list(left)})


def faults(coach, *rows):
    return [row["faults"] for row in preview(coach, HEAD + "\n".join(rows)).json()["rows"]]


def test_a_file_is_shown_row_by_row_and_then_taken_with_its_groups(coach):
    told = preview(coach, TWO).json()
    assert told["columns"] == ["name", "year of birth", "mass", "level", "sport", "sex", "groups"]
    assert [(row["line"], row["name"], row["faults"]) for row in told["rows"]] == [
        (2, "Ada Quay", []),
        (3, "Ben Moor", []),
    ]
    assert told["rows"][0]["told"] == ["1996", "62.5 kg", "club", "boxer, 63 kg", "female", "Tuesday", "Beginners"]
    assert Person.objects.count() == 0, "nothing is kept of a look"
    assert take(coach, TWO).json() == {"people": 2}
    ada, ben = Person.objects.order_by("name")
    assert (ada.birth_year, ada.mass_kg, ada.level, ada.sport, ada.sex) == (
        1996,
        62.5,
        "club",
        "boxer, 63 kg",
        "female",
    )
    assert ben.sex == "male"
    assert {group.name: group.people.count() for group in Group.objects.all()} == {"Tuesday": 2, "Beginners": 1}


@pytest.mark.parametrize(
    "text",
    [
        "\ufeffAthlete;Born;Weight (kg);Level\r\nAda Quay;12.04.1996;62,5;Club\r\n",
        "Athlete\tDate of birth\tMass kg\tLEVEL\nAda Quay\t1996-04-12\t62.5 kg\tclub\n",
        "level,mass,name,year of birth\nclub,62.5,  Ada Quay ,1996\n\n\n",
    ],
    ids=["spreadsheet of a land with decimal commas", "tabs and dates", "another order, and empty lines"],
)
def test_it_is_read_as_the_worlds_spreadsheets_write_it(coach, text):
    assert take(coach, text).status_code == 201
    (ada,) = Person.objects.all()
    assert (ada.name, ada.birth_year, ada.mass_kg, ada.level) == ("Ada Quay", 1996, 62.5, "club")


def test_every_bad_row_is_named_with_its_cure(coach):
    year = timezone.localdate().year
    found = faults(
        coach,
        "Ada Quay,96,62.5,club,,,",
        "Ben Moor,1988,heavy,expert,,,",
        ",1988,81,club,,,",
        f"Cleo Ray,{year - 3},20,club,,,",
        "Dan Oak,1990,81,club,,unknown,",
    )
    assert found[0] == ["year of birth: “96” cannot be. Write the year, such as 1996."]
    assert [said.split(":")[0] for said in found[1]] == ["mass", "level"]
    assert "beginner, club or fighter" in found[1][1]
    assert found[2] == ["name is empty. Write who it is."]
    assert "Write kilograms between 25 and 250" in found[3][0]
    assert "female or male" in found[4][0]
    assert "That makes 3 years" in faults(coach, f"Cleo Ray,{year - 3},30,club,,,")[0][0]


def test_with_one_bad_row_nobody_is_taken_until_it_is_left_out(coach):
    text = TWO + "Cleo Ray,,60,club,,,Friday\n"
    refused = fault(take(coach, text))
    assert refused["msg"].startswith("Line 4: year of birth is empty.")
    assert (Person.objects.count(), Group.objects.count()) == (0, 0)
    assert take(coach, text, 4).json() == {"people": 2}


def test_whoever_is_there_already_or_twice_in_the_file_is_not_made_twice(coach):
    coach.person("ada quay", birth_year=1996)
    rows = preview(coach, TWO + "Ben Moor,1988,81,club,,,\n").json()["rows"]
    assert [bool(row["faults"]) for row in rows] == [True, False, True]
    assert "already" in rows[0]["faults"][0]
    assert take(coach, TWO, 2).json() == {"people": 1}


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("name,level\nAda,club\n", "no column for year of birth, mass"),
        (HEAD, "nobody below them"),
        ("name,athlete,year of birth,mass,level\nA,B,1996,60,club\n", "Two columns mean name"),
        (HEAD + 'Ada,1996,60,club,"boxer\n', "This is no table"),
        (HEAD + "Ada,1996,60,club,,,\n" * 1001, "1001 rows; 1000 at a time"),
        ("%PDF-1.7 something else altogether", "no column for name"),
    ],
)
def test_what_is_no_list_of_people_says_why(coach, text, said):
    for answer in (preview(coach, text), take(coach, text)):
        assert said in fault(answer)["msg"]
    assert Person.objects.count() == 0


def test_the_same_file_sent_again_under_its_key_makes_nobody_twice(coach):
    for _ in range(2):
        answer = coach.client.post("/api/people/csv", {"text": TWO}, content_type="application/json",
                                   headers={"Idempotency-Key": "one"})  # fmt: skip
        assert answer.json() == {"people": 2}
    assert Person.objects.count() == 2


def test_columns_that_mean_nothing_here_are_named_and_left_alone(coach):
    text = "name,year of birth,mass,level,Illness,Shoe size\nAda Quay,1996,60,club,none,39\n"
    assert preview(coach, text).json()["unknown"] == ["Illness", "Shoe size"]
    assert take(coach, text).status_code == 201
