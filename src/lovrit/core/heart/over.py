"""Whose heart was over its box in most turns: one limit, for After, Tonight, the talk and Who."""

OVER_SHARE, OVER_TURNS = 0.5, 4  # more than half of the turns, of four at least; ours


def mostly_over(over: int, turns: int) -> bool:
    """Whether a heart was over its box in most of the turns in which it was read."""
    return turns >= OVER_TURNS and over > OVER_SHARE * turns
