"""Placing: who stands where, with what, in which order."""
