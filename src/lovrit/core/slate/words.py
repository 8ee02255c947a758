"""A word of the notation: how it is written, and how a coach would say what was expected.

The grammar's terminals, what an error expects, and what the editor completes are all made from these.
"""

from typing import NamedTuple


class Word(NamedTuple):
    """A terminal: its name with its priority, its pattern, what is said where it is expected, and a sample of it."""

    name: str
    pattern: str
    said: str
    sample: str

    @property
    def key(self) -> str:
        """The name alone."""
        return self.name.split(".", 1)[0]

    @property
    def terminal(self) -> str:
        """The line of the grammar."""
        return f"{self.name}: {self.pattern}"


def word(name: str, pattern: str, said: str = "", sample: str = "") -> Word:
    """A plain word of the notation, whatever its case and however many spaces stand in it."""
    written = pattern.replace(" ", r"[ \t]+")
    plain = sample or pattern.replace("?", "")
    return Word(f"{name}.4", rf"/{written}\b/i", said or f"“{plain}”", plain)


NUMBERS = (
    Word("NUM.5", r"/\d+(?:\.\d+)?/", "a number", "3"),
    Word("CLOCK.6", r"/\d+:[0-5]\d(?::[0-5]\d)?/", "a time such as 1:30", "1:30"),
)
BETWEEN = (
    Word("X.4", "/[x×]/i", "“x” and a work/rest pair", "x"),
    Word("SLASH", '"/"', "“/” and the rest", "/"),
    word("OF", "of"),
    word("FOR", "for", "“for” and a time"),
    word("EVERY", "every", "“every” and a time"),
    word("TO", "to"),
    word("IN", "in"),
    Word("AT.5", r"/(?:at|@?[ \t]*rpe)(?=[ \t]*\d)/i", "“at” and an effort", "at"),
    word("HEART", "heart", "“heart” and a target"),
    word("REST", "rest"),
)
SIGNS = (
    word("ADDED", "added"),
    word("UNTIL", "until", "“until” and a heart rate"),
    Word("PERCENT", '"%"', "“%”", "%"),
    word("RESERVE", "reserve"),
    word("MAX", "max"),
    word("THRESHOLD", "threshold", "“threshold ±5”"),
    Word("PM.6", r"/±|\+\/-|\+-/", "“±” and beats", "±"),
    Word("PLUS", '"+"', "“+” and more", "+"),
    Word("DASH.5", "/[-–]/", "“-” and the upper figure", "-"),
    Word("COMMA", '","', "a comma", ","),
    Word("OPEN", '"("', "“(”", "("),
    Word("CLOSE", '")"', "“)”", ")"),
    Word("WORD", r"/[^\W\d_][^\s,|@:+#\/()\x00-\x1f]*/", "a name", "squat"),
)
UNIT_TERMS = (
    Word("S.5", "/s(?:ec(?:onds?)?)?\\b|\"|″|''|’’/i", "“s”", "s"),
    Word("MIN.4", "/min(?:ute)?s?\\b|'|′|’/i", "“min”", "min"),
    Word("M.4", r"/m(?:et(?:re|er)s?)?\b/i", "metres, as in 300 m", "m"),
    Word("CAL.4", r"/cal(?:orie)?s?\b/i", "calories, as in 12 cal", "cal"),
    Word("KM.5", r"/k(?:ilo)?m(?:et(?:re|er)s?)?\b/i", "kilometres, as in 1 km", "km"),
    Word("MI.5", r"/mi(?:les?)?\b/i", "miles, as in 1 mi", "mi"),
    Word("LB.4", r"/lbs?\b/i", "“lb”", "lb"),
    Word("WATT.4", r"/w(?:atts?)?\b/i", "watts, as in 220 W", "W"),
    Word("REPS.4", r"/reps?\b/i", "“reps”", "reps"),
    Word("KG.4", r"/kg\b/i", "“kg”", "kg"),
)
MARKS = (
    Word("EACH_SIDE.5", r"/each[ \t]+side\b/i", "“each side”", "each side"),
    Word("SIDES.5", r"/left[ \t]+then[ \t]+right\b/i", "“left then right”", "left then right"),
    Word("SLOW.5", r"/slow(?=[ \t]+\d)/i", "“slow 4 s”", "slow"),
    Word("BREATH.5", r"/breath[ \t]+held\b/i", "“breath held”", "breath held"),
    Word("RIR.5", r"/rir(?=[ \t]*\d)/i", "“rir” and reps left over", "rir"),
    Word(
        "RHYTHM.5",
        r"/tempo[ \t]+(?:\d{1,2}|x)(?:[ \t]*-[ \t]*(?:\d{1,2}|x)){3}(?![\w-])/i",
        "“tempo 3-1-1-0”",
        "tempo",
    ),
    Word("RATE.5", r"/rate(?=[ \t]+\d)/i", "“rate” and strokes a minute", "rate"),
    Word("SHARED.5", r"/shared\b/i", "“shared”, by the team", "shared"),
    Word(
        "UNTIL_BACK.5",
        r"/until[ \t]+(?:the[ \t]+|your[ \t]+)?partner[ \t]+(?:is|comes|gets)?[ \t]*back\b/i",
        "“until partner is back”",
        "until partner is back",
    ),
    Word("BREATHS.5", r"/breaths(?=[ \t]+\d)/i", "“breaths” and how many", "breaths"),
    Word(
        "OWN_PAIR.7",
        r"/\d+(?::[0-5]\d)?\/\d+(?::[0-5]\d)?(?=[ \t]*(?:,|$))/",
        "a work and a rest",
        "40/20",
    ),
    Word("BAR", '"|"', "“|” and kit", "|"),
    Word("LOAD", '"@"', "“@” and a load", "@"),
    word("OR", "or", "“or” and another way"),
    word("HARDER", "harder", "“harder” and a way"),
    word("EASIER", "easier", "“easier” and a way"),
    Word("COLON", '":"', "“:” and parts", ":"),
    Word("THEN.5", r"/then[ \t]*$/i", "“then”", "then"),
    Word("TIMES.4", r"/[x×](?=[ \t]*\d)/i", "“x” and a number", "x"),
)
HEADER_WORDS = (
    word(
        "WHOM",
        "(?:beginners|children|older|pregnant)",
        "“beginners”, “children” or “older”",
        "beginners",
    ),
    Word("DEGREES.4", r"/°?[ \t]*c(?:elsius)?\b/i", "“C”", "C"),
    word("UNDERFOOT", "(?:wet|dry|icy|sandy|uneven)", "“wet” or “dry”", "wet"),
    Word("DATE.6", r"/\d{4}-\d\d-\d\d/", "a date such as 2026-11-30", "2026-11-30"),
    Word("TEXT", r"/[^\s#][^#\n]*/", "some text", "Winter hall"),
    *(
        Word(f"{key.upper()}_KEY.6", rf"/{key}[ \t]*:/i", f"“{key}:”", f"{key}:")
        for key in ("title", "note", "date", "slot", "people", "setup", "for", "weather", "floor")
    ),
)
HEADERS = tuple(one.sample for one in HEADER_WORDS if one.key.endswith("_KEY"))
# what a mark of a move line begins with, as the editor completes it
MARK_SAMPLES = tuple(
    one.sample for one in MARKS if one.sample[0].isalpha() and one.key not in ("THEN", "TIMES")
)
