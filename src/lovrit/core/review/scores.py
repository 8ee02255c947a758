"""What was scored and felt: a block's score in its usual writing, and an effort; impossible ones refused kindly."""

import re

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.score import Impossible, Scoring
from lovrit.core.moves.library import Library
from lovrit.core.timeline.interval import LaidBlock

DECIMAL = re.compile(r"\b(\d{1,3}),(\d)\b(?! ?\d)")  # a comma as half of Europe writes it: 42,5
# other ways of writing the same: 7 plus 3, 7 & 3, 42 kilos, 9:41 min, 10:05.3
ALSO = tuple(
    (re.compile(pattern, re.IGNORECASE), put)
    for pattern, put in (
        (r"\s*(?:\bplus\b|&)\s*", " + "),
        (r"^slowest:?\s+", ""),
        (r"^all of (?:them|it)$", "all"),
        (r"\b(\d+(?:\.\d+)?)\s*(?:kgs|kilos?|kilograms?)\b", r"\1 kg"),
        (r"(\d:[0-5]\d)(?:\.\d+)?\s*(?:min(?:utes?)?)?(?=\s|$)", r"\1"),
        (r"^(\d+) reps? (?:at|@|with) (\d+(?:\.\d+)?)(?: kg)?$", r"\2 kg x \1"),
    )
)


def score(block: Block, laid: LaidBlock, text: str, library: Library) -> str:
    """A score in its usual writing.

    Raises:
        Impossible: if it is not one, or can't have been done.
    """
    said = " ".join(text.split())
    said = DECIMAL.sub(r"\1.\2", said) if block.lifts else said
    for pattern, put in ALSO:
        said = pattern.sub(put, said)
    return block.read_score(said, Scoring(laid.seconds, laid.forecast, library))


def read_effort(text: str) -> float | None:
    """An effort that was felt, 0 to 10; None where nothing is written.

    Raises:
        Impossible: if it is none.
    """
    said = text.strip().replace(",", ".")
    if not said:
        return None
    if not re.fullmatch(r"\d{1,2}(\.\d+)?", said, re.ASCII) or float(said) > 10:
        raise Impossible(f"“{text}” is no effort: it goes from 0, nothing, to 10, all there is.")
    return float(said)
