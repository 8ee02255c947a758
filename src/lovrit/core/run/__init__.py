"""A class while it runs: a list of events, and the state that they fold to."""

# its door: the files that other rooms may take from
DOOR = (
    "account",
    "board",
    "classplan",
    "cues",
    "demands",
    "event",
    "events.kind",
    "events.kinds",
    "events.why",
    "fold",
    "foretold",
    "frozen",
    "going",
    "here",
    "lane",
    "late",
    "outcome",
    "saying",
    "talk",
)
