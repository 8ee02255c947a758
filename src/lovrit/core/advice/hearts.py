"""Rules about hearts: targets and gates that this work or rest never gets to, and whose figures they rest on."""

from collections.abc import Iterator
from typing import TYPE_CHECKING

from lovrit.core.advice.note import Fix, Look, Note, WayTo, effort
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.paired import Paired
from lovrit.core.blocks.parts import Effort, Heart, Pair, Stretch
from lovrit.core.clock import clock, number
from lovrit.core.crew.person import USUAL_HIGHEST, USUAL_REST, Person
from lovrit.core.heart.body import Body, beats, settled, step
from lovrit.core.heart.demand import at_reserve, corridor, demand, effort_at
from lovrit.core.session.edits import ReplaceBlock
from lovrit.core.session.writer import block_lines

if TYPE_CHECKING:
    from lovrit.core.heart.foresee import TurnAhead

USUAL = Person(id=0, name="", initials="")
MODEL = "the heart model of docs/forecasts.md, for a usual heart of 62 to 186"
MOST_INTERVALS = 400  # of longer sessions nothing is forecast, so that typing stays quick
STEADY_S, APART = (
    120,
    1.5,
)  # beats say what effort it is after two minutes; further apart than this is at odds
DOWN = 6.0  # beats that a rest's target may be missed by
HELD_S, HELD_SHARE = 480, 0.84  # so long above so much of the reserve
DRIVES = 0.9  # a gate above so much of the reserve has people chase it
STANDING = 0.12


def out_of_reach(look: Look) -> Iterator[Note]:
    """A heart target that this work is over before anybody's heart gets to."""
    for at, block, turns in _foreseen(look):
        longest = max(one.end_s - one.start_s for one in turns)
        if not block.heart or block.gated or longest >= STEADY_S:
            continue
        if any(one.reached for one in turns):
            continue
        top = max(round(one.peak) for one in turns)
        low, _ = _box(block.heart)
        yield look.note(
            code="heart-out-of-reach",
            level="weigh",
            text=f"Heart {block.heart} is not reached in {clock(longest)}: {top} at the most of {round(low)}.",
            reason="The work is over before the heart gets there; effort steers better here.",
            basis=MODEL,
            at=at,
            fixes=_by_effort(at, block),
        )


def rest_out_of_reach(look: Look) -> Iterator[Note]:
    """A rest's heart target that the rest is over before hearts are down to."""
    for at, block, turns in _foreseen(look):
        lows = [one.low_in_rest for one in turns if one.low_in_rest is not None]
        if not block.rest_heart or block.gated or not lows:
            continue
        asked, here = _box(block.rest_heart)[1], sorted(lows)[len(lows) // 2]
        if here <= asked + DOWN:
            continue
        plain = block.but(rest_heart=None)
        yield look.note(
            code="rest-heart-out-of-reach",
            level="weigh",
            text=f"In this rest hearts come down to about {round(here)}, and {round(asked)} is asked.",
            reason="A rest that is asked for more than it gives tells nobody anything; let it be longer, or easier.",
            basis=MODEL,
            at=at,
            fixes=(_instead("no target in the rest", at, plain),),
        )


def at_odds(look: Look) -> Iterator[Note]:
    """An effort and a heart that don't belong together, where the work is long enough for both to be true."""
    for at, block, _ in look.blocks():
        target, asked = block.heart, block.top_effort
        longest = _longest(look, at)
        if not target or asked is None or longest < STEADY_S or target.of == "threshold":
            continue
        low, high = (_felt(bpm) for bpm in _box(target))
        off = low - asked if asked < low else asked - high
        if off <= APART:
            continue
        meant = round(2 * (low + high) / 2) / 2
        yield look.note(
            code="heart-effort-at-odds",
            level="weigh",
            text=f"Heart {target} is about effort {number(meant)}, and {number(asked)} is asked: two orders in one.",
            reason="After two minutes the two say the same, so only one of them can be meant.",
            basis=MODEL,
            at=at,
            fixes=(
                _instead(
                    f"at {number(meant)}", at, block.but(efforts=(Effort(low=meant, high=meant),))
                ),
                _instead(f"at {number(asked)} alone", at, block.but(heart=None)),
            ),
        )


def held_too_long(look: Look) -> Iterator[Note]:
    """A corridor near the threshold or over it for longer than most people hold it."""
    for at, block, _ in look.blocks():
        longest = _longest(look, at)
        if not block.heart or longest <= HELD_S or block.heart.of == "threshold":
            continue
        low, _ = _box(block.heart)
        if (low - USUAL_REST) / (USUAL_HIGHEST - USUAL_REST) < HELD_SHARE:
            continue
        eased = block.but(heart=Heart(of="reserve", low=68, high=78))
        yield look.note(
            code="corridor-held-too-long",
            level="weigh",
            text=f"Heart {block.heart} for {clock(longest)} at a stretch: few people hold that so long.",
            reason="Longer than some eight minutes there, and most slow down or go over.",
            at=at,
            fixes=(_instead(f"heart {eased.heart}", at, eased),),
        )


def gate_never_up(look: Look) -> Iterator[Note]:
    """A work that ends when the heart is up, where it will not be by the clock's limit."""
    for at, block, _ in look.blocks():
        for pair in block.pairs:
            until, most = pair.work.until_bpm, getattr(block, "most_s", None)
            if until is None or most is None:
                continue
            body = Body(rest=USUAL_REST, highest=USUAL_HIGHEST)
            asked = demand(effort(block) or 7.0)
            here = beats(
                body, step(body, settled(STANDING), asked, max(0, most - round(body.delay)))
            )
            if here >= until:
                continue
            lines = "\n".join(block_lines(block)).replace(
                f"until {until}", f"until {round(here) - 5}", 1
            )
            yield look.note(
                code="gate-not-reached",
                level="weigh",
                text=f"Until {until}: after {clock(most)} most hearts are at about {round(here)}.",
                reason="Then every work runs to its limit, and the gate is none.",
                basis=MODEL,
                at=at,
                fixes=(Fix(f"until {round(here) - 5}", ReplaceBlock(block=at, text=lines)),),
            )
            return


def gate_drives(look: Look) -> Iterator[Note]:
    """A gate so high that people chase it."""
    for at, block, _ in look.blocks():
        for pair in block.pairs:
            until = pair.work.until_bpm
            if until is None or until < at_reserve(USUAL, DRIVES):
                continue
            lower = round(at_reserve(USUAL, 0.8) / 5) * 5
            lines = "\n".join(block_lines(block)).replace(f"until {until}", f"until {lower}", 1)
            yield look.note(
                code="gate-drives-effort",
                level="weigh",
                text=f"Until {until}: whoever isn’t there works harder and harder to be let go.",
                reason="A gate is for letting people go, not for driving them; somebody may go all-out who should not.",
                at=at,
                fixes=(Fix(f"until {lower}", ReplaceBlock(block=at, text=lines)),),
            )
            return


def whose_figures(look: Look) -> Iterator[Note]:
    """Targets that rest on figures nobody has measured, or that somebody's heart can't steer by."""
    company = look.company
    steered = [
        at for at, block, _ in look.blocks() if block.heart or block.rest_heart or block.gated
    ]
    if not steered:
        return
    crew = WayTo("crew", "see who")
    if company.by_effort:
        yield look.note(
            code="heart-cannot-steer",
            level="tell",
            text=f"{_go(company.by_effort)} by effort: say theirs in words, and let the clock end it for them.",
            reason="Medicine that slows the heart, or no strap: beats say nothing of how hard it is.",
            at=steered[0],
            fixes=(*_unsteered(steered[0], look.session.blocks[steered[0]]), crew),
        )
    shares = [
        at for at, block, _ in look.blocks() if block.heart and block.heart.of in ("reserve", "max")
    ]
    if company.from_age and shares:
        yield look.note(
            code="heart-from-age",
            level="tell",
            text=f"The highest of {company.from_age} is from age: check with effort, and talk.",
            reason="A formula is wrong by ten beats either way for one in three.",
            at=shares[0],
            fixes=(*_by_effort(shares[0], look.session.blocks[shares[0]]), crew),
        )
    asked = [at for at, block, _ in look.blocks() if block.heart and block.heart.of == "threshold"]
    unknown = company.steering - company.thresholds
    if asked and company.steering and unknown > 0:
        yield look.note(
            code="threshold-unknown",
            level="tell",
            text=f"Nobody knows the threshold of {unknown} who come: they go by effort here.",
            reason="A threshold is measured, in an hour’s hardest or a test; it is never from age.",
            at=asked[0],
            fixes=(*_by_effort(asked[0], look.session.blocks[asked[0]]), crew),
        )


def _go(count: int) -> str:
    return "One goes" if count == 1 else f"{count} go"


def _foreseen(look: Look) -> Iterator[tuple[int, Block, list["TurnAhead"]]]:
    """The blocks with a target of work or rest, and a usual heart's turns in them."""
    if not any(block.heart or block.rest_heart for _, block, _ in look.blocks()):
        return
    from lovrit.core.heart.foresee import (  # arrays only where a target needs them
        body_of,
        turns_ahead,
    )

    if len(look.timeline.intervals) > MOST_INTERVALS:
        return
    for at, block, laid in look.blocks():
        if not (block.heart or block.rest_heart) or not block.interval_block:
            continue
        found = turns_ahead(look.plan, USUAL, body_of(USUAL), at)
        turns = [one for one in found if laid.start_s <= one.start_s < laid.end_s]
        if turns and (block.heart is None or block.heart.of != "threshold"):
            yield at, block, turns


def _box(target: Heart) -> tuple[float, float]:
    """A target in a usual heart's beats."""
    return corridor(USUAL, None, target) or (0.0, 300.0)


def _felt(bpm: float) -> float:
    """The effort that steady beats of a usual heart are."""
    return effort_at((bpm - USUAL_REST) / (USUAL_HIGHEST - USUAL_REST))


def _longest(look: Look, at: int) -> int:
    phases = ("work", "steady")
    return max(
        (one.seconds for one in look.timeline.of_block(at) if one.phase in phases), default=0
    )


def _by_effort(at: int, block: Block) -> tuple[Fix, ...]:
    """The same by effort: the one that is written, else what the target would be if it were held."""
    low, high = _box(block.heart) if block.heart else (0.0, 0.0)
    meant = round(2 * _felt((low + high) / 2)) / 2
    level = block.top_effort if block.top_effort is not None else meant
    own = block.efforts or (Effort(low=level, high=level),)
    return (_instead(f"by effort, at {number(level)}", at, block.but(heart=None, efforts=own)),)


def _unsteered(at: int, block: Block) -> tuple[Fix, ...]:
    """The same without a heart: its gates by the clock, its targets by effort."""
    pairs = block.pairs
    if isinstance(block, Paired) and block.gated and len(pairs) == 1:
        most = Stretch(seconds=block.most_s)
        timed = Pair(
            work=pairs[0].work if pairs[0].work.seconds is not None else most,
            rest=pairs[0].rest if pairs[0].rest.seconds is not None else most,
        )
        plain = block.but(least_s=0, most_s=None, when="", heart=None, rest_heart=None)
        return (_instead("by the clock", at, plain.with_pairs((timed,))),)
    if block.heart:
        return _by_effort(at, block.but(rest_heart=None))
    return (_instead("no target in the rest", at, block.but(rest_heart=None)),)


def _instead(text: str, at: int, block: Block) -> Fix:
    return Fix(text, ReplaceBlock(block=at, text="\n".join(block_lines(block))))
