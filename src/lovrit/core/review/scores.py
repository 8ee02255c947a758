"""What was scored and felt: a block's score in its usual writing, and an effort; impossible ones refused kindly."""

import re

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.score import Impossible
from lovrit.core.timeline.interval import LaidBlock


def score(block: Block, laid: LaidBlock, text: str) -> str:
    """A score in its usual writing.

    Raises:
        Impossible: if it is not one, or can't have been done.
    """
    return block.read_score(" ".join(text.split()), laid.seconds, laid.forecast)


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
