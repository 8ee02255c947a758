"""Moves: the library's page."""
