"""The library of moves: what each trains, needs and takes, and the ways round it."""

# its door: the files that other rooms may take from
DOOR = (
    "figure",
    "guess",
    "library",
    "move",
    "names",
    "once",
)
