"""Yoisho's core: what a striking session is, what it costs, and what it trains."""
