"""Heart rate of a run as files that others read."""

from collections.abc import Sequence
from datetime import datetime, timedelta
from xml.etree import ElementTree

Heart = Sequence[tuple[float, float]]
"""Session time [s] and heart rate [bpm]."""
TCX = "http://www.garmin.com/xmlschemas/TrainingCenterDatabase/v2"
"""The name of the format's vocabulary; nothing is asked for there."""


def as_csv(heart: Heart) -> str:
    return "second,bpm\n" + "".join(f"{at:g},{bpm:g}\n" for at, bpm in heart)


def as_tcx(heart: Heart, started_at: datetime) -> bytes:
    """One activity of one lap; the first bell is its start."""
    ElementTree.register_namespace("", TCX)

    def add(to: ElementTree.Element, name: str, text: str = "", **attributes: str) -> ElementTree.Element:
        each = ElementTree.SubElement(to, f"{{{TCX}}}{name}", attributes)
        each.text = text or None
        return each

    def moment(at: float) -> str:
        return (started_at + timedelta(seconds=at)).isoformat(timespec="milliseconds")

    root = ElementTree.Element(f"{{{TCX}}}TrainingCenterDatabase")
    activity = add(add(root, "Activities"), "Activity", Sport="Other")
    add(activity, "Id", moment(0))
    lap = add(activity, "Lap", StartTime=moment(0))
    add(lap, "TotalTimeSeconds", f"{max(at for at, _ in heart):g}")
    add(lap, "DistanceMeters", "0")
    add(lap, "Calories", "0")
    add(lap, "Intensity", "Active")
    add(lap, "TriggerMethod", "Manual")
    track = add(lap, "Track")
    for at, bpm in heart:
        point = add(track, "Trackpoint")
        add(point, "Time", moment(at))
        add(add(point, "HeartRateBpm"), "Value", f"{bpm:.0f}")
    return bytes(ElementTree.tostring(root, encoding="utf-8", xml_declaration=True))
