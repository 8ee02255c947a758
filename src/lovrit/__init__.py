"""Lovrit: interval circuits designed, fitted to a group and a hall, run, and learned from."""
