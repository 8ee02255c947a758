"""Scores beside what was forecast of their block, on one scale: where the band lies, and where each score."""

from collections.abc import Iterable
from typing import NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.score import ROUNDS, finish_of
from lovrit.core.blocks.step import Forecast
from lovrit.core.clock import clock
from lovrit.core.slate.line import reps_of

EDGE = 0.06  # of the scale left free at either end


class Beside(NamedTuple):
    """A band and dots from 0 to 1, and what stands at the band's ends; who scored what at each dot."""

    band: tuple[float, float]
    ends: tuple[str, str]
    dots: tuple[tuple[float, str], ...]


def beside(
    block: Block, forecast: Forecast | None, scores: Iterable[tuple[str, str]]
) -> Beside | None:
    """Whose score lies where, by (who, score); None where nothing was forecast, or no score is of its kind."""
    if forecast is None or (forecast.rounds is None and forecast.time_s is None):
        return None
    by_time = forecast.rounds is None
    low, _, high = forecast.time_s if by_time and forecast.time_s else forecast.rounds or (0, 0, 0)
    found = [
        (value, f"{who} {said}".strip())
        for who, said in scores
        if (value := _time(said) if by_time else _rounds(block, said)) is not None
    ]
    if not found or high <= low:
        return None
    first = min(low, *(value for value, _ in found))
    last = max(high, *(value for value, _ in found))

    def along(value: float) -> float:
        return round(EDGE + (1 - 2 * EDGE) * (value - first) / (last - first), 3)

    ends = (clock(round(low)), clock(round(high))) if by_time else (f"{int(low)}", f"{int(high)}")
    return Beside(
        (along(low), along(high)), ends, tuple((along(value), said) for value, said in found)
    )


def _time(said: str) -> float | None:
    """Seconds of a whole time; nothing of a cap, or of repeats."""
    return None if ":" not in said or " " in said else finish_of(said).seconds


def _rounds(block: Block, said: str) -> float | None:
    """Rounds, with the part of one that was begun where its reps are counted."""
    found = ROUNDS.fullmatch(said)
    if not found:
        return None
    a_round = sum(reps_of(line) for line in block.moves if not line.is_rest)
    reps = int(found["reps"] or 0)
    return int(found[1]) + (reps / a_round if a_round else 0.0)
