"""Rules about what wants people fresh and ready: power after long stretching, and many tests in one evening."""

from collections.abc import Iterator

from lovrit.core.advice.dose import NEAR_ALL_OUT
from lovrit.core.advice.note import Fix, Look, Note, effort
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.build import Build
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.blocks.intervals import Intervals
from lovrit.core.blocks.quality import Quality
from lovrit.core.blocks.steady import Steady
from lovrit.core.clock import clock
from lovrit.core.moves.move import Move
from lovrit.core.session.edits import BlockEdit, ReplaceBlock
from lovrit.core.timeline.interval import LaidBlock

LONG_STRETCH_S = 60  # of one stretch; below 45 s hardly anything is lost (Simic and others 2013)
BARE_STRETCH_S = 300  # called stretching, and nobody says of what
MANY_TESTS = 3  # ours
MOVING = ("leg swing", "ankle rocks", "hip circles")


def stretch_before_power(look: Look) -> Iterator[Note]:
    """Long held stretches right before jumps or sprints."""
    before: tuple[int, LaidBlock] | None = None
    for at, block, laid in look.blocks():
        if block.is_pause:
            continue
        if before and _is_power(look, block):
            yield _stretched(look, *before)
        before = (at, laid) if _is_held_stretching(look, block, laid) else None


def _stretched(look: Look, at: int, laid: LaidBlock) -> Note:
    moving = "\n".join((f"mobility {clock(laid.seconds)}", *(f"  {one}" for one in MOVING)))
    return look.note(
        code="stretch-before-power",
        level="tell",
        text="Stretches held for a minute and more right before jumps or sprints take some of their power.",
        reason="Move through the range before, hold the stretches afterwards.",
        basis="held stretching before strength and power (Simic, Sarabon and Markovic 2013)",
        at=at,
        fixes=(Fix("moving instead", ReplaceBlock(block=at, text=moving)),),
    )


def _is_held_stretching(look: Look, block: Block, laid: LaidBlock) -> bool:
    """Whether all that is done is stretches that are held, each for a minute and more."""
    lines = [line for line in block.moves if not line.is_rest]
    moves = [look.move(line) for line in lines]
    if not lines:
        called = isinstance(block, Steady) and "stretch" in block.label
        return called and laid.seconds >= BARE_STRETCH_S
    held = all(move and move.pattern == "mobility" and move.counted == "s" for move in moves)
    return held and laid.seconds / len(lines) >= LONG_STRETCH_S


def _is_power(look: Look, block: Block) -> bool:
    """Whether a block is jumps or sprints: hard landings in every move, or all there is."""
    moves = [look.move(line) for line in block.moves if not line.is_rest]
    leaps = bool(moves) and all(move and _leaps(move) for move in moves)
    return block.works and (leaps or effort(block) >= NEAR_ALL_OUT)


def _leaps(move: Move) -> bool:
    return move.impact == "high" and move.pattern in ("jump", "squat", "lunge")


def many_tests(look: Look) -> Iterator[Note]:
    """Three tests and more in one evening: the last are of tired people."""
    tests = [at for at, block, _ in look.blocks() if _is_test(block)]
    for nth, at in enumerate(tests[MANY_TESTS - 1 :], MANY_TESTS):
        yield look.note(
            code="many-tests",
            level="weigh",
            text=f"{nth} tests in one evening: what the last one says is how tired people are.",
            reason="Two that load other things, minutes apart, can be laid beside the next; the rest another day.",
            at=at,
            fixes=(Fix("this one another day", BlockEdit(what="remove", block=at)),),
        )


def _is_test(block: Block) -> bool:
    """Whether a block asks how much somebody can: the best of attempts, the heaviest, one way against the clock."""
    if isinstance(block, Intervals):
        return block.score == "best" and block.count.high <= 1
    if isinstance(block, Quality):
        return block.to_the_most and block.rounds.high == 1
    return isinstance(block, Build) or (isinstance(block, ForTime) and block.over is not None)
