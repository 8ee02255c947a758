"""Crew: who comes, and in which group."""
