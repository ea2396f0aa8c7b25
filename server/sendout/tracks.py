"""Cue tracks: asked for, followed while they are made, cancelled, fetched."""

import json
import time
from collections.abc import Iterator
from datetime import datetime
from typing import BinaryIO, cast

from django.db import connection
from django.http import FileResponse, HttpRequest, StreamingHttpResponse
from ninja import File, Router, Schema, Status
from ninja.files import UploadedFile

from server.accounts.current import club_of, coach
from server.accounts.models import Club
from server.accounts.once import once
from server.errors import Faults, FieldError, Message, not_found
from server.files import named
from server.jobs.later import later
from server.runs.kept import plan_for
from server.sendout.cue_track import MEDIA, Form, kept, track_name
from server.sendout.models import CueTrack, Music
from server.sendout.music import MusicError, keep, look
from server.sendout.tasks import make_track
from server.sessions.api import find_session
from server.streams import events
from yoisho.session.document import from_document

router = Router(tags=["send out"])
MOST_WAITING = 6
"""Of a club, that are not made yet."""
LOOK_EVERY_S = 0.4
LONGEST_WATCHED_S = 600.0
SHOWN = 5
MOST_MUSIC = 20


class TrackIn(Schema):
    session_id: int
    form: Form = "opus"
    pulse: bool = False
    music_id: int | None = None
    """What lies underneath."""


class MusicOut(Schema):
    id: int
    name: str
    seconds: float
    brought_at: datetime


class TrackOut(Schema):
    id: int
    form: str
    pulse: bool
    music: str | None
    """Its name."""
    state: CueTrack.State
    progress: float
    said: str
    asked_at: datetime
    stale: bool
    """The session was changed since."""


def _out(wanted: CueTrack) -> TrackOut:
    own = {name: getattr(wanted, name) for name in ("form", "pulse", "state", "progress", "said", "asked_at")}
    music = wanted.music.name if wanted.music else None
    return TrackOut(id=wanted.pk, music=music, stale=wanted.document != wanted.session.document, **own)


def _find(club: Club, track_id: int) -> CueTrack:
    return CueTrack.objects.find(club, "cue track", pk=track_id)


@router.get("/sessions/{session_id}/tracks", response={200: list[TrackOut], 404: Message}, operation_id="tracks")
def tracks(request: HttpRequest, session_id: int) -> list[TrackOut]:
    """The last cue tracks of a session, the newest first."""
    saved = find_session(club_of(request), session_id)
    found = saved.cue_tracks.exclude(state=CueTrack.State.CANCELLED).select_related("session", "music")
    return [_out(each) for each in found[:SHOWN]]


@router.post("/tracks", response={201: TrackOut, 404: Message, 422: Faults}, operation_id="make_track")
@once
def ask_for_track(request: HttpRequest, body: TrackIn) -> Status[TrackOut]:
    """The session as a sound file, made by the worker. One that is being made already is not made twice."""
    user = coach(request)
    saved = find_session(user.own_club, body.session_id)
    plan = plan_for(from_document(saved.document), 1, "body", "session_id")
    if not plan.timeline.intervals:
        raise FieldError(["body", "session_id"], "This session has no parts yet: there is nothing to hear.", "session")
    unfinished = CueTrack.objects.of(user.own_club).filter(state__in=(CueTrack.State.WAITING, CueTrack.State.MAKING))
    music = None if body.music_id is None else Music.objects.find(user.own_club, "music", pk=body.music_id)
    same = dict(
        session=saved, form=body.form, pulse=body.pulse, music=music, document=saved.document, calls=saved.calls
    )
    wanted = unfinished.filter(**same).first()
    if wanted is None:
        if unfinished.count() >= MOST_WAITING:
            raise FieldError(["body"], f"{MOST_WAITING} tracks are being made. Wait for one, or cancel one.", "track")
        wanted = CueTrack.objects.create(club=user.own_club, revision=saved.revision, asked_by=user, **same)
        later(make_track, f"track {wanted.pk}", track_id=wanted.pk)
    return Status(201, _out(wanted))


@router.get("/music", response=list[MusicOut], operation_id="music")
def music(request: HttpRequest) -> list[MusicOut]:
    """The club's own music that is kept for now, the newest first."""
    return [_music_out(each) for each in Music.objects.of(club_of(request))[:MOST_MUSIC]]


def _music_out(each: Music) -> MusicOut:
    return MusicOut(id=each.pk, name=each.name, seconds=each.seconds, brought_at=each.brought_at)


@router.post("/music", response={201: MusicOut, 422: Faults}, operation_id="bring_music")
def bring_music(request: HttpRequest, file: File[UploadedFile]) -> Status[MusicOut]:
    """Music of the coach's own, kept for a week to lie under cue tracks. It is looked at before it is kept."""
    club = coach(request).own_club
    opened = cast(BinaryIO, file.file)
    try:
        seconds = look(opened, file.size)
        if Music.objects.of(club).count() >= MOST_MUSIC:
            raise MusicError(f"{MOST_MUSIC} files are kept already. They go by themselves after a week.")
        digest = keep(opened)
    except MusicError as error:
        raise FieldError(["file"], str(error), "music") from error
    except OSError as error:
        said = f"The server could not keep the file ({error.strerror or error}). Try again later."
        raise FieldError(["file"], said, "music") from error
    name = (file.name or "music").replace("\0", "")[:120]
    return Status(201, _music_out(Music.objects.create(club=club, digest=digest, name=name, seconds=seconds)))


@router.get("/tracks/{track_id}", response={200: TrackOut, 404: Message}, operation_id="track")
def track(request: HttpRequest, track_id: int) -> TrackOut:
    return _out(_find(club_of(request), track_id))


@router.delete("/tracks/{track_id}", response={200: TrackOut, 404: Message}, operation_id="cancel_track")
def cancel_track(request: HttpRequest, track_id: int) -> TrackOut:
    """The making stops; nothing is kept of it. One that is made is taken off the list."""
    wanted = _find(club_of(request), track_id)
    wanted.state = CueTrack.State.CANCELLED
    wanted.save(update_fields=["state"])
    return _out(wanted)


def _follow(club: Club, track_id: int) -> Iterator[bytes]:
    last, until = None, time.monotonic() + LONGEST_WATCHED_S
    while time.monotonic() < until:
        wanted = CueTrack.objects.of(club).filter(pk=track_id).select_related("session", "music").first()
        # Making may take a minute: the connection is not held meanwhile.
        connection.close()
        if wanted is None:
            return
        now = wanted.state, round(wanted.progress, 2)
        if now != last:
            yield f"data: {json.dumps(_out(wanted).model_dump(mode='json'))}\n\n".encode()
            last = now
        if wanted.over:
            return
        time.sleep(LOOK_EVERY_S)


@router.get("/tracks/{track_id}/events", response={200: None, 404: Message}, operation_id="follow_track")
def follow_track(request: HttpRequest, track_id: int) -> StreamingHttpResponse:
    """How far it is, as server-sent events, until it is made."""
    wanted = _find(club_of(request), track_id)
    return events(_follow(wanted.club, wanted.pk))


@router.get("/tracks/{track_id}/file", response={200: None, 404: Message}, operation_id="track_file")
def track_file(request: HttpRequest, track_id: int) -> FileResponse:
    """The sound file. 404 where it is not made yet, or was cleared after a week."""
    wanted = _find(club_of(request), track_id)
    form: Form = wanted.form  # type: ignore[assignment]
    name = track_name(wanted.digest, form)
    if wanted.state != CueTrack.State.DONE or not kept().exists(name):
        raise not_found("file of this track")
    answer = FileResponse(kept().open(name), content_type=MEDIA[form])
    return named(answer, wanted.document.get("title", ""), f".{form}", "session")
