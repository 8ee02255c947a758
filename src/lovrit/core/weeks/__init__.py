"""Weeks: what days ask of a body, what it still carries, what clashes, in which order it is least."""
