"""A camp as a calendar that others follow (RFC 5545), and as a table. Nothing of health is in either feed."""

from datetime import datetime, timedelta
from typing import Literal
from zoneinfo import ZoneInfo

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from icalendar import Calendar, Event
from ninja import Router, Status
from ninja.errors import HttpError

from server.accounts.current import coach
from server.accounts.once import once
from server.camp.asked import at_of, whose
from server.camp.keep import Held, Kept, find_camp, word_of
from server.camp.models import Camp, CampFeed, CampSession
from server.camp.schemas import FeedOut
from server.camp.told import placed_out
from server.errors import Faults, FieldError, Message, not_found
from server.files import named, table
from yoisho.camp.camp import WEEKDAYS
from yoisho.camp.plain_choices import cost_from_plain
from yoisho.strikes.counts import Limb

router = Router(tags=["camp"])
MOST_FEEDS = 20
REFRESH = timedelta(hours=1)


def _event(row: CampSession, kept: Kept, zone: ZoneInfo, knob: str) -> Event:
    hour = at_of(kept.asked).get(WEEKDAYS[row.on.weekday()])
    at = row.planned.at if row.planned is not None else hour or next(iter(at_of(kept.asked).values()))
    starts = datetime.combine(row.on, at, zone)
    seconds = cost_from_plain(row.cost).total_s
    event = Event()
    # The same for as long as there is the camp, whatever is changed of it.
    event.add("uid", f"camp-{row.uid}@yoisho")
    event.add("dtstamp", row.changed_at)
    event.add("last-modified", row.changed_at)
    event.add("sequence", row.sequence)
    event.add("status", "CANCELLED" if row.cancelled_at or row.skipped else "CONFIRMED")
    event.add("dtstart", starts)
    event.add("dtend", starts + timedelta(seconds=max(60, seconds)))
    event.add("summary", word_of(row.purpose).capitalize())
    event.add("description", knob)
    return event


def calendar(camp: Camp) -> bytes:
    """Every session of the camp, and those that were taken out, as cancelled."""
    kept = Kept(camp)
    zone = ZoneInfo(camp.club.time_zone)
    found = Calendar()
    found.add("prodid", "-//Yoisho//Camp//EN")
    found.add("version", "2.0")
    found.add("method", "PUBLISH")
    bout = kept.core.bout_on
    found.add("x-wr-calname", f"Camp to {bout:%Y-%m-%d}" if bout else "Block of weeks")
    found.add("refresh-interval", REFRESH, parameters={"VALUE": "DURATION"})
    knobs = {each.row.pk: placed_out(each, kept).knob for each in kept.held}
    for row in camp.sessions.select_related("planned"):
        found.add_component(_event(row, kept, zone, knobs.get(row.pk, "")))
    found.add_missing_timezones()
    return bytes(found.to_ical())


HEAD = (
    "date", "weekday", "time", "week", "phase", "purpose", "knobs", "minutes", "load_planned", "load", "rpe_done",
    "left_hand", "right_hand", "left_leg", "right_leg", "lactic", "state",
)  # fmt: skip


LIMB_COLUMNS: tuple[Limb, ...] = ("left hand", "right hand", "left leg", "right leg")


def _row(held: Held, kept: Kept) -> tuple[object, ...]:
    told, row = placed_out(held, kept), held.row
    week = kept.core.week_of(row.on) if kept.core.start <= row.on <= kept.core.last else None
    state = "done" if told.done else "skipped" if told.skipped else "missed" if told.missed else "planned"
    return (
        row.on.isoformat(), WEEKDAYS[row.on.weekday()], row.planned.at.strftime("%H:%M") if row.planned else "",
        week.number if week else "", week.phase if week else "", told.word, told.knob, told.minutes, told.planned_load,
        told.load, told.done.rpe if told.done else "", *(told.limbs.get(limb, 0) for limb in LIMB_COLUMNS),
        "yes" if told.lactic else "no", state,
    )  # fmt: skip


def as_csv(camp: Camp) -> str:
    """A row for each session, in the order of their days."""
    kept = Kept(camp)
    return table(HEAD, (_row(held, kept) for held in kept.held))


@router.get("/camps/{camp_id}/file", response={200: None, 404: Message}, operation_id="camp_file")
def camp_file(request: HttpRequest, camp_id: int, form: Literal["ics", "csv"] = "ics") -> HttpResponse:
    """The camp as a calendar or a table."""
    camp = find_camp(coach(request).own_club, camp_id)
    title = f"camp {whose(camp).name}"
    if form == "csv":
        return named(HttpResponse(as_csv(camp), content_type="text/csv; charset=utf-8"), title, ".csv", "camp")
    return named(HttpResponse(calendar(camp), content_type="text/calendar; charset=utf-8"), title, ".ics", "camp")


def _out(request: HttpRequest, feed: CampFeed) -> FeedOut:
    base = settings.ADDRESS or f"{request.scheme}://{request.get_host()}"
    return FeedOut(
        id=feed.pk, address=f"{base}/api/camp-feeds/{feed.token}.ics", made_at=feed.made_at,
        revoked=feed.revoked_at is not None,
    )  # fmt: skip


@router.get("/camps/{camp_id}/feeds", response={200: list[FeedOut], 404: Message}, operation_id="camp_feeds")
def camp_feeds(request: HttpRequest, camp_id: int) -> list[FeedOut]:
    """Every address that a calendar follows, the newest first; those taken back too."""
    camp = find_camp(coach(request).own_club, camp_id)
    return [_out(request, feed) for feed in camp.feeds.all()]


@router.post(
    "/camps/{camp_id}/feeds", response={201: FeedOut, 404: Message, 422: Faults}, operation_id="make_camp_feed"
)
@once
def make_camp_feed(request: HttpRequest, camp_id: int) -> Status[FeedOut]:
    """A secret address. Whoever has it sees days and sessions, no name and nothing of health."""
    user = coach(request)
    camp = find_camp(user.own_club, camp_id)
    if camp.feeds.filter(revoked_at=None).count() >= MOST_FEEDS:
        raise FieldError(["body"], f"{MOST_FEEDS} addresses of this camp are open. Take back one first.", "feed")
    return Status(201, _out(request, CampFeed.objects.create(camp=camp, made_by=user)))


@router.delete(
    "/camps/{camp_id}/feeds/{feed_id}", response={200: FeedOut, 404: Message}, operation_id="take_back_camp_feed"
)
def take_back_camp_feed(request: HttpRequest, camp_id: int, feed_id: int) -> FeedOut:
    """From now on it tells nothing."""
    feed = find_camp(coach(request).own_club, camp_id).feeds.filter(pk=feed_id).first()
    if feed is None:
        raise not_found("address")
    feed.revoked_at = feed.revoked_at or timezone.now()
    feed.save(update_fields=["revoked_at"])
    return _out(request, feed)


@router.get(
    "/camp-feeds/{token}.ics",
    auth=None,
    response={200: None, 404: Message, 410: Message},
    operation_id="follow_camp_feed",
)
def follow_camp_feed(request: HttpRequest, token: str) -> HttpResponse:
    """The camp as a calendar, for whoever has the address."""
    feed = CampFeed.objects.filter(token=token).select_related("camp__club", "camp__person", "camp__group").first()
    if feed is None:
        raise HttpError(404, "There is no such calendar. Ask whoever sent the address.")
    if feed.revoked_at is not None:
        raise HttpError(410, "This calendar was taken back. Ask whoever sent the address for a new one.")
    answer = HttpResponse(calendar(feed.camp), content_type="text/calendar; charset=utf-8")
    answer.headers["X-Robots-Tag"] = "noindex"
    answer.headers["Cache-Control"] = "private, no-cache"
    return answer
