"""Strikes: techniques, combinations and their notation, counts by limb, numbering schools."""
