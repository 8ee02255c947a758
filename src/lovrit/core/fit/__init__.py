"""Solving backwards for the clock: what may give, until a figure is what it must be."""
