"""Reads a calendar by the letter of RFC 5545, without a library: what a strict reader would stumble over."""

import re

LINE = re.compile(r"^(?P<name>[A-Z0-9-]+)(?P<parameters>(?:;[A-Z0-9-]+=(?:\"[^\"]*\"|[^\";:,]+))*):(?P<value>.*)$")
UTC = re.compile(r"^\d{8}T\d{6}Z$")
LOCAL = re.compile(r"^\d{8}T\d{6}$")


def unfolded(content: bytes) -> list[str]:
    assert content.endswith(b"\r\n"), "the last line is not ended"
    assert b"\n" not in content.replace(b"\r\n", b""), "a line ends without CR"
    assert all(len(line) <= 75 for line in content.split(b"\r\n")), "a line is longer than 75 octets"
    text = content.decode("utf-8")
    return re.sub(r"\r\n[ \t]", "", text).split("\r\n")[:-1]


def read(content: bytes) -> dict:
    """The calendar's own properties, its time zones and its events, each with properties by name."""
    stack: list[dict] = [{"name": "", "inside": [], "said": {}}]
    for line in unfolded(content):
        match = LINE.match(line)
        assert match, f"no property: {line!r}"
        name, value = match["name"], match["value"]
        if name == "BEGIN":
            stack.append({"name": value, "inside": [], "said": {}})
        elif name == "END":
            closed = stack.pop()
            assert closed["name"] == value, f"{closed['name']} is ended by {value}"
            stack[-1]["inside"].append(closed)
        else:
            stack[-1]["said"].setdefault(name, []).append((match["parameters"], value))
    assert len(stack) == 1
    (calendar,) = stack[0]["inside"]
    return calendar


def checked(content: bytes) -> list[dict[str, str]]:
    """The events, if the calendar keeps to the standard."""
    calendar = read(content)
    assert calendar["name"] == "VCALENDAR"
    assert calendar["said"]["VERSION"] == [("", "2.0")]
    assert len(calendar["said"]["PRODID"]) == 1
    zones = {each["said"]["TZID"][0][1] for each in calendar["inside"] if each["name"] == "VTIMEZONE"}
    for each in calendar["inside"]:
        if each["name"] == "VTIMEZONE":
            parts = [inner["name"] for inner in each["inside"]]
            assert parts, "a time zone without STANDARD"
            assert set(parts) <= {"STANDARD", "DAYLIGHT"}
            for inner in each["inside"]:
                assert {"DTSTART", "TZOFFSETFROM", "TZOFFSETTO"} <= set(inner["said"])
    events = [each["said"] for each in calendar["inside"] if each["name"] == "VEVENT"]
    seen = set()
    for said in events:
        for once in ("UID", "DTSTAMP", "DTSTART", "DTEND", "SEQUENCE", "STATUS", "SUMMARY"):
            assert len(said.get(once, [])) == 1, f"{once} once an event"
        uid = said["UID"][0][1]
        assert uid not in seen, f"{uid} twice"
        seen.add(uid)
        assert UTC.match(said["DTSTAMP"][0][1])
        assert said["STATUS"][0][1] in ("TENTATIVE", "CONFIRMED", "CANCELLED")
        assert said["SEQUENCE"][0][1].isdigit()
        for when in ("DTSTART", "DTEND"):
            parameters, value = said[when][0]
            if parameters:
                zone = parameters.removeprefix(";TZID=").strip('"')
                assert zone in zones, f"{zone} is not described"
                assert LOCAL.match(value)
            else:
                assert UTC.match(value)
        assert said["DTEND"][0][1] > said["DTSTART"][0][1]
    return [{name: each[0][1] for name, each in said.items()} for said in events]
