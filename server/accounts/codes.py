"""Codes that open a door once: told to one person, and kept as a fingerprint."""

import hashlib
import secrets

LETTERS = "abcdefghjkmnpqrstuvwxyz23456789"
"""Without those that are taken for each other."""


def new_code(length: int = 12) -> str:
    """About five bits a letter, in groups of four."""
    letters = [secrets.choice(LETTERS) for _ in range(length)]
    return "-".join("".join(letters[at : at + 4]) for at in range(0, length, 4))


def fingerprint(code: str) -> str:
    """The same however it is typed."""
    plain = "".join(letter for letter in code.lower() if letter.isalnum())
    return hashlib.sha256(plain.encode()).hexdigest()
