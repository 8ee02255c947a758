"""What is asked of a block where a role was not said: the same in messages and on the slate."""

QUESTIONS = {
    "rest": "how long is the rest after each?",
    "within": "how long is the rest after each?",
    "between": "how long is the rest between rounds?",
    "change": "how long is the change?",
    "pair": "how long is the work, and how long the rest?",
    "work": "how long is the work?",
    "each": "how long at each?",
    "rounds": "how many rounds, or how often?",
    "times": "how many rounds, or how often?",
    "sets": "how many sets?",
    "reps": "how many reps?",
    "total": "how long does it go on?",
    "time": "how many minutes?",
    "cap": "where does it end?",
    "period": "how often does a turn begin?",
    "heavy": "how many reps is the heavy set?",
    "fortime": "for time, unhurried, or by the clock?",
    "quality": "for time, unhurried, or by the clock?",
    "amrap": "as many as possible?",
}
