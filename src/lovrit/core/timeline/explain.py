"""Figures that explain themselves: each as plain arithmetic with its parts named, and where it comes from."""

from collections.abc import Callable, Iterator

from lovrit.core.blocks.block import Block
from lovrit.core.clock import clock, minutes, number, ratio
from lovrit.core.session.edits import Convention
from lovrit.core.slate.line import Task
from lovrit.core.timeline.interval import LaidBlock
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import Value


class Switch(Value):
    """A convention that can be changed where its sum is shown."""

    said: str
    edit: Convention


class Told(Value):
    """How a figure came about: its value, the arithmetic in lines, the blocks it comes from (from 0)."""

    name: str
    value: str
    lines: tuple[str, ...]
    blocks: tuple[int, ...] = ()
    switches: tuple[Switch, ...] = ()


def explain(plan: Plan, figure: str) -> Told | None:
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


def _total(plan: Plan) -> Told:
    parts = " + ".join(clock(laid.seconds) for laid in plan.timeline.blocks)
    lines, blocks = _named(plan, lambda laid: laid.seconds)
    value = minutes(plan.sums.total_s)
    low, high = plan.sums.range_s
    spread = (
        [f"Between {minutes(low)} and {minutes(high)}, as its blocks go."] if low != high else []
    )
    return Told(
        name="In all",
        value=value,
        lines=(f"{parts} = {value}", *lines, *spread),
        blocks=tuple(blocks),
    )


def _work(plan: Plan) -> Told:
    lines, blocks = _named(plan, lambda laid: laid.work_s)
    lines += [line for line in (_by_station(plan), _by_pattern(plan), _sides(plan)) if line]
    return Told(
        name="Work", value=minutes(plan.sums.work_s), lines=tuple(lines), blocks=tuple(blocks)
    )


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
    return (
        f"{what}: " + ", ".join(f"{name} {clock(seconds)}" for name, seconds in shares.items())
        if shares
        else ""
    )


def _by_station(plan: Plan) -> str:
    return _listed("Each person, by station", _shares(plan, lambda task: task.name))


def _by_pattern(plan: Plan) -> str:

    def pattern(task: Task) -> str | None:
        move = plan.library.find(task.name)
        return move.pattern if move else None

    return _listed("By movement pattern", _shares(plan, pattern))


def _sides(plan: Plan) -> str:
    """Whether left and right get the same where sides go by round."""
    sides = [
        one.side
        for one in plan.timeline.intervals
        if one.phase == "work" and one.side in ("left", "right")
    ]
    if not sides:
        return ""
    left, right = sides.count("left"), sides.count("right")
    return f"Sides: left {left}, right {right}" + ("" if left == right else ", which is uneven")


def _rest(plan: Plan) -> Told:
    lines, blocks = _named(plan, lambda laid: laid.rest_s)
    said = "A turn's own rest counts, also the last one, unless a break takes its place."
    value = minutes(plan.sums.rest_s)
    return Told(name="Rest", value=value, lines=(*lines, said), blocks=tuple(blocks))


def _breaks(plan: Plan) -> Told:
    breaks = plan.sums.breaks
    lines = [f"{_label(plan, at)}: {' + '.join(map(clock, parts))}" for at, parts in breaks.items()]
    value = minutes(sum(map(sum, breaks.values())))
    return Told(
        name="Breaks", value=value, lines=tuple(lines) or ("No breaks.",), blocks=tuple(breaks)
    )


def _label(plan: Plan, at: int) -> str:
    return plan.timeline.blocks[at].label


def _ratio(plan: Plan) -> Told:
    work, rest = plan.sums.ratio
    laid = [plan.timeline.blocks[at] for at in plan.sums.ratio_of]
    lines = [f"{clock(work)} of work to {clock(rest)} of rest inside the intervals"]
    lines += [f"{one.label}: {clock(one.work_s)} to {clock(one.rest_s)}" for one in laid]
    left_out = [_label(plan, at) for at in plan.sums.ratio_without]
    if left_out:
        lines.append(
            f"Left out, since its rest is only what the work leaves over: {', '.join(left_out)}."
        )
    return Told(
        name="Work to rest", value=ratio(work, rest), lines=tuple(lines), blocks=plan.sums.ratio_of
    )


def _hard(plan: Plan) -> Told:
    hard = plan.sums.hard_by_block
    lines = [f"{_label(plan, at)}: {clock(seconds)}" for at, seconds in hard.items()]
    lines.append("Work at effort 8 and more counts as hard.")
    return Told(
        name="Hard work", value=minutes(plan.sums.hard_s), lines=tuple(lines), blocks=tuple(hard)
    )


def _effort(plan: Plan) -> Told:
    top, blocks = plan.sums.top_effort, plan.sums.top_in
    lines = [_label(plan, at) for at in blocks] or ["No block asks for an effort."]
    value = number(top) if top is not None else "none"
    return Told(name="Top effort, of 10", value=value, lines=tuple(lines), blocks=blocks)


def _spare(plan: Plan) -> Told:
    slot, setup, spare = plan.session.slot, plan.session.setup_s, plan.sums.spare_s
    if slot is None or spare is None:
        return Told(name="Spare", value="no slot", lines=("No slot is written: slot: 45:00",))
    parts = f"{minutes(slot.seconds)} slot - {minutes(plan.sums.total_s)}"
    setup_part = f" - {clock(setup)} setup" if setup else ""
    return Told(
        name="Spare" if spare >= 0 else "Over",
        value=clock(spare),
        lines=(f"{parts}{setup_part} = {clock(spare)}",),
    )


SUMS: dict[str, Callable[[Plan], Told]] = {
    "total": _total,
    "work": _work,
    "rest": _rest,
    "breaks": _breaks,
    "ratio": _ratio,
    "hard": _hard,
    "effort": _effort,
    "spare": _spare,
}


def block_sum(plan: Plan, at: int) -> Told:
    """How long a block lasts, as arithmetic with the convention in force."""
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    return Told(
        name=block.head,
        value=clock(laid.seconds),
        lines=tuple(_block_lines(block, laid)),
        blocks=(at,),
        switches=tuple(_switches(block, at)),
    )


def _switches(block: Block, at: int) -> Iterator[Switch]:
    """How the block's time could add up otherwise."""
    between = block.between
    if between and between.seconds is not None:
        name, _, added = between
        said = (
            f"let the {name} take the last rest's place"
            if added
            else f"add the {name} to the last rest"
        )
        yield Switch(said=said, edit=Convention(block=at, what="added", on=not added))
    dropped = block.drops_last_rest
    if dropped is not None:
        said = "count the last rest" if dropped else "drop the last rest"
        yield Switch(said=said, edit=Convention(block=at, what="drop", on=not dropped))


def _block_lines(block: Block, laid: LaidBlock) -> list[str]:
    lines = block.arithmetic()
    if block.lead_in_s:
        lines.append(f"+ {clock(block.lead_in_s)} lead-in")
    if block.drops_last_rest:
        lines.append("the last rest is dropped: it ends on the last work")
    work_rest = f"work {clock(laid.work_s)}, rest {clock(laid.rest_s)}"
    lines.append(f"= {clock(laid.seconds)} ({work_rest})")
    if laid.low_s != laid.high_s:
        lines.append(f"between {clock(laid.low_s)} and {clock(laid.high_s)}")
    return lines
