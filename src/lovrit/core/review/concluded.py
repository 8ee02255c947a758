"""What a coach would conclude from a class: who stopped for one thing, a cap, a pace, what does not fit."""

import re
from collections.abc import Iterator
from typing import NamedTuple

from lovrit.core.blocks.fade import TOO_FAST
from lovrit.core.blocks.score import finish_of
from lovrit.core.clock import clock, number
from lovrit.core.heart.over import mostly_over
from lovrit.core.review.after import After, Clause, called_all, repeats, scored
from lovrit.core.review.turns import asked_most

FELT = 1.5  # so far from what was asked is worth a word; ours
COMPANY = 4  # from so many on “all of you” says more than names; ours
MOST_OF = 0.7  # a share of those who said something that is nearly all; ours
FULL, EASY = 0.97, 4.5  # a heart at its highest beside a felt effort that is none; ours
LOW, HARD = 0.66, 9.0  # a heart that never rose beside a felt effort that is hardest; ours
LEAST_TIMES = 4  # repeats from which on the first and the last can be told apart
# words of a why that say nothing of what it was
NOTHING = """
the and had has have was were with not bit too very again left right early both for from off out his her my hurt hurts
hurting pain pains painful sore aches ache bad well feel feels feeling felt leave leaving left call take go going gone
done tonight home time out enough
links rechts mal wieder und mit nicht weh tut tat schmerz schmerzen avec pas très con sin muy no
"""
EMPTY = frozenset(NOTHING.split())
# what each part of a body is loaded by, so that the moves of it can be named; ours
LOADED_BY = (
    ("knee knees knie genou rodilla ankle calf hip", {"squat", "lunge", "jump", "gait"}),
    ("shoulder shoulders elbow wrist schulter épaule hombro", {"push", "pull"}),
    ("back rücken dos espalda hamstring", {"hinge", "squat", "carry"}),
    ("grip hands hand forearm biceps", {"pull", "carry", "hinge"}),
)


class Stop(NamedTuple):
    """Somebody who stopped: when, and why as it was said."""

    who: str
    at_s: float
    why: str


def stops(after: After) -> list[Stop]:
    """Every time that somebody stopped, with why."""
    return [
        Stop(who, one.from_s, one.why) for who, spans in after.going.away.items() for one in spans
    ]


class Together(NamedTuple):
    """Several who stopped for one thing, by the word that they share."""

    word: str
    who: frozenset[str]
    blocks: frozenset[int]


def stopped_together(after: After) -> Together | None:
    """The word that most of those who stopped share, where two do; None where each had a reason of their own."""
    found: dict[str, list[Stop]] = {}
    for one in stops(after):
        for word in dict.fromkeys(re.findall(r"[^\W\d_]{3,}", one.why.casefold())):
            if word not in EMPTY:
                found.setdefault(word.removesuffix("s"), []).append(one)
    shared = {word: some for word, some in found.items() if len({one.who for one in some}) > 1}
    if not shared:
        return None
    word = max(shared, key=lambda one: len({stop.who for stop in shared[one]}))
    some = shared[word]
    said = re.search(re.escape(word), some[0].why, re.IGNORECASE)
    blocks = frozenset(_block_at(after, one.at_s) for one in some)
    return Together(said[0] if said else word, frozenset(one.who for one in some), blocks)


def _block_at(after: After, at_s: float) -> int:
    """The block that was on at a moment."""
    begun = [lap for lap in after.going.laps if lap.from_s <= at_s]
    return max(begun, key=lambda lap: lap.from_s).block if begun else 0


def together(after: After) -> Iterator[Clause]:
    """Several who stopped for one thing, with the block and what of it loads that."""
    some = stopped_together(after)
    if some is None:
        return
    where = ""
    if len(some.blocks) == 1:
        at = next(iter(some.blocks))
        loads = _loads(after, at, some.word)
        all_of = "both" if len(some.who) == 2 else "all"
        where = f", {all_of} in {after.laid.timeline.blocks[at].label}" + (
            f" ({loads})" if loads else ""
        )
    names = tuple(
        f"{after.called(one.who)} at {after.into(one.at_s)}: {one.why}" for one in stops(after)
    )
    yield Clause(f"{len(some.who)} stopped for “{some.word}”{where}.", names, 95)


def _loads(after: After, at: int, word: str) -> str:
    """The moves of a block that load what a word names; its one move where it has one."""
    block, library = after.begun.session.blocks[at], after.begun.library
    names = list(
        dict.fromkeys(task.name for line in block.moves for task in line.tasks if task.name)
    )
    if len(names) == 1:
        return names[0]
    loading = next((loads for words, loads in LOADED_BY if word.casefold() in words.split()), set())
    moves = ((name, library.find(name)) for name in names)
    return ", ".join(name for name, move in moves if move is not None and move.pattern in loading)


def over_their_box(after: After) -> Iterator[Clause]:
    """Who was over their box in most of the turns in which their heart was read."""
    over = [
        (heart.over / heart.turns, f"{after.called(who)} ({heart.over} of {heart.turns})")
        for who, heart in after.hearts.items()
        if mostly_over(heart.over, heart.turns)
    ]
    named = [said for _, said in sorted(over, key=lambda one: -one[0])]
    if named:
        yield Clause(f"Over their box in most turns: {called_all(named)}.", tuple(named), 90)


def fits(after: After, who: str) -> str:
    """What of a felt effort does not fit somebody's heart, in words; empty where it may well be."""
    heart, felt = after.hearts.get(who), after.going.felt.get(who)
    if heart is None or felt is None or heart.held is None or heart.highest is None:
        return ""
    easy = felt <= EASY and heart.held >= FULL * heart.highest
    if not easy and not (felt >= HARD and heart.held <= LOW * heart.highest):
        return ""
    did = "held" if easy else "never passed"
    return f"Felt {number(felt)} does not fit {after.called(who)}’s heart, which {did} {heart.held} of {heart.highest}"


def does_not_fit(after: After) -> Iterator[Clause]:
    """What was felt beside a heart that says the opposite."""
    said = [one for who in after.going.felt if (one := fits(after, who))]
    if said:
        yield Clause(f"{'. '.join(said)}.", tuple(said), 85)


def felt(after: After) -> Iterator[Clause]:
    """What was felt harder or easier than the hardest that was asked: by all, by most, by some."""
    top = asked_most(after.laid.timeline)
    everyone = after.going.felt
    if top is None:
        return
    for word, sign in (("harder", 1), ("easier", -1)):
        off = {
            who: value
            for who, value in everyone.items()
            if sign * (value - top) >= FELT and not fits(after, who)
        }
        if not off:
            continue
        named = tuple(
            f"{after.called(who)} {number(value)} at {number(top)}" for who, value in off.items()
        )
        if len(off) >= COMPANY and len(off) >= MOST_OF * len(everyone):
            low, high = min(off.values()), max(off.values())
            values = number(low) if low == high else f"{number(low)} to {number(high)}"
            who_all = _of_all(len(off), len(everyone), after)
            yield Clause(
                f"{who_all} felt it {word} than asked: {values} where {number(top)} was asked.",
                named,
                65,
            )
        else:
            yield Clause(f"Felt {word} than asked: {called_all(list(named))}.", named, 50)


def _of_all(off: int, said: int, after: After) -> str:
    if off < said:
        return f"{off} of {said}"
    here = len([who for who in after.going.people if who in after.names])
    return "All of you" if said >= here else f"All {said} who said"


def paced(after: After) -> Iterator[Clause]:
    """Who went out too fast in repeats, and who got quicker: the first against the last."""
    for at, laid in enumerate(after.laid.timeline.blocks):
        lanes = {who: took for who, took in repeats(after, at).items() if len(took) >= LEAST_TIMES}
        faded, quicker = [], []
        for who, took in lanes.items():
            third = max(1, len(took) // 3)
            first, last = sum(took[:third]) / third, sum(took[-third:]) / third
            said = f"{after.called(who)} ({clock(round(took[0]))} at first, {clock(round(took[-1]))} at last)"
            if last > TOO_FAST * first:
                faded.append(said)
            elif first > TOO_FAST * last:
                quicker.append(said)
        where = f" in {laid.label}" if len(after.laid.timeline.blocks) > 1 else ""
        if len(faded) >= COMPANY and len(faded) == len(lanes):
            yield Clause(f"All of you went out too fast{where}.", tuple(faded), 57)
        elif faded:
            yield Clause(f"Went out too fast{where}: {called_all(faded)}.", tuple(faded), 57)
        if quicker:
            yield Clause(f"Got quicker{where}: {called_all(quicker)}.", tuple(quicker), 44)


def capped(after: After, at: int) -> str:
    """How a block with a cap ended: who was done, and what the others had left; empty where all were done."""
    cap_s, values = after.begun.blocks[at].floor.cap_s, [value for _, value in scored(after, at)]
    if cap_s is None or not any(one.startswith("cap") for one in values):
        return ""
    told = [finish_of(one) for one in values if one.startswith("cap") or ":" in one]
    done = sorted(one.seconds for one in told if one.seconds is not None)
    open_ = [one.left for one in told if one.seconds is None]
    left = [one for one in open_ if one]
    reps = (
        f"{min(left)}"
        if left and min(left) == max(left)
        else f"{min(left)} to {max(left)}"
        if left
        else ""
    )
    cap = f"the cap of {clock(cap_s)}"
    if not done:
        return f"nobody was done before {cap}" + (f"; {reps} reps were left" if reps else "")
    when = clock(done[0]) if len(done) == 1 else f"{clock(done[0])} to {clock(done[-1])}"
    word, rest = (
        "was" if len(done) == 1 else "were",
        "the other" if len(open_) == 1 else "the others",
    )
    said = f"{len(done)} of {len(told)} {word} done before {cap}, at {when}"
    return said + (f"; {rest} had {reps} reps left" if reps else "")


def changed(after: After) -> Iterator[Clause]:
    """Who changed beyond what the evening did to everybody."""
    if after.changed:
        yield Clause(
            f"Changed beyond the evening: {called_all(list(after.changed))}.", after.changed, 56
        )


CONCLUDE = (together, over_their_box, does_not_fit, felt, paced, changed)
