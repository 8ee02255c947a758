"""The notation’s small parts: words, figures on a line, amounts and move lines, and why a line can’t be read."""

# its door: the files that other rooms may take from
DOOR = (
    "line",
    "problem",
    "remembered",
    "slowly",
    "tree",
    "words",
    "written",
)
