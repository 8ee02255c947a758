"""The same moves in another structure, and what that changes."""

# its door: the files that other rooms may take from
DOOR = (
    "portion",
    "prepare",
    "recast",
    "revised",
    "round",
    "shapes",
)
