"""The evening that comes: which it is, what it still lacks step by step, whom to watch and who is missing."""

# its door: the files that other rooms may take from
DOOR = (
    "kit",
    "people",
    "thread",
    "which",
)
