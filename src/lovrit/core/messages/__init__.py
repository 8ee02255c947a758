"""Messages: whole texts as people send them, made a slate, questions and notes."""

# its door: the files that other rooms may take from
DOOR = (
    "asked",
    "read",
    "standing",
)
