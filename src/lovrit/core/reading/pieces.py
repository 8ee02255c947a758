"""A line cut into its pieces, each letter looked at once: figures, words, signs as they stand."""

import re
from typing import NamedTuple

PIECE = re.compile(
    r"(?P<day>\d{1,2}:[0-5]\d\s*[-–]\s*\d{1,2}:[0-5]\d)(?![\d:])"
    r"|(?P<pace>\d{1,2}:[0-5]\d\s?(?:min)?\s?/\s?(?:km|mi(?:le)?)(?!\w))"
    r"|(?P<clock>\d{1,3}:[0-5]\d(?::[0-5]\d)?)(?!\d)"
    r"|(?P<short>:[0-5]\d)(?!\d)"
    r"|(?P<minsec>\d{1,2}['′’]\s?[0-5]?\d(?:[\"″”]|'')?)(?=\W|$)"
    r"|(?P<best>\d{1,2}\s?-?rm(?!\w))"
    r"|(?P<rhythm>(?<=tempo )(?=[\d-]*x)[\dx]{1,2}(?:-[\dx]{1,2}){3}(?!-)"
    r"|(?<=\()[1-6][0-3][0-6][0-3](?<!00)(?=\))|[2-6][0-3](?-i:X)[0-3]|\d{4}(?=\s*(?:,|$)|\s+\d))(?!\w)"
    r"|(?P<emom>e\d{0,2}mom|e\d{2,3}s)(?![^\W\d_])"
    r"|(?P<limbed>[1-4]-(?=arm|leg|hand|point|way|foot)[a-z]+)"
    r"|(?P<mixed>(?!x\d)[^\W\d_]{1,3}\d[^\W\d_]{1,3}(?!\w))"
    r"|(?P<hour>\d{1,2}(?:[:.][0-5]\d)?\s?(?:am|pm|uhr)(?!\w)|\d{1,2}h[0-5]\d(?!\w))"
    r"|(?P<zone>z(?:one)?\s?[1-7])(?!\w)"
    r"|(?P<number>\d{1,7}(?:\.\d{1,2}|,5(?!\d|,\d))?)"
    r"|(?P<cross>(?<=\d)x(?=max|amrap))"
    r"|(?P<short_word>(?:b/w|e/s|e/l|w/u|c/d|w/o|l/r)(?![^\W\d_])|w/(?=\s))"
    r"|(?P<dots>\.{2,}|…|(?:etc|usw)(?:\.|(?!\w)))"
    r"|(?P<word>[^\W\d_]+(?:['’](?=[^\W\d_])[^\W\d_]+)*)"
    r"|(?P<sign>[^\s\w])"
    r"|(?P<blank>\s+|.)",
    re.IGNORECASE,
)


class Piece(NamedTuple):
    """A piece of a line: of which group of ``PIECE`` it is, its letters, where they begin and end."""

    group: str
    text: str
    start: int
    end: int


def pieces_of(line: str) -> list[Piece]:
    """The pieces of a line without its blanks, words with a hyphen as they are said."""
    return _unhyphened(
        [
            Piece("word", "and", found.start(), found.end())
            if found[0] == "&"
            else Piece(found.lastgroup or "", found[0], found.start(), found.end())
            for found in PIECE.finditer(line)
            if found.lastgroup != "blank"
        ]
    )


def _unhyphened(pieces: list[Piece]) -> list[Piece]:
    """Without the hyphens inside words: push-up, warm-up."""
    return [
        piece
        for before, piece, after in zip([None, *pieces], pieces, [*pieces[1:], None], strict=False)
        if not (piece.text == "-" and _glued(before, piece) and _glued(piece, after))
    ]


def _glued(one: "Piece | None", other: "Piece | None") -> bool:
    if not one or not other or one.end != other.start:
        return False
    return all(each.text == "-" or each.group == "word" for each in (one, other))
