"""What was done, looked at over weeks: trends, what the logs teach of each person, and what to do next time."""
