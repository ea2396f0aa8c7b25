"""Designing for the coach: protocols proposed for a purpose, a person and a number of minutes."""
