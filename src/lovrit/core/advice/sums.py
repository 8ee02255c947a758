"""Rules about sums: whether it fits the slot, its turns and its stations, and which rests count."""

from collections.abc import Iterator

from lovrit.core.advice.note import Fix, Look, Note, WayTo
from lovrit.core.blocks.hold_ladder import HoldLadder
from lovrit.core.blocks.rotate import Rotate
from lovrit.core.clock import clock, minutes
from lovrit.core.session.edits import (
    AddOption,
    BlockEdit,
    Convention,
    InsertBlock,
    LineEdit,
    SetFigure,
)


def over_slot(look: Look) -> Iterator[Note]:
    """The session and its setup have to end within the slot."""
    slot = look.session.slot
    if not slot:
        return
    total = look.timeline.total_s + look.session.setup_s
    over = total - slot.seconds
    if over > 0:
        text = (
            f"{minutes(total)} with setup in a slot of {minutes(slot.seconds)}: {clock(over)} over."
        )
        yield look.note(
            code="over-slot",
            level="stop",
            text=text,
            header="slot",
            reason="The next group is at the door when the slot ends.",
            fixes=(
                *_shorter(look, over),
                WayTo("fit", "fit it", must_s=slot.seconds - look.session.setup_s),
            ),
        )
        return
    longest = look.timeline.range_s[1] + look.session.setup_s
    if longest > slot.seconds:
        late = clock(longest - slot.seconds)
        yield look.note(
            code="range-over-slot",
            level="weigh",
            text=f"If it runs long, it passes the slot by {late}.",
            header="slot",
            reason="Something in it has no fixed length; the plan takes the likely one.",
            fixes=tuple(_shorter(look, longest - slot.seconds)),
        )


def _shorter(look: Look, over: int) -> Iterator[Fix]:
    """What alone would take enough off: a round fewer, or a shorter steady block."""
    for at, block, _ in look.of(Rotate):
        rounds = block.rounds.high
        length = look.timeline.blocks[at].seconds / rounds
        fewer = -(-over // max(1, int(length)))
        if look.has(at, "rounds") and rounds - fewer >= 1:
            rounds_left = f"{rounds - fewer} round" + ("s" if rounds - fewer > 1 else "")
            edit = SetFigure(block=at, figure="rounds", value=rounds - fewer)
            yield Fix(text=rounds_left, edit=edit)
    for at, other, laid in [one for one in look.blocks() if not one[1].works]:
        left = laid.seconds - over
        if left >= 120 and look.has(at, "total"):
            yield Fix(
                text=f"{other.name} {clock(left)}",
                edit=SetFigure(block=at, figure="total", value=left),
            )
    wanted = (look.session.slot.seconds if look.session.slot else 0) + over
    yield (
        Fix(text=f"slot {clock(wanted)}", edit=SetFigure(block=None, figure="slot", value=wanted))
        if _slot_is_length(look)
        else Fix(
            text="leave out the last block",
            edit=BlockEdit(what="remove", block=len(look.session.blocks) - 1),
        )
    )


def _slot_is_length(look: Look) -> bool:
    header = look.plan.reading.headers.get("slot")
    return bool(header and header.figure)


def hold_past_turn(look: Look) -> Iterator[Note]:
    """A growing hold can't grow past its turn."""
    for at, block, _ in look.of(HoldLadder):
        turns = -(-block.total_s // block.period_s)
        last = block.start_s + block.step_s * (turns - 1)
        if last <= block.period_s:
            continue
        fits = (block.period_s - block.start_s) // max(1, block.step_s) + 1
        yield look.note(
            code="hold-past-turn",
            level="stop",
            text=f"In turn {fits + 1} the hold would be longer than its turn of {clock(block.period_s)}.",
            reason=f"A hold of {last} s in {clock(block.period_s)} can't be done.",
            at=at,
            fixes=(
                Fix(
                    text=f"end after {clock(fits * block.period_s)}",
                    edit=SetFigure(block=at, figure="total", value=max(1, fits) * block.period_s),
                ),
            ),
        )


def part_turn(look: Look) -> Iterator[Note]:
    """A block of turns that ends in the middle of one."""
    for at, block, _ in look.blocks():
        left = (block.length_s or 0) % block.turn_s if block.in_turns else 0
        if left:
            whole = (block.length_s or 0) - left
            yield look.note(
                code="part-turn",
                level="weigh",
                text=f"{clock(whole + left)} is {whole // block.turn_s} turns and {left} s of another.",
                at=at,
                fixes=(
                    Fix(
                        text=f"for {clock(whole + block.turn_s)}",
                        edit=SetFigure(block=at, figure="total", value=whole + block.turn_s),
                        adds_s=block.turn_s - left,
                    ),
                    *(look.set(at, "total", whole, f"for {clock(whole)}") if whole else ()),
                ),
            )


def more_groups_than_stations(look: Look) -> Iterator[Note]:
    """Each group needs a station of its own while it works."""
    if not look.groups:
        return
    for at, block, _ in (one for one in look.blocks() if one[1].rotates):
        stations = len(block.moves)
        if 1 < stations < look.groups:
            yield look.note(
                code="more-groups-than-stations",
                level="stop",
                text=f"{look.groups} groups and {stations} stations: two groups would stand at one.",
                reason="Make fewer groups under Who, or add a station.",
                at=at,
                fixes=(*_another_station(look, at), WayTo("crew", "deal fewer groups")),
            )


def _another_station(look: Look, at: int) -> Iterator[Fix]:
    """A station more, of a move without kit, where one is all that is missing and there is time for it."""
    moves = look.session.blocks[at].moves
    here = {line.name for line in moves}
    if (look.groups or 0) - len(moves) == 1:
        pick = next(name for name in _kitless(look) if name not in here)
        edit = LineEdit(what="insert", block=at, move=len(moves) - 1, text=pick)
        yield Fix(f"add {pick}", edit, adds_s=-(-look.timeline.blocks[at].seconds // len(moves)))


def _kitless(look: Look) -> Iterator[str]:
    """Moves for anybody anywhere; those that are meant for it first."""
    free = (
        move for move in look.library.moves if not (move.kit or move.skill or move.impact == "high")
    )
    return (move.name for move in (*look.library.serving("anywhere"), *free))


def last_rest_twice(look: Look) -> Iterator[Note]:
    """A break or change that is added to the last rest, where one of them alone is usual."""
    for at, block, _ in look.blocks():
        if not (block.between and block.between.added) or block.own_rest_s == 0:
            continue
        word = block.between.name
        yield look.note(
            code="last-rest-twice",
            level="tell",
            text=f"The last rest and the {word} both count here, one after the other.",
            reason="Usual is that one takes the other's place; both is fine where it is meant.",
            at=at,
            fixes=(
                Fix(text=f"{word} in place", edit=Convention(block=at, what="added", on=False)),
            ),
        )


def last_rest_never(look: Look) -> Iterator[Note]:
    """A block that ends on its work, with the next one's work at its heels."""
    working = {at for at, _, _ in look.working()}
    for at, block, _ in look.blocks():
        if not block.drops_last_rest or at + 1 not in working:
            continue
        following = next((one for one in look.timeline.intervals if one.block == at + 1), None)
        if following and following.phase == "work":
            yield look.note(
                code="last-rest-never",
                level="weigh",
                text="No rest between this block's last work and the next block's first.",
                reason="The last rest is dropped here and the next block begins with work.",
                at=at,
                fixes=(
                    Fix(
                        text="keep the last rest", edit=Convention(block=at, what="drop", on=False)
                    ),
                    Fix(
                        text="rest 1:00 between",
                        edit=InsertBlock(at=at + 1, text="rest 1:00"),
                        adds_s=60,
                    ),
                ),
            )


def no_break(look: Look) -> Iterator[Note]:
    """Three rounds and more of many stations on end."""
    for at, block, laid in look.of(Rotate):
        if block.break_s is None and block.rounds.high >= 3 and laid.seconds >= 18 * 60:
            yield look.note(
                code="no-break",
                level="tell",
                text=f"{block.rounds.high} rounds on end, {minutes(laid.seconds)} without a break.",
                reason="A minute or two between rounds is for water and for what you want to say.",
                at=at,
                fixes=(
                    Fix(
                        "break 1:30",
                        AddOption(block=at, text="break 1:30"),
                        90 * (block.rounds.high - 1),
                    ),
                ),
            )
