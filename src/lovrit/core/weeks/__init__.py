"""Weeks: what days ask of a body, what it still carries, what clashes, in which order it is least."""

# its door: the files that other rooms may take from
DOOR = (
    "again",
    "board",
    "held",
    "home",
    "order",
    "places",
    "publish",
    "returns",
    "series",
    "ways",
)
