"""Debrief: what happened."""
