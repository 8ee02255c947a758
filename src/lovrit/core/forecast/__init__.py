"""Rep work: turns that fill, rounds in a cap, the spread of finishers, and what scores say of it."""

# its door: the files that other rooms may take from
DOOR = (
    "crowd",
    "group",
    "learned",
    "paced",
)
