"""What a session, or what was done of it, asks of people: one measure, under all that weighs or foretells it."""

# its door: the files that other rooms may take from
DOOR = (
    "carried",
    "clashing",
    "dose",
    "qualities",
)
