"""A coach's own music under a cue track: looked at before anything is kept, read a little at a time."""

import hashlib
import math
from typing import BinaryIO

import numpy as np
import soundfile
from django.core.files.base import File
from django.core.files.storage import storages

from yoisho.runs.sound import RATE, Samples

MOST_BYTES = 150_000_000
LONGEST_S = 2 * 3600.0
SHORTEST_S = 2.0
LOUDNESS_RMS = 0.09
"""Of the music, so that bells and calls stand out of it."""
HIGHEST = 0.32
"""No sample of it is louder."""
HEARD_S = 60.0
"""Of it is listened to for its loudness."""
_PAD = 1024


class MusicError(ValueError):
    """Why a file is not taken, and what to do."""


def music_name(digest: str) -> str:
    return f"music/{digest}"


def look(file: BinaryIO, size: int | None) -> float:
    """How long it plays [s]. Raises `MusicError` for what cannot lie under a track."""
    if not size:
        raise MusicError("This file is empty.")
    if size > MOST_BYTES:
        raise MusicError(
            f"This file has {size // 1_000_000} MB; {MOST_BYTES // 1_000_000} is the most. Save it as MP3."
        )
    try:
        with soundfile.SoundFile(file) as opened:
            seconds = float(len(opened)) / float(opened.samplerate)
            opened.read(min(len(opened), opened.samplerate))
    except (soundfile.LibsndfileError, RuntimeError, TypeError) as error:
        raise MusicError("This is no music that can be read here: give MP3, FLAC, WAV, Ogg or Opus.") from error
    finally:
        file.seek(0)
    if seconds > LONGEST_S:
        raise MusicError(f"It plays for {seconds / 3600:.1f} hours; {LONGEST_S / 3600:.0f} is the most. Cut it.")
    if seconds < SHORTEST_S:
        raise MusicError(f"It plays for {seconds:.1f} s; {SHORTEST_S:.0f} is the least.")
    return seconds


def keep(file: BinaryIO) -> str:
    """Kept by its content; gives its name."""
    digest = hashlib.sha256()
    while chunk := file.read(1 << 20):
        digest.update(chunk)
    file.seek(0)
    name = digest.hexdigest()[:40]
    storages["tracks"].save(music_name(name), File(file))
    return name


class Bed:
    """Music of any rate at the track's own, from its start again and again, evenly loud."""

    def __init__(self, file: BinaryIO) -> None:
        self.file = soundfile.SoundFile(file)
        rate = self.file.samplerate
        shared = math.gcd(RATE, rate)
        self.up, self.down = RATE // shared, rate // shared
        self.pad = self.down * math.ceil(_PAD / self.down)
        heard = self._mono(min(len(self.file), round(HEARD_S * rate)))
        rms = float(np.sqrt(np.mean(np.square(heard)))) or 1.0
        self.gain = min(4.0, LOUDNESS_RMS / max(rms, 1e-4))
        self.file.seek(0)
        self.held = np.zeros(self.pad)
        """What comes before what is wanted next, so that chunks join without a click."""

    def _mono(self, frames: int) -> np.ndarray:
        """The next frames, from the start again at the end."""
        pieces, left = [], frames
        while left > 0:
            piece = self.file.read(left, dtype="float64", always_2d=True)
            if len(piece) == 0:
                self.file.seek(0)
                continue
            pieces.append(piece.mean(axis=1))
            left -= len(piece)
        return np.concatenate(pieces) if pieces else np.zeros(0)

    def __call__(self, samples: int) -> Samples:
        # It takes over a second to load, and only who makes a track needs it.
        from scipy.signal import resample_poly

        frames = math.ceil(samples * self.down / self.up)
        missing = 2 * self.pad + frames - len(self.held)
        self.held = np.concatenate([self.held, self._mono(missing)])
        found = resample_poly(self.held, self.up, self.down)
        first = self.pad * self.up // self.down
        self.held = self.held[frames:]
        return np.asarray(np.clip(self.gain * found[first : first + samples], -HIGHEST, HIGHEST), dtype=np.float32)
