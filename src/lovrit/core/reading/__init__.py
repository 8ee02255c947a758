"""Reading: the roles of figures and words in what a coach writes, and the blocks that they make."""

# its door: the files that other rooms may take from
DOOR = (
    "alone",
    "apart",
    "draft",
    "giving",
    "heading",
    "line",
    "meant",
    "message",
    "questions",
    "token",
    "written",
)
