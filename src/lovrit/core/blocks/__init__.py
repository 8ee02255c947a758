"""The spine: a file a kind of block, with all that is known of it; kinds.py puts them together.

What others ask of a block are the traits and methods of block.py; nobody lists kinds.
"""

# its door: the files that other rooms may take from
DOOR = (
    "amrap",
    "block",
    "build",
    "called",
    "company",
    "every",
    "fade",
    "floor",
    "for_time",
    "hold_ladder",
    "intervals",
    "kinds",
    "marks",
    "options",
    "outlook",
    "paired",
    "parts",
    "quality",
    "rest",
    "roles",
    "rotate",
    "score",
    "sets",
    "steady",
    "step",
    "strength",
    "worktime",
)
