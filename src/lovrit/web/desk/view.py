"""A session turned into what the Desk shows: the read-out line, the slate's problems, the second look."""

from typing import NamedTuple

from lovrit.core.advice.company import Company
from lovrit.core.advice.look import second_look
from lovrit.core.advice.note import Note
from lovrit.core.clock import clock, minutes, number, ratio
from lovrit.core.crew.groups import sizes
from lovrit.core.moves.library import Library
from lovrit.core.session.reader import Spoken
from lovrit.core.slate.problem import Problem
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import Value
from lovrit.web.desk.rails import Rails, rails_view
from lovrit.web.desk.tape import Tape, tape_view
from lovrit.web.desk.told import Foretold, told_of

SHOWN = 3


class Part(NamedTuple):
    """A piece of the read-out: words, or a figure that can be pressed (``key``)."""

    text: str
    key: str = ""
    stop: bool = False


class People(NamedTuple):
    """How many come, in groups of which sizes."""

    coming: int
    groups: tuple[int, ...]


class Listener(NamedTuple):
    """Who the second look is for, and the codes that a coach has put aside."""

    company: Company
    aside: frozenset[str] = frozenset()


class DeskView(Value):
    """Everything on the Desk that follows the text. Of its notes, ``first`` are shown and the rest folded."""

    title: str
    readout: tuple[Part, ...]
    tape: Tape
    rails: Rails | None
    notes: tuple[Note, ...]
    first: int
    told: Foretold
    problems: tuple[Problem, ...]
    spoken: tuple[Spoken, ...]
    clocks: tuple[dict[str, int | str], ...]
    places: dict[int, str]
    stale: bool
    unread: str
    blocked: int
    weighed: int


def desk_view(
    plan: Plan,
    library: Library,
    people: People,
    shown: tuple[int, int],
    said: Listener | None = None,
    problems: tuple[Problem, ...] = (),
    stale: bool = False,
) -> DeskView:
    """The Desk of a plan; ``shown`` is the block and round that the rails show.

    ``problems`` are those of the text as typed; ``stale`` where the plan is the last that could be read.
    """
    company, aside = said or Listener(Company(groups=len(people.groups) or None))
    notes = second_look(plan, library, company, aside)
    blocks = plan.session.blocks
    block = blocks[min(shown[0], len(blocks) - 1)] if blocks else None
    return DeskView(
        title=plan.session.title or "Untitled session",
        readout=tuple(readout(plan, people)),
        tape=tape_view(plan, shown[0], tuple(one.line for one in problems or plan.problems)),
        rails=rails_view(plan, max(1, len(people.groups)), *shown),
        notes=notes,
        first=max(SHOWN, sum(note.level == "stop" for note in notes)),
        told=told_of(plan, block),
        problems=problems or plan.problems,
        spoken=plan.reading.spoken,
        clocks=() if stale else clocks(plan),
        places=places(plan),
        stale=stale,
        unread=_unread(plan, problems),
        blocked=sum(note.level == "stop" for note in notes),
        weighed=sum(note.level == "weigh" for note in notes),
    )


def _unread(plan: Plan, problems: tuple[Problem, ...]) -> str:
    """What is drawn of lines that can't be read: as each last could be, or without it."""
    lost = {one.line for one in plan.problems}
    kept = sorted({one.line for one in problems} - lost)
    said = (
        [f"without {len(lost)} {'line' if len(lost) == 1 else 'lines'} that can’t be read"]
        if lost
        else []
    )
    said += [f"line {', '.join(map(str, kept))} as it last could be read"] if kept else []
    return ", ".join(said)


def clocks(plan: Plan) -> tuple[dict[str, int | str], ...]:
    """When each block begins, by its line, for the slate's margin; with a slot that says when, by the time of day."""
    slot = plan.session.slot
    from_s = 0
    if slot and slot.begins:
        from_s = slot.begins.hour * 3600 + slot.begins.minute * 60 + plan.session.setup_s
    begins: dict[int, int] = {}
    for place, laid in zip(plan.reading.blocks, plan.timeline.blocks, strict=True):
        begins.setdefault(place.line, laid.start_s)  # of a block that is repeated, its first time
    return tuple({"line": line, "clock": _begins(from_s, at)} for line, at in begins.items())


def places(plan: Plan) -> dict[int, str]:
    """What stands on each line of the slate, as remarks point to it: a block by its beginning, a move by its name."""
    named = {header.line: key for key, header in plan.reading.headers.items()}
    both = zip(plan.reading.blocks, plan.session.blocks, plan.timeline.blocks, strict=True)
    for place, block, laid in both:
        named[place.line] = f"at {clock(laid.start_s)}"
        named |= {line: move.name for line, move in zip(place.moves, block.moves, strict=True)}
    return named


def _begins(from_s: int, start_s: int) -> str:
    if not from_s:
        return clock(start_s)
    at = (from_s + start_s) // 60
    return f"{at // 60 % 24:02}:{at % 60:02}"


def readout(plan: Plan, people: People) -> list[Part]:
    """The line that opens the Desk."""
    if not plan.timeline.intervals:
        return [
            Part("Nothing on the clock yet: write a block on the slate, or start from the rack.")
        ]
    return [*_time(plan), *_people(people), *_ratio(plan), *_dose(plan)]


def _time(plan: Plan) -> list[Part]:
    low, high = plan.timeline.range_s
    total = minutes(plan.timeline.total_s)
    parts = [Part(total if low == high else f"{total} ({minutes(low)}–{minutes(high)})", "total")]
    slot, spare = plan.session.slot, plan.sums.spare_s
    if slot and spare is not None:
        parts += [Part(" of a "), Part(minutes(slot.seconds), "slot"), Part(" slot, ")]
        said = "spare" if spare >= 0 else "over"
        parts += [Part(clock(abs(spare)), "spare", stop=spare < 0), Part(f" {said}")]
    return parts


def _people(people: People) -> list[Part]:
    if not people.coming:
        return []
    return [
        Part(" · "),
        Part(f"{people.coming} people", "people"),
        Part(f" in {sizes(list(people.groups))}"),
    ]


def _ratio(plan: Plan) -> list[Part]:
    work, rest = plan.sums.ratio
    if not work:
        return []
    return [Part(" · "), Part(ratio(work, rest), "ratio"), Part(" work to rest")]


def _dose(plan: Plan) -> list[Part]:
    parts = [Part(" · "), Part(minutes(plan.timeline.work_s), "work"), Part(" of work")]
    if plan.sums.hard_s:
        parts += [Part(", "), Part(minutes(plan.sums.hard_s), "hard"), Part(" of it hard")]
    working = [block for block in plan.session.blocks if block.works]
    if working and not any(block.efforts or block.heart for block in working):
        return [*parts, Part(" · no effort written")]  # a warm-up's is not what the session asks
    top = plan.sums.top_effort
    if top is not None:
        parts += [Part(" · top effort "), Part(number(top), "effort")]
    return parts
