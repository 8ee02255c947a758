"""People: who comes, what steers them, and their groups."""

# its door: the files that other rooms may take from
DOOR = (
    "born",
    "dose",
    "fit",
    "fits",
    "groups",
    "highest",
    "lists",
    "paces",
    "person",
    "rising",
)
