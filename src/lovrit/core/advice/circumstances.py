"""Rules about the hall and the day: heat, a wet floor, more people than stations and kit take."""

from collections.abc import Iterator

from lovrit.core.advice.note import Fix, Look, Note, WayTo, effort
from lovrit.core.advice.order import put
from lovrit.core.blocks.block import Block
from lovrit.core.moves.move import Move

HOT, HOT_EFFORT = 30, 7.0
HOTTER, STEADY_EFFORT, LONG_S = 33, 5.0, 20 * 60  # from here on long steady work overheats too
FROST, HARD_FROST = -5, -10
SLIPPERY = frozenset({"wet", "icy"})
QUICK = 6.0  # an effort; what turns is done slowly below
RUNS_S = 0.35  # a metre in less is running
CROWDED = 8  # more at one station watch rather than work
MANY = 6
MACHINES = frozenset(
    {"rower", "bike", "ski", "treadmill", "cross trainer", "stair machine", "paddle machine"}
)


def heat(look: Look) -> Iterator[Note]:
    """Hard work on a hot day, and long steady work on a hotter one."""
    warm = look.session.celsius
    if warm is None or warm < HOT:
        return
    least = HOT_EFFORT if warm < HOTTER else STEADY_EFFORT
    hard = [
        at
        for at, block, laid in look.blocks()
        if (effort(block) >= HOT_EFFORT and laid.seconds)
        or (effort(block) >= least and laid.seconds >= LONG_S)
    ]
    if not hard:
        return
    yield look.note(
        code="heat",
        level="weigh",
        text=f"{warm} C and effort {effort(look.session.blocks[hard[0]]):g}: hearts run high, and people overheat.",
        reason="Less of it, shade, water, and somebody who watches; headache, confusion, no more sweat: stop and cool.",
        basis="exertional heat illness (Armstrong and others 2007); local rules come first",
        at=hard[0],
        fixes=(look.ease_all(6 if least == HOT_EFFORT else 4),),
    )


def frost(look: Look) -> Iterator[Note]:
    """Breathing hard in frost, or long in a hard one."""
    cold = look.session.celsius
    if cold is None or cold > FROST:
        return
    least = HOT_EFFORT if cold > HARD_FROST else STEADY_EFFORT
    hard = [at for at, block, laid in look.blocks() if laid.seconds and effort(block) >= least]
    if hard:
        yield look.note(
            code="frost",
            level="weigh",
            text=f"{cold} C and effort {effort(look.session.blocks[hard[0]]):g}: cold air, cold muscles.",
            reason="Longer to warm up, something over the mouth, a spray for who has asthma, hands and ears covered.",
            basis="exercise in the cold (Castellani and Young 2016); local rules come first",
            at=hard[0],
            fixes=(look.ease_all(least - 1),),
        )


def wet_floor(look: Look) -> Iterator[Note]:
    """Jumps and quick feet where it is slippery."""
    if look.session.floor not in SLIPPERY:
        return
    for at, nth, line, move in look.lines():
        if not move or not (_slips(move) or _turns(move, look.session.blocks[at])):
            continue
        steady = [one for one in look.library.serving("warm-up") if one.pattern == "footwork"]
        low = look.library.find(move.low_impact)
        other = low if low and not (_slips(low) or low.turns) else steady[0]
        edit = put(look, at, nth, line, other)
        yield look.note(
            code="wet-floor",
            level="weigh",
            text=f"{move.name} on a {look.session.floor} floor: feet go away under people.",
            reason="Dry it, go elsewhere, or keep both feet slow.",
            at=at,
            nth=nth,
            fixes=(Fix(f"{other.name} instead", edit),),
        )


def _slips(move: Move) -> bool:
    """Whether feet go away however slowly it is meant: hard landings, and running."""
    runs = move.pattern == "gait" and move.metre is not None and move.metre <= RUNS_S
    return move.impact == "high" or runs


def _turns(move: Move, block: Block) -> bool:
    """Whether it turns, in a block that asks for it quickly."""
    return move.turns and (effort(block) or QUICK) >= QUICK


def crowded_station(look: Look) -> Iterator[Note]:
    """More people at a station than can work there."""
    people = look.session.people or look.company.people
    for at, block, _ in look.blocks():
        stations = len(block.moves)
        if not block.moves_people or people <= CROWDED * stations:
            continue
        yield look.note(
            code="crowded-station",
            level="weigh",
            text=f"{people} people at {stations} stations: {-(-people // stations)} at each.",
            reason="Past eight, half of them watch. More stations, or two circuits side by side.",
            at=at,
            fixes=(WayTo("crew", "say who comes"),),
        )


def kit_for_all(look: Look) -> Iterator[Note]:
    """A machine that everybody wants at the same time."""
    people = look.session.people or look.company.people
    for at, nth, line, move in look.lines():
        block = look.session.blocks[at]
        wanted = sorted(set(move.needs_kit) & MACHINES) if move else []
        if not wanted or people <= MANY or block.rotates or block.in_turns:
            continue
        other = look.library.find(move.no_kit) if move else None
        edit = put(look, at, nth, line, other) if other else None
        yield look.note(
            code="kit-for-all",
            level="weigh",
            text=f"{people} people want a {wanted[0]} at the same time.",
            reason="In rounds of stations each has its turn; or everybody does something without.",
            at=at,
            nth=nth,
            fixes=(Fix(f"{other.name} instead", edit),) if other and edit else (),
        )
