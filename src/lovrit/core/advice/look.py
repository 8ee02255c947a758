"""The second look as a whole: every rule, the weightiest first."""

from collections.abc import Callable, Iterator

from lovrit.core.advice import balance, dose, sums
from lovrit.core.advice.note import Look, Note
from lovrit.core.moves.library import Library
from lovrit.core.timeline.plan import Plan

Rule = Callable[[Look], Iterator[Note]]

RULES: tuple[Rule, ...] = (
    sums.over_slot,
    sums.full_turn,
    sums.hold_past_turn,
    sums.part_turn,
    sums.more_groups_than_stations,
    dose.no_warm_up,
    dose.all_out_too_long,
    dose.rest_too_short,
    dose.no_cap,
    dose.much_hard_work,
    dose.no_cool_down,
    dose.first_interval_cold,
    dose.effort_by_round_unused,
    balance.pattern_twice,
    balance.grip_after_grip,
    balance.impact_in_a_row,
    balance.uneven_sides,
    balance.unknown_move,
)
WEIGHT = {"stop": 0, "weigh": 1, "tell": 2}


def second_look(plan: Plan, library: Library, groups: int | None = None) -> tuple[Note, ...]:
    """All that the rules say of a plan, the weightiest first, then in the order of the lines."""
    look = Look(plan, library, groups)
    notes = [note for rule in RULES for note in rule(look)]
    return tuple(sorted(notes, key=lambda note: (WEIGHT[note.level], note.line or 0, note.code)))


def blocked(notes: tuple[Note, ...]) -> tuple[Note, ...]:
    """Those that keep a session from the floor."""
    return tuple(note for note in notes if note.level == "stop")
