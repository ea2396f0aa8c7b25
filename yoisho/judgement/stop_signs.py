"""Signs at which somebody stops at once and gets help. Common practice, no source."""

STOP_SIGNS = (
    "chest pain or pressure, fainting or dizziness, confusion, a blow to the head that leaves anybody dazed, breath "
    "that does not come back, a heartbeat that stumbles, sudden weakness"
)
