"""Times as the trade writes them."""


def clock(seconds: float) -> str:
    """A time as m:ss."""
    whole = round(seconds)
    return f"{whole // 60}:{whole % 60:02d}"
