"""Hearts: what a heart is asked for, and how it answers."""

# its door: the files that other rooms may take from
DOOR = (
    "align",
    "asked",
    "body",
    "clean",
    "demand",
    "foresee",
    "gate",
    "gates_ahead",
    "group",
    "hearts",
    "learn",
    "over",
    "said",
    "stretches",
    "suspected",
)
