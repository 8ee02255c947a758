"""The second look: what a careful colleague would say of a session before the class."""

# its door: the files that other rooms may take from
DOOR = (
    "company",
    "judged",
    "look",
    "note",
)
