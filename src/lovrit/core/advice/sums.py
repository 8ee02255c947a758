"""Rules about sums: whether it fits the slot and the turn."""

from collections.abc import Iterator

from lovrit.core.advice.note import Fix, Look, Note
from lovrit.core.clock import clock, minutes
from lovrit.core.forecast.outlook import outlook
from lovrit.core.session.edits import AddOption, BlockEdit, Convention, InsertBlock, LineEdit, SetFigure
from lovrit.core.session.model import Amrap, Every, ForTime, HoldLadder, Quality, Rotate
from lovrit.core.timeline.steps import Laying, for_time_s
from lovrit.core.timeline.worktime import line_s, round_s

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
        yield look.note(
            code="over-slot",
            level="stop",
            text=text,
            header="slot",
            reason="The next group is at the door when the slot ends.",
            fixes=tuple(_shorter(look, over)),
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
            yield look.note(
                code="turn-too-full",
                level="stop" if over else "weigh",
                text=f"{line.name}: about {needed} s of work in a turn of {clock(block.period_s)}.",
                reason="At the end one could still do two more rounds; that takes about half of each turn.",
                at=at,
                nth=nth,
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
    for at, block, _ in look.blocks("every", "hold-ladder"):
        assert isinstance(block, Every | HoldLadder)
        left = block.total_s % block.period_s
        if left:
            whole = block.total_s - left
            yield look.note(
                code="part-turn",
                level="weigh",
                text=f"{clock(block.total_s)} is {whole // block.period_s} turns and {left} s of another.",
                at=at,
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
            yield look.note(
                code="more-groups-than-stations",
                level="stop",
                text=f"{look.groups} groups and {stations} stations: two groups would stand at one.",
                reason="Deal fewer groups on the Crew page, or add a station.",
                at=at,
                fixes=tuple(_another_station(look, at)),
            )


def _another_station(look: Look, at: int) -> Iterator[Fix]:
    here = {line.name for line in look.session.blocks[at].moves}
    pick = next((name for name in ("dead bug", "side step", "squat") if name not in here), "plank")
    missing = (look.groups or 0) - len(look.session.blocks[at].moves)
    if missing == 1:
        edit = LineEdit(what="insert", block=at, move=len(here) - 1, text=pick)
        yield Fix(text=f"add {pick}", edit=edit)


def last_rest_twice(look: Look) -> Iterator[Note]:
    """A break or change that is added to the last rest, where one of them alone is usual."""
    for at, block, _ in look.blocks("rotate", "sets", "strength"):
        added = getattr(block, "break_added", False) or getattr(block, "change_added", False)
        if not added or getattr(block, "rest_s", 1) == 0:
            continue
        word = "break" if block.kind == "rotate" else "change"
        yield look.note(
            code="last-rest-twice",
            level="tell",
            text=f"The last rest and the {word} both count here, one after the other.",
            reason="Usual is that one takes the other's place; both is fine where it is meant.",
            at=at,
            fixes=(Fix(text=f"{word} in place", edit=Convention(block=at, what="added", on=False)),),
        )


def last_rest_never(look: Look) -> Iterator[Note]:
    """A block that ends on its work, with the next one's work at its heels."""
    working = {at for at, _, _ in look.working()}
    for at, block, _ in look.blocks():
        dropped = getattr(block, "drop_last_rest", False)
        following = next((one for one in look.timeline.intervals if one.block == at + 1), None)
        if dropped and at + 1 in working and following and following.phase == "work":
            yield look.note(
                code="last-rest-never",
                level="weigh",
                text="No rest between this block's last work and the next block's first.",
                reason="The last rest is dropped here and the next block begins with work.",
                at=at,
                fixes=(
                    Fix(text="keep the last rest", edit=Convention(block=at, what="drop", on=False)),
                    Fix(text="rest 1:00 between", edit=InsertBlock(at=at + 1, text="rest 1:00")),
                ),
            )


def round_never_finished(look: Look) -> Iterator[Note]:
    """As many rounds as possible where a slow person doesn't finish one."""
    for at, block, laid in look.blocks("amrap"):
        assert isinstance(block, Amrap)
        if not laid.forecast or not laid.forecast.rounds or laid.forecast.rounds[0] >= 1:
            continue
        once = round_s(block.moves, look.library, "high") or block.total_s
        longer = -(-round(once * 1.2) // 60) * 60
        yield look.note(
            code="round-never-finished",
            level="weigh",
            text=f"Slow people take about {clock(once)} a round and don't finish one in {clock(block.total_s)}.",
            reason="Everybody ends a session feeling able.",
            at=at,
            fixes=look.set(at, "total", longer, f"in {clock(longer)}"),
        )


def slow_do_not_make_it(look: Look) -> Iterator[Note]:
    """Turns that fit a usual person and, from some turn on, no longer a slow one."""
    for at, block, _ in look.blocks("every"):
        assert isinstance(block, Every)
        told = outlook(block, look.library)
        for turn in told.turns if told else ():
            full = block.period_s - turn.left_s[1] > block.period_s * FULL_TURN
            if turn.late_from is None or full:
                continue
            longer = block.period_s + 15
            yield look.note(
                code="slow-do-not-make-it",
                level="tell",
                text=f"{block.moves[turn.move].name}: slow people don't make it from turn {turn.late_from} on.",
                reason="One in ten is that slow; write them an easier way, or give the turn more time.",
                at=at,
                nth=turn.move,
                fixes=look.set(at, "period", longer, f"every {clock(longer)}"),
            )


def cap_cuts_rounds(look: Look) -> Iterator[Note]:
    """Rounds for quality that the cap ends before the last."""
    for at, block, _ in look.blocks("quality"):
        assert isinstance(block, Quality)
        once = round_s(block.moves, look.library)
        if once is None or block.cap_s is None:
            continue
        fits = (block.cap_s + block.rest_s) // (once + block.rest_s)
        if fits < block.rounds.high:
            whole = block.rounds.high * (once + block.rest_s)
            longer = -(-whole // 30) * 30
            yield look.note(
                code="cap-cuts-rounds",
                level="weigh",
                text=f"About {clock(once)} a round: the cap ends it in round {fits + 1} of {block.rounds.high}.",
                reason="Unhurried rounds that run out of time are hurried.",
                at=at,
                fixes=look.set(at, "cap", longer, f"cap {clock(longer)}"),
            )


def most_meet_the_cap(look: Look) -> Iterator[Note]:
    """For time with a cap that a usual person meets."""
    for at, block, _ in look.blocks("for-time"):
        assert isinstance(block, ForTime)
        needed = for_time_s(block.model_copy(update={"cap_s": None}), Laying(look.library))
        if block.cap_s is None or not (block.moves or block.over) or needed <= block.cap_s:
            continue
        longer = -(-round(needed * 1.1) // 60) * 60
        yield look.note(
            code="most-meet-the-cap",
            level="weigh",
            text=f"A usual person takes about {clock(needed)}: the cap at {clock(block.cap_s)} ends it for most.",
            reason="A cap is there for the last few, so that everybody ends together.",
            at=at,
            fixes=look.set(at, "cap", longer, f"cap {clock(longer)}"),
        )


def no_break(look: Look) -> Iterator[Note]:
    """Three rounds and more of many stations on end."""
    for at, block, laid in look.blocks("rotate"):
        assert isinstance(block, Rotate)
        if block.break_s is None and block.rounds.high >= 3 and laid.seconds >= 18 * 60:
            yield look.note(
                code="no-break",
                level="tell",
                text=f"{block.rounds.high} rounds on end, {minutes(laid.seconds)} without a break.",
                reason="A minute or two between rounds is for water and for what you want to say.",
                at=at,
                fixes=(Fix(text="break 1:30", edit=AddOption(block=at, text="break 1:30")),),
            )
