"""Rules about telling and showing: whether there is time to, and whether people can remember it."""

from collections.abc import Iterator

from lovrit.core.advice.note import Fix, Look, Note
from lovrit.core.blocks.rotate import Rotate
from lovrit.core.session.edits import InsertBlock, LineEdit

SHOW_S = 10
REMEMBERED = 6


def no_time_to_tell(look: Look) -> Iterator[Note]:
    """A rest in which the next move can't be shown, and no setup in which it was."""
    if look.session.setup_s >= 120:
        return
    for at, block, _ in look.of(Rotate):
        rest = block.pair.rest.seconds
        if rest is None or rest >= SHOW_S or len(block.moves) < 3:
            continue
        header = "setup" in look.plan.reading.headers
        shown = _setup() if not header else ()
        turns = block.rounds.high * len(block.moves)
        yield look.note(
            code="no-time-to-tell",
            level="weigh",
            text=f"{rest} s to go on, and {len(block.moves)} moves to show: there is no time to show the next one.",
            reason="Show all stations first, with time for it in the setup, or give the rest fifteen seconds.",
            at=at,
            fixes=(*shown, *look.set(at, "rest", 15, "rest 15", (15 - rest) * turns)),
        )


def too_much_to_remember(look: Look) -> Iterator[Note]:
    """More lines in a row than people keep in their head with a pulse."""
    for at, block, _ in (one for one in look.blocks() if one[1].from_memory):
        count = len(block.moves)
        if count > REMEMBERED:
            edit = LineEdit(what="remove", block=at, move=count - 1)
            yield look.note(
                code="too-much-to-remember",
                level="tell",
                text=f"{count} different lines: people will stand at the board and read.",
                reason="Six are about what one remembers out of breath.",
                at=at,
                fixes=(Fix(text=f"leave out {block.moves[-1].name}", edit=edit),),
            )


def no_setup(look: Look) -> Iterator[Note]:
    """Much kit, a slot, and no time to put it out."""
    if not look.session.slot or look.session.setup_s or "setup" in look.plan.reading.headers:
        return
    kit = {name for _, _, line, move in look.lines() for name in _kit(line, move)}
    if len(kit) >= 4:
        yield look.note(
            code="no-setup",
            level="tell",
            text=f"{len(kit)} kinds of kit and no setup in the slot.",
            reason="Putting it out and showing it takes two or three minutes of the hall's time.",
            fixes=_setup(),
        )


def _setup() -> tuple[Fix, ...]:
    return (Fix("setup 3:00", InsertBlock(at=0, text="setup: 3:00"), adds_s=180),)


def _kit(line: object, move: object) -> list[str]:
    written = [kit.name for task in getattr(line, "tasks", ()) for kit in task.kit]
    return written or list(getattr(move, "needs_kit", ()))
