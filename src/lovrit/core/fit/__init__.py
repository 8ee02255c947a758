"""Solving backwards for the clock: what may give, until a figure is what it must be."""

# its door: the files that other rooms may take from
DOOR = (
    "fit",
    "knobs",
    "search",
    "slot",
)
