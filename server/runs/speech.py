"""Speech: phrases said by espeak-ng, each made once and kept by its content, as small loud files."""

import hashlib
import io
import os
import shutil
import subprocess
import time
import wave
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path

import numpy as np
from django.conf import settings

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


def path_of(phrase: str) -> Path:
    return folder() / f"{phrase}.wav"


def folder() -> Path:
    return Path(settings.SPEECH)


def _asked_for(path: Path) -> None:
    """Its time is when it was last asked for, so that what is used stays."""
    if time.time() - path.stat().st_mtime > ASKED_AGAIN_S:
        path.touch()


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
    path = path_of(phrase)
    if path.exists():
        _asked_for(path)
        return phrase
    if not available() or not text.strip() or len(text) > LONGEST_TEXT:
        return None
    try:
        sound = _said(text)
    except (subprocess.SubprocessError, OSError, wave.Error):
        return None
    half = path.with_suffix(f".{os.getpid()}.{id(sound)}.part")
    path.parent.mkdir(parents=True, exist_ok=True)
    try:
        half.write_bytes(sound)
        half.replace(path)
    except OSError:
        half.unlink(missing_ok=True)
        raise
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
                missing = missing or (late and not path_of(phrase).exists())
    except OSError as error:
        return Speeches({}, f"Words cannot be kept on the server ({error.strerror}).", False)
    return Speeches(files, None, missing)


def evict(now: float | None = None) -> int:
    """Takes away phrases that nobody has asked for in months, and the oldest where all are too much. Gives how many."""
    if not folder().is_dir():
        return 0
    kept = sorted(((path.stat(), path) for path in folder().glob("*.wav")), key=lambda each: each[0].st_mtime)
    oldest = (now or time.time()) - KEPT_S
    room = sum(stat.st_size for stat, _ in kept) - MOST_BYTES
    gone = 0
    for stat, path in kept:
        if stat.st_mtime >= oldest and room <= 0:
            break
        path.unlink(missing_ok=True)
        room -= stat.st_size
        gone += 1
    return gone
