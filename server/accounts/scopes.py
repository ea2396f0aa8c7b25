"""What a token of the API may: scopes, each a few operations. What stands in none is for people who have signed in."""

SCOPES: dict[str, frozenset[str]] = {
    "read-log": frozenset({"log", "log_entry", "log_file", "heart_trace", "trends"}),
    "write-log": frozenset({"begin_run", "save_log", "by_hand"}),
    "read-sessions": frozenset(
        {"sessions", "get_session", "export_session", "wall_sheet", "combinations", "protocols", "today",
         "planned_file"}
    ),
    "read-people": frozenset({"people", "groups", "person"}),
    "work-out": frozenset({"read_shorthand", "evaluate_session", "propose_session", "vocabulary", "method"}),
}  # fmt: skip
ABOUT: dict[str, str] = {
    "read-log": "the log, its entries with their heart rate, trends",
    "write-log": "log what was done, with or without a run",
    "read-sessions": "the library, the book, what is planned",
    "read-people": "names, levels, limits and what is known of people's health",
    "work-out": "read lines, evaluate and propose; nothing is kept",
}


def scopes_of(operation: str) -> list[str]:
    """Those that let an operation be asked for."""
    return [scope for scope, operations in SCOPES.items() if operation in operations]
