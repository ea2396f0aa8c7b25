"""How the numbers come about, as plain values: the app draws it, and `docs/method.md` is written from it."""
