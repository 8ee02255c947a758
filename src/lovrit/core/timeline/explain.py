"""Figures that explain themselves: each as plain arithmetic with its parts named, and where it comes from."""

from collections.abc import Callable, Iterator

from lovrit.core.clock import clock, minutes, number, ratio
from lovrit.core.session.edits import Convention
from lovrit.core.session.model import AnyBlock, Intervals, Rotate, Sets
from lovrit.core.session.move import Task
from lovrit.core.session.writer import head
from lovrit.core.timeline.interval import LaidBlock
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import Value

HARD = 8.0


class Switch(Value):
    """A convention that can be changed where its sum is shown."""

    said: str
    edit: Convention


class Sum(Value):
    """How a figure came about: its value, the arithmetic in lines, the blocks it comes from (from 0)."""

    name: str
    value: str
    lines: tuple[str, ...]
    blocks: tuple[int, ...] = ()
    switches: tuple[Switch, ...] = ()


def explain(plan: Plan, figure: str) -> Sum | None:
    """The sum behind a figure: total, work, rest, ratio, breaks, hard, spare, effort; or block-N from 0."""
    if figure.startswith("block-") and figure[6:].isdecimal():
        at = int(figure[6:])
        return block_sum(plan, at) if at < len(plan.session.blocks) else None
    made = SUMS.get(figure)
    return made(plan) if made else None


def _named(plan: Plan, seconds: Callable[[LaidBlock], int]) -> tuple[list[str], list[int]]:
    """Every block that has some of it, with how much."""
    lines, blocks = [], []
    for at, laid in enumerate(plan.timeline.blocks):
        if seconds(laid):
            lines.append(f"{laid.label}: {clock(seconds(laid))}")
            blocks.append(at)
    return lines or ["None in this session."], blocks


def _total(plan: Plan) -> Sum:
    parts = " + ".join(clock(laid.seconds) for laid in plan.timeline.blocks)
    lines, blocks = _named(plan, lambda laid: laid.seconds)
    value = minutes(plan.timeline.total_s)
    low, high = plan.timeline.range_s
    spread = [f"Between {minutes(low)} and {minutes(high)}, as its blocks go."] if low != high else []
    return Sum(name="In all", value=value, lines=(f"{parts} = {value}", *lines, *spread), blocks=tuple(blocks))


def _work(plan: Plan) -> Sum:
    lines, blocks = _named(plan, lambda laid: laid.work_s)
    lines += [line for line in (_by_station(plan), _by_pattern(plan), _sides(plan)) if line]
    return Sum(name="Work", value=minutes(plan.timeline.work_s), lines=tuple(lines), blocks=tuple(blocks))


def _shares(plan: Plan, name: Callable[[Task], str | None]) -> dict[str, int]:
    """One person's seconds of work by a name of their tasks; a group's way round a circuit is any other's."""
    found: dict[str, int] = {}
    for one in plan.timeline.intervals:
        if one.phase != "work" or one.move is None:
            continue
        tasks = plan.session.blocks[one.block].moves[one.move].tasks
        for task in tasks:
            said = name(task)
            if said:
                found[said] = found.get(said, 0) + round(one.seconds / len(tasks))
    return dict(sorted(found.items(), key=lambda pair: -pair[1]))


def _listed(what: str, shares: dict[str, int]) -> str:
    return f"{what}: " + ", ".join(f"{name} {clock(seconds)}" for name, seconds in shares.items()) if shares else ""


def _by_station(plan: Plan) -> str:
    return _listed("Each person, by station", _shares(plan, lambda task: task.name))


def _by_pattern(plan: Plan) -> str:

    def pattern(task: Task) -> str | None:
        move = plan.library.find(task.name)
        return move.pattern if move else None

    return _listed("By movement pattern", _shares(plan, pattern))


def _sides(plan: Plan) -> str:
    """Whether left and right get the same where sides go by round."""
    sides = [one.side for one in plan.timeline.intervals if one.phase == "work" and one.side in ("left", "right")]
    if not sides:
        return ""
    left, right = sides.count("left"), sides.count("right")
    return f"Sides: left {left}, right {right}" + ("" if left == right else ", which is uneven")


def _rest(plan: Plan) -> Sum:
    lines, blocks = _named(plan, lambda laid: laid.rest_s)
    said = "A turn's own rest counts, also the last one, unless a break takes its place."
    value = minutes(plan.timeline.rest_s)
    return Sum(name="Rest", value=value, lines=(*lines, said), blocks=tuple(blocks))


def _breaks(plan: Plan) -> Sum:
    found: dict[int, list[int]] = {}
    for one in plan.timeline.intervals:
        if one.phase in ("break", "change"):
            found.setdefault(one.block, []).append(one.seconds)
    lines = [f"{plan.timeline.blocks[at].label}: {' + '.join(clock(s) for s in parts)}" for at, parts in found.items()]
    value = minutes(sum(map(sum, found.values())))
    return Sum(name="Breaks", value=value, lines=tuple(lines) or ("No breaks.",), blocks=tuple(found))


def _ratio(plan: Plan) -> Sum:
    known = [
        (at, laid)
        for at, laid in enumerate(plan.timeline.blocks)
        if laid.interval_block and not laid.rest_is_forecast and laid.rest_s
    ]
    work, rest = sum(laid.work_s for _, laid in known), sum(laid.rest_s for _, laid in known)
    lines = [f"{laid.label}: {clock(laid.work_s)} to {clock(laid.rest_s)}" for _, laid in known]
    left_out = [laid.label for laid in plan.timeline.blocks if laid.interval_block and laid.rest_is_forecast]
    if left_out:
        lines.append(f"Left out, since its rest is only what the work leaves over: {', '.join(left_out)}.")
    lines.insert(0, f"{clock(work)} of work to {clock(rest)} of rest inside the intervals")
    return Sum(name="Work to rest", value=ratio(work, rest), lines=tuple(lines), blocks=tuple(at for at, _ in known))


def known_ratio(plan: Plan) -> tuple[int, int]:
    """Seconds of work and of rest in the blocks whose rest is written."""
    laid = [one for one in plan.timeline.blocks if one.interval_block and not one.rest_is_forecast]
    return sum(one.work_s for one in laid), sum(one.rest_s for one in laid)


def hard_s(plan: Plan) -> int:
    """Seconds of work at effort 8 and more."""
    return sum(one.seconds for one in plan.timeline.intervals if one.phase == "work" and (one.effort or 0) >= HARD)


def _hard(plan: Plan) -> Sum:
    found: dict[int, int] = {}
    for one in plan.timeline.intervals:
        if one.phase == "work" and (one.effort or 0) >= HARD:
            found[one.block] = found.get(one.block, 0) + one.seconds
    lines = [f"{plan.timeline.blocks[at].label}: {clock(seconds)}" for at, seconds in found.items()]
    lines.append("Work at effort 8 and more counts as hard.")
    return Sum(name="Hard work", value=minutes(hard_s(plan)), lines=tuple(lines), blocks=tuple(found))


def top_effort(plan: Plan) -> float | None:
    """The highest effort that any block asks for, of a range its upper end; None where none is written."""
    return max((one.high for block in plan.session.blocks for one in block.efforts), default=None)


def _effort(plan: Plan) -> Sum:
    top = top_effort(plan)
    blocks = [at for at, block in enumerate(plan.session.blocks) if any(one.high == top for one in block.efforts)]
    lines = [f"{plan.timeline.blocks[at].label}" for at in blocks]
    value = number(top) if top is not None else "none"
    lines = lines or ["No block asks for an effort."]
    return Sum(name="Top effort, of 10", value=value, lines=tuple(lines), blocks=tuple(blocks))


def spare_s(plan: Plan) -> int | None:
    """Seconds of the slot that are left over; negative if it runs over, None without a slot."""
    slot = plan.session.slot
    return slot.seconds - plan.timeline.total_s - plan.session.setup_s if slot else None


def _spare(plan: Plan) -> Sum:
    slot, setup = plan.session.slot, plan.session.setup_s
    if not slot:
        return Sum(name="Spare", value="no slot", lines=("No slot is written: slot: 45:00",))
    spare = spare_s(plan) or 0
    parts = f"{minutes(slot.seconds)} slot - {minutes(plan.timeline.total_s)}"
    setup_part = f" - {clock(setup)} setup" if setup else ""
    return Sum(
        name="Spare" if spare >= 0 else "Over",
        value=clock(spare),
        lines=(f"{parts}{setup_part} = {clock(spare)}",),
    )


SUMS: dict[str, Callable[[Plan], Sum]] = {
    "total": _total,
    "work": _work,
    "rest": _rest,
    "breaks": _breaks,
    "ratio": _ratio,
    "hard": _hard,
    "effort": _effort,
    "spare": _spare,
}


def block_sum(plan: Plan, at: int) -> Sum:
    """How long a block lasts, as arithmetic with the convention in force."""
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    return Sum(
        name=head(block),
        value=clock(laid.seconds),
        lines=tuple(_block_lines(block, laid)),
        blocks=(at,),
        switches=tuple(_switches(block, at)),
    )


def _switches(block: AnyBlock, at: int) -> Iterator[Switch]:
    """How the block's time could add up otherwise."""
    for word in ("break", "change"):
        if getattr(block, f"{word}_s", None) is not None:
            on = not getattr(block, f"{word}_added")
            said = f"add the {word} to the last rest" if on else f"let the {word} take the last rest's place"
            yield Switch(said=said, edit=Convention(block=at, what="added", on=on))
    dropped = getattr(block, "drop_last_rest", None)
    if dropped is not None:
        said = "count the last rest" if dropped else "drop the last rest"
        yield Switch(said=said, edit=Convention(block=at, what="drop", on=not dropped))


def _block_lines(block: AnyBlock, laid: LaidBlock) -> list[str]:
    lines = []
    match block:
        case Rotate():
            lines += _rotate_lines(block)
        case Sets():
            lines += _sets_lines(block)
        case Intervals(each=None):
            pairs = " + ".join(f"{_seconds(p.work)} + {_seconds(p.rest)}" for p in block.pattern)
            lines.append(f"{block.count.high} x ({pairs})")
    if block.lead_in_s:
        lines.append(f"+ {clock(block.lead_in_s)} lead-in")
    if getattr(block, "drop_last_rest", False):
        lines.append("the last rest is dropped: it ends on the last work")
    work_rest = f"work {clock(laid.work_s)}, rest {clock(laid.rest_s)}"
    lines.append(f"= {clock(laid.seconds)} ({work_rest})")
    if laid.low_s != laid.high_s:
        lines.append(f"between {clock(laid.low_s)} and {clock(laid.high_s)}")
    return lines


def _seconds(stretch: object) -> str:
    seconds = getattr(stretch, "seconds", None)
    return clock(seconds) if seconds is not None else f"until {getattr(stretch, 'until_bpm', '')}"


def _turn(pair: object) -> str:
    work, rest = pair.work, pair.rest  # type: ignore[attr-defined]
    if work.seconds is None or rest.seconds is None:
        return f"({_seconds(work)} + {_seconds(rest)})"
    return clock(work.seconds + rest.seconds)


def _rotate_lines(block: Rotate) -> list[str]:
    rounds, stations = block.rounds.high, len(block.moves)
    lines = [f"{rounds} rounds × {stations} stations × {_turn(block.pair)}"]
    if block.break_s is not None and rounds > 1:
        lines.append(f"+ {rounds - 1} × {clock(block.break_s)} break")
        lines.append(
            "breaks are added to the last station's rest"
            if block.break_added
            else f"- {rounds - 1} × {_seconds(block.pair.rest)}: a break takes the place of the last station's rest"
        )
    return lines


def _sets_lines(block: Sets) -> list[str]:
    sets, stations = block.sets.high, len(block.moves)
    lines = [f"{stations} stations × {sets} sets × {_turn(block.pair)}"]
    if block.change_s is not None and stations > 1:
        lines.append(f"+ {stations - 1} × {clock(block.change_s)} change")
        lines.append(
            "changes are added to the last set's rest"
            if block.change_added
            else f"- {stations - 1} × {_seconds(block.pair.rest)}: a change takes the place of the last set's rest"
        )
    return lines
