"""Who asks is looked up by questions that are written once: they find what Django's own find, and no more."""

from datetime import timedelta

import pytest
from django.contrib.auth import get_user_model
from django.contrib.sessions.models import Session
from django.utils import timezone

from server.accounts.backend import CoachBackend
from server.accounts.models import User
from tests.server.conftest import Coach


def kept(row) -> dict:
    return {field.attname: getattr(row, field.attname) for field in row._meta.concrete_fields}


def test_a_member_is_found_field_for_field_with_their_club_in_one_question(coach: Coach, django_assert_num_queries):
    coach.user.email, coach.user.role = "odd@hall.example", "coach"
    coach.user.save()
    with django_assert_num_queries(1):
        found = CoachBackend().get_user(coach.user.pk)
        club = found.club
    assert kept(found) == kept(User.objects.get(pk=coach.user.pk))
    assert kept(club) == kept(coach.club)
    found.first_name = "Even"
    found.save()
    assert User.objects.get(pk=coach.user.pk).first_name == "Even", "it is a row as any other"


@pytest.mark.django_db
def test_who_is_in_no_club_is_found_without_one_and_who_may_not_sign_in_is_not():
    alone = get_user_model().objects.create(username="alone")
    assert CoachBackend().get_user(alone.pk).club is None
    alone.is_active = False
    alone.save()
    assert CoachBackend().get_user(alone.pk) is None
    assert CoachBackend().get_user(alone.pk + 1) is None


def test_a_session_is_open_until_its_day_and_no_other_opens_in_its_place(coach: Coach):
    assert coach.client.get("/api/sessions").status_code == 200
    Session.objects.update(expire_date=timezone.now() + timedelta(seconds=9))
    assert coach.client.get("/api/sessions").status_code == 200
    coach.client.cookies["sessionid"] = "x" * 32
    assert coach.client.get("/api/sessions").status_code == 401


def test_a_session_past_its_day_is_closed(coach: Coach):
    Session.objects.update(expire_date=timezone.now() - timedelta(seconds=1))
    assert coach.client.get("/api/sessions").status_code == 401
