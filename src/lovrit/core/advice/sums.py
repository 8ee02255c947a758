"""Rules about sums: whether it fits the slot and the turn."""

from collections.abc import Iterator

from lovrit.core.advice.note import Fix, Look, Note
from lovrit.core.clock import clock, minutes
from lovrit.core.session.edits import BlockEdit, LineEdit, SetFigure
from lovrit.core.session.model import Every, HoldLadder, Rotate
from lovrit.core.timeline.worktime import line_s

FULL_TURN = 0.75


def over_slot(look: Look) -> Iterator[Note]:
    """The session and its setup have to end within the slot."""
    slot = look.session.slot
    if not slot:
        return
    total = look.timeline.total_s + look.session.setup_s
    over = total - slot.seconds
    if over > 0:
        text = f"{minutes(total)} with setup in a slot of {minutes(slot.seconds)}: {clock(over)} over."
        yield Note(
            code="over-slot",
            level="stop",
            text=text,
            line=look.plan.reading.headers["slot"].line if "slot" in look.plan.reading.headers else None,
            reason="The next group is at the door when the slot ends.",
            fixes=tuple(_shorter(look, over)),
        )
        return
    longest = look.timeline.range_s[1] + look.session.setup_s
    if longest > slot.seconds:
        late = clock(longest - slot.seconds)
        yield Note(
            code="range-over-slot",
            level="weigh",
            text=f"If it runs long, it passes the slot by {late}.",
            reason="Something in it has no fixed length; the plan takes the likely one.",
        )


def _shorter(look: Look, over: int) -> Iterator[Fix]:
    """What alone would take enough off: a round fewer, or a shorter steady block."""
    for at, block, _ in look.blocks("rotate"):
        assert isinstance(block, Rotate)
        rounds = block.rounds.high
        length = look.timeline.blocks[at].seconds / rounds
        fewer = -(-over // max(1, int(length)))
        if look.has(at, "rounds") and rounds - fewer >= 1:
            rounds_left = f"{rounds - fewer} round" + ("s" if rounds - fewer > 1 else "")
            edit = SetFigure(block=at, figure="rounds", value=rounds - fewer)
            yield Fix(text=rounds_left, edit=edit)
    for at, block, laid in look.blocks("steady", "rest"):
        left = laid.seconds - over
        name = getattr(block, "label", "rest")
        if left >= 120 and look.has(at, "total"):
            yield Fix(text=f"{name} {clock(left)}", edit=SetFigure(block=at, figure="total", value=left))
    yield (
        Fix(
            text=f"slot {clock(look.timeline.total_s + look.session.setup_s)}",
            edit=SetFigure(block=None, figure="slot", value=look.timeline.total_s + look.session.setup_s),
        )
        if _slot_is_length(look)
        else Fix(
            text="leave out the last block",
            edit=BlockEdit(what="remove", block=len(look.session.blocks) - 1),
        )
    )


def _slot_is_length(look: Look) -> bool:
    header = look.plan.reading.headers.get("slot")
    return bool(header and header.figure)


def full_turn(look: Look) -> Iterator[Note]:
    """An every-minute turn is about half full; one that leaves hardly any rest isn't that any more."""
    for at, block, _ in look.blocks("every"):
        assert isinstance(block, Every)
        for nth, line in enumerate(block.moves):
            needed = line_s(line, look.library)
            if needed is None or needed <= block.period_s * FULL_TURN:
                continue
            over = needed >= block.period_s
            longer = -(-round(needed / 0.6) // 5) * 5
            turns = block.total_s // block.period_s
            yield Note(
                code="turn-too-full",
                level="stop" if over else "weigh",
                text=f"{line.name}: about {needed} s of work in a turn of {clock(block.period_s)}.",
                reason="At the end one could still do two more rounds; that takes about half of each turn.",
                block=at,
                line=look.line(at, nth),
                fixes=(
                    Fix(
                        text=f"every {clock(longer)}, {turns} turns",
                        edit=SetFigure(block=at, figure="period", value=longer),
                    ),
                )
                if block.total_s >= longer
                else (),
            )


def hold_past_turn(look: Look) -> Iterator[Note]:
    """A growing hold can't grow past its turn."""
    for at, block, _ in look.blocks("hold-ladder"):
        assert isinstance(block, HoldLadder)
        turns = -(-block.total_s // block.period_s)
        last = block.start_s + block.step_s * (turns - 1)
        if last <= block.period_s:
            continue
        fits = (block.period_s - block.start_s) // max(1, block.step_s) + 1
        yield Note(
            code="hold-past-turn",
            level="stop",
            text=f"In turn {fits + 1} the hold would be longer than its turn of {clock(block.period_s)}.",
            reason=f"A hold of {last} s in {clock(block.period_s)} can't be done.",
            block=at,
            line=look.line(at),
            fixes=(
                Fix(
                    text=f"end after {clock(fits * block.period_s)}",
                    edit=SetFigure(block=at, figure="total", value=max(1, fits) * block.period_s),
                ),
            ),
        )


def part_turn(look: Look) -> Iterator[Note]:
    """A block of turns that ends in the middle of one."""
    for at, block, _ in look.blocks("every", "hold-ladder"):
        assert isinstance(block, Every | HoldLadder)
        left = block.total_s % block.period_s
        if left:
            whole = block.total_s - left
            yield Note(
                code="part-turn",
                level="weigh",
                text=f"{clock(block.total_s)} is {whole // block.period_s} turns and {left} s of another.",
                block=at,
                line=look.line(at),
                fixes=(
                    Fix(
                        text=f"for {clock(whole + block.period_s)}",
                        edit=SetFigure(block=at, figure="total", value=whole + block.period_s),
                    ),
                ),
            )


def more_groups_than_stations(look: Look) -> Iterator[Note]:
    """Each group needs a station of its own while it works."""
    if not look.groups:
        return
    for at, block, _ in look.blocks("rotate", "sets"):
        stations = len(block.moves)
        if 1 < stations < look.groups:
            yield Note(
                code="more-groups-than-stations",
                level="stop",
                text=f"{look.groups} groups and {stations} stations: two groups would stand at one.",
                reason="Deal fewer groups on the Crew page, or add a station.",
                block=at,
                line=look.line(at),
                fixes=tuple(_another_station(look, at)),
            )


def _another_station(look: Look, at: int) -> Iterator[Fix]:
    here = {line.name for line in look.session.blocks[at].moves}
    pick = next((name for name in ("dead bug", "side step", "squat") if name not in here), "plank")
    missing = (look.groups or 0) - len(look.session.blocks[at].moves)
    if missing == 1:
        edit = LineEdit(what="insert", block=at, move=len(here) - 1, text=pick)
        yield Fix(text=f"add {pick}", edit=edit)
