"""Heart rate from files, as watches, straps and spreadsheets write them; and whatever else people choose by mistake."""

import struct
from datetime import UTC, datetime, timedelta

import pytest

from yoisho.formats.heart_file import HeartFileError, read_heart_file

BEGUN = datetime(2026, 3, 2, 18, 0, tzinfo=UTC)
EPOCH = datetime(1989, 12, 31, tzinfo=UTC)
"""Of FIT's own clock (FIT protocol, from memory)."""


def _crc(data, crc=0):
    """The protocol's own check, nibble by nibble (from memory; fitdecode verifies it)."""
    table = (0x0000, 0xCC01, 0xD801, 0x1400, 0xF001, 0x3C00, 0x2800, 0xE401,
             0xA001, 0x6C00, 0x7800, 0xB401, 0x5000, 0x9C01, 0x8801, 0x4400)  # fmt: skip
    for byte in data:
        for nibble in (byte & 0xF, byte >> 4):
            crc = (crc >> 4) ^ table[crc & 0xF] ^ table[nibble]
    return crc


def fit(rows, events=(), laps=()):
    """A FIT file with records (second, bpm or None), timer events (second, stop) and laps (second)."""

    def clock(second):
        return int((BEGUN - EPOCH).total_seconds()) + second

    def definition(local, number, *fields):
        return bytes([0x40 | local, 0, 0, *struct.pack("<H", number), len(fields), *sum(fields, ())])

    body = definition(0, 20, (253, 4, 0x86), (3, 1, 0x02))
    body += definition(1, 21, (253, 4, 0x86), (0, 1, 0x00), (1, 1, 0x00))
    body += definition(2, 19, (253, 4, 0x86), (2, 4, 0x86))
    told = [(at, b"\0" + struct.pack("<IB", clock(at), 0xFF if bpm is None else bpm)) for at, bpm in rows]
    told += [(at, b"\1" + struct.pack("<IBB", clock(at), 0, 4 if stop else 0)) for at, stop in events]
    told += [(at, b"\2" + struct.pack("<II", clock(at), clock(at))) for at in laps]
    body += b"".join(each for _, each in sorted(told))
    head = struct.pack("<BBHI4s", 14, 0x10, 2132, len(body), b".FIT")
    head += struct.pack("<H", _crc(head))
    return head + body + struct.pack("<H", _crc(head + body))


def tcx(rows, laps=(0,)):
    def iso(second):
        return (BEGUN + timedelta(seconds=second)).strftime("%Y-%m-%dT%H:%M:%SZ")

    points = "".join(
        f"<Trackpoint><Time>{iso(at)}</Time>"
        + (f"<HeartRateBpm><Value>{bpm}</Value></HeartRateBpm>" if bpm else "")
        + "</Trackpoint>"
        for at, bpm in rows
    )
    inside = "".join(
        f'<Lap StartTime="{iso(lap)}"><Track>{points if lap == laps[0] else ""}</Track></Lap>' for lap in laps
    )
    return (
        '<?xml version="1.0"?><TrainingCenterDatabase xmlns="urn:its-own">'
        f"<Activities><Activity>{inside}</Activity></Activities></TrainingCenterDatabase>"
    ).encode()


ROWS = [(0, 92), (1, 93), (2, None), (5, 101), (64, 150)]
HEARD = ((0.0, 92.0), (1.0, 93.0), (5.0, 101.0), (64.0, 150.0))


@pytest.mark.parametrize(("kind", "data"), [("FIT", fit(ROWS)), ("TCX", tcx(ROWS))])
def test_what_a_watch_has_written_is_read_with_its_clock_and_its_gaps(kind, data):
    found = read_heart_file(data)
    assert (found.kind, found.started_at, found.heart) == (kind, BEGUN, HEARD)


def test_laps_and_pauses_are_read():
    found = read_heart_file(fit(ROWS, events=[(10, True), (40, False)], laps=[0, 30]))
    assert found.pauses == ((10.0, 40.0),)
    assert found.laps == (30.0,)
    assert read_heart_file(tcx(ROWS, laps=(0, 60))).laps == (60.0,)


@pytest.mark.parametrize(
    "text",
    [
        "0,92\n1,93\n2,\n5,101\n64,150\n",
        "time,hr\n0,92\n1,93\n2,\n5,101\n1:04,150\n",
        "Seconds;Heart rate (bpm);Power\n0;92;\n1;93;\n5;101,0;\n64;150;200\n",
        "\ufefftimestamp\tbpm\n0:00:00\t92\n0:00:01\t93\n0:00:05\t101\n0:01:04\t150\n",
        "strap 7\nexported today\nhr,time\n92,0\n93,1\n101,5\n150,64\n",
        "time,hr\n0,92\n1,93\n2,0\n5,101\n64,150\n",
    ],
)
def test_a_table_is_read_however_its_times_are_written(text):
    found = read_heart_file(text.encode())
    assert (found.kind, found.started_at, found.heart) == ("CSV", None, HEARD)


def test_a_table_with_days_and_hours_has_a_clock():
    found = read_heart_file(b"time,hr\n2026-03-02T18:00:00Z,92\n2026-03-02 18:00:30,95\n")
    assert (found.started_at, found.heart) == (BEGUN, ((0, 92), (30, 95)))


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"", "empty"),
        (b"   \n\n", "empty"),
        (fit(ROWS)[:-20], "torn after"),
        (fit(ROWS)[:30] + b"\7\7\7" + fit(ROWS)[33:], "torn after"),
        (fit([(0, None), (1, None)]), "no heart rate in this FIT"),
        (tcx(ROWS)[:-40], "not whole XML"),
        (b"<html><body>Sign in</body></html>", "begins with html"),
        (b'<!DOCTYPE x [<!ENTITY a "b">]><TrainingCenterDatabase>&a;</TrainingCenterDatabase>', "entities"),
        (b"time,hr\n0,92\nnoon,95\n", "Line 3: \u201cnoon\u201d is no time"),
        (b"time,hr\n0,92\n1,fast\n", "Line 3: \u201cfast\u201d is no heart rate"),
        (b"time,hr\n0,92\n2026-03-02T18:00:00Z,95\n", "Line 3: this time is written in another way"),
        (b"name,born\nRuna,1996\n", "no columns for time and heart rate"),
        (b"time,hr\n0,92\n200000,95\n", "longer than a day"),
        (b"\x89PNG\r\n\x1a\n\0\0\0\rIHDR", "neither FIT, TCX nor CSV"),
        (b"x" * 20_000_001, "larger than 20 MB"),
    ],
    ids=lambda each: each if isinstance(each, str) else "",
)
def test_what_cannot_be_used_is_refused_with_what_and_where(data, said):
    with pytest.raises(HeartFileError, match=said):
        read_heart_file(data)
