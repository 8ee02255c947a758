"""What a coach calls each kind of block, for lists and searches."""

CALLED = {
    "rotate": "stations",
    "sets": "sets at a station",
    "intervals": "intervals",
    "every": "a task a minute",
    "amrap": "as many as possible",
    "for-time": "for time",
    "quality": "for quality",
    "strength": "strength sets",
    "hold-ladder": "growing hold",
    "tempo": "tempo ladder",
    "build": "build to heavy",
}
