"""What is different between two states of a session, in sentences: block by block, with what it comes to."""

from collections.abc import Iterator
from difflib import SequenceMatcher

from lovrit.core.blocks.block import Block
from lovrit.core.clock import clock
from lovrit.core.timeline.interval import LaidBlock
from lovrit.core.timeline.plan import Plan

Laid = tuple[Block, LaidBlock]


def revised(before: Plan, after: Plan) -> tuple[str, ...]:
    """Each block that is gone, new or changed, in the order of the session after."""
    one, two = _laid(before), _laid(after)
    matcher = SequenceMatcher(
        None, [_key(block) for block, _ in one], [_key(block) for block, _ in two]
    )
    said: list[str] = []
    for tag, a1, a2, b1, b2 in matcher.get_opcodes():
        if tag == "equal":
            for was, now in zip(one[a1:a2], two[b1:b2], strict=True):
                said += _changed(was, now)
            continue
        said += [f"without {_named(was)}" for was in one[a1:a2]]
        said += [f"{_named(now)} is new" for now in two[b1:b2]]
    return tuple(said)


def _laid(plan: Plan) -> list[Laid]:
    return list(zip(plan.session.blocks, plan.timeline.blocks, strict=True))


def _key(block: Block) -> tuple[str, str]:
    """Which block it is, whatever its figures are: its kind and its first move."""
    return block.kind, block.moves[0].name if block.moves else block.name


def _named(laid: Laid) -> str:
    head, length = laid[0].head, clock(laid[1].seconds)
    return head if length in head else f"{head}, {length}"


def _changed(was: Laid, now: Laid) -> Iterator[str]:
    (old, one), (new, two) = was, now
    if old == new:
        return
    by = [f"{old.head} became {new.head}"] if old.head != new.head else [new.head]
    by += _moves(old, new)
    by += _efforts(old, new)
    more = [_more(two.work_s - one.work_s, "work"), _more(two.rest_s - one.rest_s, "rest")]
    comes_to = ", ".join(filter(None, more))
    yield ", ".join(by) + (f": {comes_to}" if comes_to else "")


def _moves(old: Block, new: Block) -> Iterator[str]:
    names, others = [line.name for line in old.moves], [line.name for line in new.moves]
    gone = [name for name in names if name not in others]
    more = [name for name in others if name not in names]
    if gone:
        yield f"without {' and '.join(gone)}"
    if more:
        yield f"with {' and '.join(more)}"
    if not gone and not more and names != others:
        yield "in another order"


def _efforts(old: Block, new: Block) -> Iterator[str]:
    if old.efforts != new.efforts:
        said = [" ".join(str(one) for one in block.efforts) or "none" for block in (old, new)]
        yield f"effort {said[0]} → {said[1]}"


def _more(seconds: int, of: str) -> str:
    if not seconds:
        return ""
    return f"{clock(abs(seconds))} {'more' if seconds > 0 else 'less'} {of}"
