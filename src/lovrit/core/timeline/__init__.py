"""A session laid on the clock: intervals end to end, and the sums that coaches ask for."""

# its door: the files that other rooms may take from
DOOR = (
    "explain",
    "interval",
    "plan",
    "sums",
)
