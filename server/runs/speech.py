"""Speech: phrases said by espeak-ng, each made once and kept by its content, as small loud files."""

import hashlib
import io
import shutil
import subprocess
import time
import wave
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from django.core.files.base import ContentFile, File
from django.core.files.storage import Storage, storages

PROGRAM = "espeak-ng"
VOICE = "en-gb"
WORDS_A_MINUTE = 160
PITCH = 42
MADE_AS = 1
"""Counts the ways phrases were made, so that another way makes them anew."""
DRIVE = 3.0
"""How far the voice is pressed towards full loudness, so that it carries in a hall. Own setting."""
QUIET = 0.01
LONGEST_TEXT = 300
TIMEOUT_S = 20
MOST_PHRASES = 600
"""Of one session; more is not said."""
WAITED_FOR_S = 8.0
"""A plan waits no longer for speech that is not made yet; the rest is made beside it."""
KEPT_S = 120 * 86_400
MOST_BYTES = 300_000_000
ASKED_AGAIN_S = 86_400


def phrase_id(text: str) -> str:
    """Of the file that says the text in this voice: 24 hexadecimal figures."""
    return hashlib.sha256(f"{MADE_AS} {VOICE} {WORDS_A_MINUTE} {PITCH} {text}".encode()).hexdigest()[:24]


def kept() -> Storage:
    """Where phrases are kept."""
    return storages["speech"]


def name_of(phrase: str) -> str:
    return f"{phrase}.wav"


def is_kept(phrase: str) -> bool:
    return kept().exists(name_of(phrase))


def opened(phrase: str) -> "File[bytes]":
    return kept().open(name_of(phrase))


def _asked_for(name: str) -> None:
    """Its time is when it was last asked for, so that what is used stays."""
    if time.time() - kept().get_modified_time(name).timestamp() > ASKED_AGAIN_S:
        with kept().open(name) as again:
            kept().save(name, ContentFile(again.read()))


def available() -> bool:
    return shutil.which(PROGRAM) is not None


def _pressed(samples: np.ndarray) -> np.ndarray:
    """Trimmed of silence, loud and even, with soft ends."""
    heard = np.flatnonzero(np.abs(samples) > QUIET)
    if len(heard):
        samples = samples[heard[0] : heard[-1] + 1]
    peak = float(np.max(np.abs(samples), initial=0.0)) or 1.0
    loud = np.tanh(DRIVE * samples / peak) / np.tanh(DRIVE)
    edge = min(64, len(loud) // 2)
    if edge:
        ramp = np.linspace(0, 1, edge)
        loud[:edge] *= ramp
        loud[-edge:] *= ramp[::-1]
    return np.asarray(0.95 * loud)


def _said(text: str) -> bytes:
    command = [PROGRAM, "-v", VOICE, "-s", str(WORDS_A_MINUTE), "-p", str(PITCH), "--stdin", "--stdout"]
    raw = subprocess.run(command, input=text.encode(), capture_output=True, timeout=TIMEOUT_S, check=True).stdout
    # What is streamed has no true length in its head, so the frames are taken as they come.
    with wave.open(io.BytesIO(raw)) as spoken:
        rate = spoken.getframerate()
    samples = np.frombuffer(raw[44 : 44 + (len(raw) - 44) // 2 * 2], dtype="<i2") / 32768
    out = io.BytesIO()
    with wave.open(out, "wb") as written:
        written.setnchannels(1)
        written.setsampwidth(2)
        written.setframerate(rate)
        written.writeframes((32767 * _pressed(samples)).astype("<i2").tobytes())
    return out.getvalue()


def speak(text: str) -> str | None:
    """The id of the file that says the text, made where it is not there yet; None where there is no voice."""
    phrase = phrase_id(text)
    if is_kept(phrase):
        _asked_for(name_of(phrase))
        return phrase
    if not available() or not text.strip() or len(text) > LONGEST_TEXT:
        return None
    try:
        sound = _said(text)
    except (subprocess.SubprocessError, OSError, wave.Error):
        return None
    kept().save(name_of(phrase), ContentFile(sound))
    return phrase


@dataclass(frozen=True)
class Speeches:
    """Phrases by what they say: the files that say them, or will as soon as they are made."""

    files: dict[str, str]
    silent: str | None
    """Why there is no speech; None where there is."""
    missing: bool
    """Some are not made yet."""


def speeches(texts: Iterable[str], within_s: float | None = WAITED_FOR_S) -> Speeches:
    """What says these, made where it is not there yet, for as long as anybody waits.

    What cannot be made is told, and stops no run: a full disk gives a run with its bells alone.
    """
    several = list(dict.fromkeys(texts))[:MOST_PHRASES]
    if not available():
        return Speeches({}, "This server has no voice.", False)
    files: dict[str, str] = {}
    until = None if within_s is None else time.monotonic() + within_s
    missing = False
    try:
        for text in several:
            late = until is not None and time.monotonic() > until
            phrase = phrase_id(text) if late else speak(text)
            if phrase is not None:
                files[text] = phrase
                missing = missing or (late and not is_kept(phrase))
    except OSError as error:
        return Speeches({}, f"Words cannot be kept on the server ({error.strerror}).", False)
    return Speeches(files, None, missing)


def evict(now: float | None = None) -> int:
    """Takes away phrases that nobody has asked for in months, and the oldest where all are too much. Gives how many."""
    try:
        _, names = kept().listdir("")
    except FileNotFoundError:
        return 0
    aged = sorted((kept().get_modified_time(name).timestamp(), kept().size(name), name) for name in names)
    oldest = (now or time.time()) - KEPT_S
    room = sum(size for _, size, _ in aged) - MOST_BYTES
    gone = 0
    for asked_at, size, name in aged:
        if asked_at >= oldest and room <= 0:
            break
        kept().delete(name)
        room -= size
        gone += 1
    return gone
