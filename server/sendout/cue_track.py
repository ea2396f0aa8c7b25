"""A cue track: the session as a sound file for the hall's speakers, written in chunks."""

import hashlib
import json
import tempfile
from collections.abc import Callable, Iterator
from contextlib import ExitStack
from functools import lru_cache
from pathlib import Path
from typing import BinaryIO, Literal, cast, get_args

import numpy as np
import soundfile
from django.core.files.base import File
from django.core.files.storage import Storage, storages
from mutagen.flac import FLAC
from mutagen.id3 import CHAP, CTOC, ID3, TIT2, CTOCFlags
from mutagen.oggopus import OggOpus

from server.runs.speech import MADE_AS, opened, speak
from server.sendout.music import Bed, music_name
from yoisho.runs.calls import Settings
from yoisho.runs.cues import COUNT_IN_S
from yoisho.runs.plan import Plan
from yoisho.runs.sound import RATE, Samples, ducked, events, length_s, track
from yoisho.session.document import to_document

Form = Literal["opus", "mp3", "flac", "wav"]
FORMS: tuple[Form, ...] = get_args(Form)
MEDIA: dict[Form, str] = {"opus": "audio/ogg", "mp3": "audio/mpeg", "flac": "audio/flac", "wav": "audio/wav"}
_WRITTEN: dict[Form, tuple[str, str]] = {
    "opus": ("OGG", "OPUS"), "mp3": ("MP3", "MPEG_LAYER_III"), "flac": ("FLAC", "PCM_16"), "wav": ("WAV", "PCM_16"),
}  # fmt: skip
TRACK_AS = 1
"""Counts the ways tracks were made, so that another way makes them anew."""
PHRASES_HELD = 48


class CancelledError(Exception):
    """Nobody wants it any more."""


def kept() -> Storage:
    """Where tracks are kept, and the music under them."""
    return storages["tracks"]


def digest_of(plan: Plan, called: Settings, form: Form, pulse: bool, music: str = "") -> str:
    """Of all that the sound of a track hangs on: two that would sound the same are one file."""
    told = [
        TRACK_AS,
        MADE_AS,
        form,
        pulse,
        music,
        sorted(called.muted),
        called.combination_every_s,
        to_document(plan.session),
    ]
    return hashlib.sha256(json.dumps(told, sort_keys=True).encode()).hexdigest()[:32]


def track_name(digest: str, form: Form) -> str:
    return f"{digest}.{form}"


@lru_cache(PHRASES_HELD)
def _said(phrase: str) -> Samples:
    # It takes over a second to load, and only who makes a track needs it.
    from scipy.signal import resample_poly

    with opened(phrase) as file:
        samples, rate = soundfile.read(file, dtype="float32")
    up, down = RATE // int(np.gcd(RATE, rate)), rate // int(np.gcd(RATE, rate))
    found = resample_poly(samples, up, down)
    return np.asarray(found / max(1.0, float(np.abs(found).max(initial=0.0))), dtype=np.float32)


def said(text: str) -> Samples | None:
    """The speech of a text; None where the server has no voice."""
    phrase = speak(text)
    return None if phrase is None else _said(phrase)


def _chapters(plan: Plan) -> Iterator[tuple[float, float, str]]:
    """Start, end [s of the track] and name of each part; the count-in belongs to the first."""
    starts: list[tuple[float, str]] = []
    for interval in plan.timeline.intervals:
        if interval.part == len(starts):
            name = plan.session.parts[interval.part].name or f"Part {interval.part + 1}"
            starts.append((COUNT_IN_S + interval.start_s if starts else 0.0, name))
    ends = [start for start, _ in starts[1:]] + [length_s(plan.timeline.total_s)]
    for (start, name), end in zip(starts, ends, strict=True):
        yield start, end, name


def _moment(seconds: float) -> str:
    whole, thousandths = divmod(round(1000 * seconds), 1000)
    return f"{whole // 3600:02d}:{whole // 60 % 60:02d}:{whole % 60:02d}.{thousandths:03d}"


def _mark(path: Path, form: Form, plan: Plan) -> None:
    """Title and chapters, where the format has them: comments of Ogg and FLAC, frames of MP3."""
    title = plan.session.title
    if form in ("opus", "flac"):
        file = OggOpus(path) if form == "opus" else FLAC(path)
        file["title"] = title
        for number, (start, _, name) in enumerate(_chapters(plan), 1):
            file[f"CHAPTER{number:03d}"] = _moment(start)
            file[f"CHAPTER{number:03d}NAME"] = name
        file.save()
    elif form == "mp3":
        tags = ID3()
        tags.add(TIT2(text=title))
        ids = []
        for number, (start, end, name) in enumerate(_chapters(plan), 1):
            ids.append(f"chapter{number}")
            tags.add(CHAP(element_id=ids[-1], start_time=round(1000 * start), end_time=round(1000 * end),
                          sub_frames=[TIT2(text=name)]))  # fmt: skip
        tags.add(CTOC(element_id="all", flags=CTOCFlags.TOP_LEVEL | CTOCFlags.ORDERED, child_element_ids=ids,
                      sub_frames=[]))  # fmt: skip
        tags.save(path)


def write_track(
    plan: Plan, called: Settings, form: Form, pulse: bool, moved: Callable[[float], None], music: str = ""
) -> str:
    """Makes the file, unless it is there; gives its digest. `moved` is told how far it is, 0 to 1, and may raise to
    stop it.

    `music` is the name of what lies underneath, as it was kept; empty for none.
    """
    digest = digest_of(plan, called, form, pulse, music)
    name = track_name(digest, form)
    if kept().exists(name):
        return digest
    total_s = float(plan.timeline.total_s)
    calls = plan.calls(called)
    sounding = events(plan.timeline, plan.cues, calls, called.muted, said, pulse=pulse)
    kind, subtype = _WRITTEN[form]
    done, all_of = 0, RATE * length_s(total_s)
    with ExitStack() as held:
        half = Path(held.enter_context(tempfile.TemporaryDirectory(prefix="yoisho-track-"))) / name
        bed = Bed(cast(BinaryIO, held.enter_context(kept().open(music_name(music))))) if music else None
        with soundfile.SoundFile(half, "w", RATE, 1, format=kind, subtype=subtype) as file:
            for chunk in track(sounding, total_s, bed=bed, ducking=ducked(calls)):
                file.write(chunk)
                done += len(chunk)
                moved(min(1.0, done / all_of))
        _mark(half, form, plan)
        kept().save(name, File(held.enter_context(half.open("rb"))))
    return digest
