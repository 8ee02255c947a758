"""Placing: who stands where, with what, in which order."""

# its door: the files that other rooms may take from
DOOR = (
    "around",
    "at_once",
    "evening",
    "hall",
    "lacked",
    "place",
    "problem",
    "setting_up",
    "stations",
    "watch",
    "ways",
    "why",
    "wishes",
)
