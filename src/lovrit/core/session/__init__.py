"""What a coach writes: the model of a session, and the slate that it is read from and written to."""

# its door: the files that other rooms may take from
DOOR = (
    "dated",
    "edit",
    "edits",
    "grammar",
    "movelines",
    "picture",
    "rack",
    "reader",
    "session",
    "slatetext",
    "writer",
)
