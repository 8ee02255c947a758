"""After the class: what traces and scores say."""

# its door: the files that other rooms may take from
DOOR = (
    "after",
    "beside",
    "can",
    "compare",
    "figures",
    "hearts",
    "kin",
    "paragraph",
    "record",
    "scores",
    "sought",
    "turns",
    "year",
)
