"""What must be known around a session before it can be called safe: screening, bout, recent days, heat, injuries."""

from dataclasses import dataclass, field
from datetime import date
from typing import Literal

from yoisho.judgement.limits import Limit
from yoisho.strikes.counts import Limb

ScreeningOutcome = Literal["clear", "gradual", "clearance before vigorous", "clearance", "stop"]


SOON_DAYS = 30
"""So long before a clearance ends the next one is asked for. Own setting."""


@dataclass(frozen=True)
class Screening:
    """Answers of a pre-participation screening, and whether a physician has cleared the person since."""

    regularly_active: bool
    """Planned activity, at least moderate, 30 min on 3 days a week for 3 months."""
    known_disease: bool
    """Cardiovascular, metabolic or renal."""
    symptoms: bool
    """Any sign or symptom, such as chest pain, breathlessness at rest, dizziness, palpitations, swollen ankles."""
    cleared: bool = False
    """By a physician within the last twelve months, with no change since."""
    days_left: int | None = None
    """That the clearance still holds."""

    @property
    def ends_soon(self) -> bool:
        """Whether the next clearance is to be asked for now."""
        return self.cleared and self.days_left is not None and self.days_left <= SOON_DAYS

    @property
    def outcome(self) -> ScreeningOutcome:
        """The logic of Riebe et al. 2015, MSSE 47:2473-2479, from memory."""
        if self.cleared:
            return "clear"
        if self.symptoms:
            return "stop" if self.regularly_active else "clearance"
        if self.known_disease:
            return "clearance before vigorous" if self.regularly_active else "clearance"
        return "clear" if self.regularly_active else "gradual"


SCREENING_SAYS: dict[ScreeningOutcome, str] = {
    "clear": "Light to vigorous work, built up.",
    "gradual": "Not regularly active so far: begin light to moderate, and build up over weeks.",
    "clearance before vigorous": "A known disease: light to moderate work may go on; vigorous work waits for a "
    "physician's clearance.",
    "clearance": "A physician's clearance comes before any training.",
    "stop": "There are symptoms: stop, and see a physician before any more.",
}
"""What each outcome asks for."""


@dataclass(frozen=True)
class Niggle:
    """Somewhere that hurt, by a log of the last days."""

    told: str
    """In words, such as "left wrist"."""
    limbs: tuple[Limb, ...]
    """What loads it; none where no strike does."""
    days_ago: int


@dataclass(frozen=True)
class Circumstances:
    """Everything is optional: a rule whose fact is not known keeps silent, save for a missing screening."""

    of_somebody: bool = True
    """Whether this is about a person: nobody's screening can be missing."""
    screening: Screening | None = None
    days_to_fight: int | None = None
    hours_since_lactic: float | None = None
    """Since the end of the last session that emptied the lactic store."""
    wbgt_c: float | None = None
    """Wet-bulb globe temperature in the hall [°C]; not the air temperature."""
    concussion_uncleared: bool = False
    """A knock-out or a suspected concussion that no licensed physician has cleared."""
    purpose: str | None = None
    """What the session is for, of the purposes; it says from where on a fade speaks."""
    niggles: tuple[Niggle, ...] = ()
    today: date | None = None
    """For dates in words; None tells them in days."""
    last_lactic_days: int = 9
    """Days before a fight that the club's school puts the last hard lactic day at."""
    limits: tuple[Limit, ...] = ()
    """Those that hold today."""
    strikes_this_week: dict[Limb, float] = field(default_factory=dict, hash=False)
    """Counted or expected in the last seven days, this session not among them."""
