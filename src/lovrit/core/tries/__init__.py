"""Tries: what a coach said where a session broke, what that proposes for the group, what nobody here has done."""

# its door: the files that other rooms may take from
DOOR = (
    "done",
    "in_one_go",
    "propose",
    "scale",
    "seen",
)
