"""Heart rate from a file: FIT, TCX, or a table as CSV. Nothing of a file but time, heart rate, pauses and laps is read.

What cannot be read is refused whole, with what and where; gaps stay gaps.
"""

import csv
import io
import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

import fitdecode
from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException

MOST_BYTES = 20_000_000
MOST_READINGS = 100_000
LONGEST_S = 24 * 3600
BEATS = 25, 250
"""What a strap can have told [bpm]; other values are moments without a signal."""


class HeartFileError(ValueError):
    """A file that cannot be used: what, where, and how to mend it."""


@dataclass(frozen=True)
class HeartFile:
    """What a file tells. Times are seconds from its first reading."""

    kind: str
    """FIT, TCX or CSV."""
    started_at: datetime | None
    """Of its first reading; None where it has no clock."""
    heart: tuple[tuple[float, float], ...]
    """Second and heart rate [bpm], in order."""
    pauses: tuple[tuple[float, float], ...] = ()
    """Where its own clock stood."""
    laps: tuple[float, ...] = ()
    """Where each begins, but for the first."""


Moment = tuple[datetime | float, float | None]
"""When, by a clock or from the start [s], and the heart rate, if there was one."""


def _of_moments(
    kind: str, moments: list[Moment], pauses: list[tuple[datetime, datetime]], laps: list[datetime]
) -> HeartFile:
    heard = [(at, float(bpm)) for at, bpm in moments if bpm is not None and BEATS[0] <= bpm <= BEATS[1]]
    if not heard:
        raise HeartFileError(f"There is no heart rate in this {kind} file. Was a strap on when it was recorded?")
    first = heard[0][0]
    begun = first if isinstance(first, datetime) else None

    def seconds(at: datetime | float) -> float:
        if isinstance(at, datetime):
            assert begun is not None
            return (at - begun).total_seconds()
        assert not isinstance(first, datetime)
        return at - first

    heart = sorted({seconds(at): bpm for at, bpm in heard}.items())
    if heart[-1][0] - heart[0][0] > LONGEST_S:
        raise HeartFileError("This file is longer than a day. Cut it to the session, and bring that.")
    if len(heart) > MOST_READINGS:
        raise HeartFileError(
            f"This file has more than {MOST_READINGS} readings. Cut it to the session, and bring that."
        )
    spans = tuple((seconds(a), seconds(b)) for a, b in pauses) if begun else ()
    later = tuple(at for lap in laps if begun and (at := seconds(lap)) > 0)
    return HeartFile(kind, begun, tuple(heart), spans, later)


def _aware(at: datetime) -> datetime:
    return at if at.tzinfo else at.replace(tzinfo=UTC)


def _fit(data: bytes) -> HeartFile:
    moments: list[Moment] = []
    laps: list[datetime] = []
    pauses: list[tuple[datetime, datetime]] = []
    stopped: datetime | None = None
    try:
        with fitdecode.FitReader(io.BytesIO(data), check_crc=fitdecode.CrcCheck.RAISE) as frames:
            for frame in frames:
                if frame.frame_type != fitdecode.FIT_FRAME_DATA:
                    continue
                at = frame.get_value("timestamp", fallback=None)
                if not isinstance(at, datetime):
                    continue
                if frame.name == "record":
                    moments.append((_aware(at), frame.get_value("heart_rate", fallback=None)))
                elif frame.name == "lap":
                    began = frame.get_value("start_time", fallback=None)
                    laps += [_aware(began)] if isinstance(began, datetime) else []
                elif frame.name == "event" and frame.get_value("event", fallback=None) == "timer":
                    what = str(frame.get_value("event_type", fallback=""))
                    if what.startswith("stop"):
                        stopped = _aware(at)
                    elif what == "start" and stopped is not None:
                        pauses.append((stopped, _aware(at)))
                        stopped = None
    except (fitdecode.FitError, ValueError, KeyError, IndexError) as error:
        raise HeartFileError(
            f"This FIT file is torn after {len(moments)} readings ({_short(error)}). Copy it from the device again."
        ) from None
    return _of_moments("FIT", moments, pauses, laps)


def _short(error: Exception) -> str:
    return (str(error) or type(error).__name__).split("\n")[0][:80]


def _tcx(data: bytes) -> HeartFile:
    try:
        root = ElementTree.fromstring(data)
    except ElementTree.ParseError as error:
        line, column = error.position
        raise HeartFileError(
            f"Line {line}, character {column + 1}: this is not whole XML. Save the TCX file again."
        ) from None
    except (DefusedXmlException, ValueError):
        raise HeartFileError("This file has what a TCX file never has (entities), and is not read.") from None
    moments: list[Moment] = []
    laps: list[datetime] = []
    if _name(root) != "TrainingCenterDatabase":
        raise HeartFileError(f"This is XML, but no TCX: it begins with {_name(root)}. Save it as TCX or FIT.")
    for each in root.iter():
        if _name(each) == "Lap" and (told := each.get("StartTime")):
            laps.append(_iso(told, "a lap"))
        if _name(each) != "Trackpoint":
            continue
        inside = {_name(child): child for child in each.iter()}
        at, beat = inside.get("Time"), inside.get("HeartRateBpm")
        value = (
            next((child.text for child in beat.iter() if _name(child) == "Value"), None) if beat is not None else None
        )
        if at is not None and at.text:
            moments.append((_iso(at.text, f"reading {len(moments) + 1}"), _beats(value)))
    return _of_moments("TCX", moments, [], laps)


def _name(element: Any) -> str:
    return str(element.tag).rpartition("}")[2]


def _iso(told: str, where: str) -> datetime:
    try:
        return _aware(datetime.fromisoformat(told.strip()))
    except ValueError:
        raise HeartFileError(f"{told.strip()[:40]}, of {where}, is no time such as 2026-03-02T18:00:00Z.") from None


def _beats(told: str | None) -> float | None:
    """None where there is none; the rest is for whoever reads it."""
    text = (told or "").strip().replace(",", ".")
    try:
        return float(text) if text else None
    except ValueError:
        return None


TIMES = "time", "timestamp", "seconds", "second", "sec", "s", "elapsed", "elapsed time", "date", "datetime", "t"
HEARTS = "hr", "heart rate", "heartrate", "heart_rate", "bpm", "pulse", "heart", "heart rate (bpm)", "hr (bpm)"
_CLOCK = re.compile(r"(?:(\d{1,2}):)?(\d{1,3}):(\d{2}(?:[.,]\d+)?)$")


def _when(text: str) -> datetime | float | None:
    """Seconds, minutes and seconds, hours too, or a day with its time; None for anything else."""
    text = text.strip()
    try:
        return float(text.replace(",", "."))
    except ValueError:
        pass
    if match := _CLOCK.match(text):
        hours, minutes, seconds = match.groups()
        return 3600.0 * int(hours or 0) + 60.0 * int(minutes) + float(seconds.replace(",", "."))
    try:
        return _aware(datetime.fromisoformat(text))
    except ValueError:
        return None


def _csv(data: bytes) -> HeartFile:
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("windows-1252", errors="replace")
    rows = list(_rows(text))
    if not rows:
        raise HeartFileError("This file is empty.")
    time_at, heart_at, begins = _columns(rows)
    moments: list[Moment] = []
    for line, row in rows[begins:]:
        at = _when(row[time_at]) if len(row) > max(time_at, heart_at) else None
        if at is None:
            told = row[time_at][:30] if len(row) > time_at else ",".join(row)[:30]
            raise HeartFileError(f"Line {line}: “{told}” is no time such as 75, 1:15 or 2026-03-02T18:00:00.")
        beat = row[heart_at].strip()
        bpm = _beats(beat)
        if beat and bpm is None:
            raise HeartFileError(f"Line {line}: “{beat[:30]}” is no heart rate. Leave it empty where there was none.")
        if moments and type(at) is not type(moments[0][0]):
            raise HeartFileError(f"Line {line}: this time is written in another way than those before it.")
        moments.append((at, bpm))
    return _of_moments("CSV", moments, [], [])


def _rows(text: str) -> Iterator[tuple[int, list[str]]]:
    """Line number and cells of every line that has something in it."""
    head = text[:4000]
    by = max(";\t,", key=lambda each: (head.count(each), each != ","))
    reader = csv.reader(io.StringIO(text), delimiter=by)
    for row in reader:
        if any(cell.strip() for cell in row):
            yield reader.line_num, row


def _columns(rows: list[tuple[int, list[str]]]) -> tuple[int, int, int]:
    """Where time and heart rate stand, and the first row of numbers."""
    for place, (_, row) in enumerate(rows[:20]):
        names = [cell.strip().lower() for cell in row]
        time_at = next((i for i, name in enumerate(names) if name in TIMES), None)
        heart_at = next((i for i, name in enumerate(names) if name in HEARTS), None)
        if time_at is not None and heart_at is not None:
            return time_at, heart_at, place + 1
    line, row = rows[0]
    if len(row) == 2 and _when(row[0]) is not None:
        return 0, 1, 0
    raise HeartFileError(
        f"Line {line}: no columns for time and heart rate were found. Name them, such as time,hr; or give two columns."
    )


def read_heart_file(data: bytes) -> HeartFile:
    """Of whichever kind the bytes are. Raises `HeartFileError`."""
    if not data:
        raise HeartFileError("This file is empty.")
    if len(data) > MOST_BYTES:
        raise HeartFileError(f"This file is larger than {MOST_BYTES // 1_000_000} MB. Cut it to the session.")
    read: Callable[[bytes], HeartFile] = _csv
    if data[8:12] == b".FIT":
        read = _fit
    elif data.lstrip(b"\xef\xbb\xbf \r\n\t")[:1] == b"<":
        read = _tcx
    elif b"\0" in data[:2000]:
        raise HeartFileError("This is neither FIT, TCX nor CSV. Export the session as one of them.")
    return read(data)
