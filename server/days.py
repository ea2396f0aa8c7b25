"""Days and moments as they may be told: within some centuries, so that no zone's clock runs out of the calendar."""

from datetime import UTC, date, datetime, time
from typing import Annotated

from pydantic import AfterValidator, AwareDatetime, WithJsonSchema

FIRST_YEAR, LAST_YEAR = 1900, 2200


def _year(value: date) -> None:
    if not FIRST_YEAR <= value.year <= LAST_YEAR:
        raise ValueError(f"A year from {FIRST_YEAR} to {LAST_YEAR} is wanted, not {value.year}.")


def _day(value: date) -> date:
    _year(value)
    return value


def _moment(value: datetime) -> datetime:
    _year(value)
    # Whatever its zone: in the hall's own it is another hour, and may be another year.
    _year(value.astimezone(UTC))
    return value


Day = Annotated[date, AfterValidator(_day)]
Instant = Annotated[AwareDatetime, AfterValidator(_moment)]
WallTime = Annotated[time, WithJsonSchema({"type": "string", "examples": ["18:30:00"]})]
"""By the hall's own clock. What JSON Schema calls a time has a zone."""
