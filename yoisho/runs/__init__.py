"""Running a session: when which sound comes."""
