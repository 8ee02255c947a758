"""Weeks: what comes, on which day, what the body still carries of it."""
