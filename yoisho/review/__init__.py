"""Planned against done: what was really done of a run, round by round, and where it faded."""
