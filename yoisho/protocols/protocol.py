"""What a school's protocol is made of, and the session it becomes."""

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

from yoisho.judgement.targets import TARGETS
from yoisho.protocols.frames import cool_down, warm_up
from yoisho.session.document import Part, Session
from yoisho.session.shorthand import read_parts

Scale = Literal["beginner", "club", "fighter", "easy"]

SCALES: dict[Scale, str] = {
    "beginner": "beginner",
    "club": "club",
    "fighter": "fighter",
    "easy": "easy on the joints",
}
WARM_UP: dict[Scale, Part] = {
    "beginner": warm_up(360, 240),
    "club": warm_up(360, 240),
    "fighter": warm_up(600, 300),
    "easy": warm_up(300, 300, skipping=False),
}
COOL_DOWN = cool_down(180, 120)


@dataclass(frozen=True)
class Version:
    """One form of a protocol: lines of shorthand in the default numbering school."""

    name: str
    lines: str
    note: str = ""
    """What is different, and why."""

    @cached_property
    def parts(self) -> tuple[Part, ...]:
        return read_parts(self.lines)


@dataclass(frozen=True)
class Protocol:
    id: str
    name: str
    meaning: str
    """What it is."""
    reason: str
    """Why it is built so."""
    target: str
    """The purpose that the standard form trains."""
    scales: dict[Scale, Version]
    """The same purpose for four kinds of people; `club` is the standard form."""
    variants: tuple[Version, ...] = ()
    cautions: tuple[str, ...] = ()
    words: tuple[str, ...] = ()
    """Other words somebody may look for it by."""
    frame: bool = True
    """Whether a warm-up and a cool-down go around it."""
    source: str = "common practice, no source"

    @property
    def versions(self) -> tuple[Version, ...]:
        return (*self.scales.values(), *self.variants)

    def session(self, version: Version) -> Session:
        """The whole session, warm-up and cool-down with it."""
        if not self.frame:
            return Session(self.title(version), version.parts)
        scale: Scale = next((scale for scale, each in self.scales.items() if each == version), "club")
        parts = tuple(part if part.purpose else replace(part, purpose=self.target) for part in version.parts)
        return Session(self.title(version), (WARM_UP[scale], *parts, COOL_DOWN))

    def target_of(self, version: Version) -> str:
        """The purpose it is judged for: the one its lines state, or the protocol's."""
        return next((part.purpose for part in version.parts if part.purpose in TARGETS), self.target)

    def title(self, version: Version) -> str:
        return self.name if version == self.scales["club"] else f"{self.name}: {version.name}"


def scaled(
    beginner: tuple[str, str], club: tuple[str, str], fighter: tuple[str, str], easy: tuple[str, str]
) -> dict[Scale, Version]:
    """The four scales from their lines and notes."""
    told: dict[Scale, tuple[str, str]] = {"beginner": beginner, "club": club, "fighter": fighter, "easy": easy}
    return {scale: Version(SCALES[scale], lines, note) for scale, (lines, note) in told.items()}
