"""The second look as a whole: every rule, the weightiest first."""

from collections.abc import Callable, Iterator

from lovrit.core.advice import (
    balance,
    circumstances,
    course,
    days,
    dose,
    hearts,
    landings,
    load,
    meant,
    order,
    people,
    pregnant,
    reach,
    reps,
    sums,
    telling,
    tested,
    untried,
)
from lovrit.core.advice.company import Company
from lovrit.core.advice.note import Look, Note
from lovrit.core.moves.library import Library
from lovrit.core.timeline.plan import Plan

Rule = Callable[[Look], Iterator[Note]]

RULES: tuple[Rule, ...] = (
    sums.over_slot,
    reach.full_turn,
    reach.slow_do_not_make_it,
    sums.hold_past_turn,
    sums.part_turn,
    sums.more_groups_than_stations,
    sums.last_rest_twice,
    sums.last_rest_never,
    reach.round_never_finished,
    reach.cap_cuts_rounds,
    reach.most_meet_the_cap,
    load.line_is_not_the_work,
    sums.no_break,
    course.no_warm_up,
    dose.all_out_too_long,
    dose.all_out_too_often,
    dose.rest_too_short,
    dose.effort_will_fade,
    dose.short_sets_on_end,
    dose.pace_will_not_hold,
    dose.too_hard_to_repeat,
    reach.no_cap,
    reach.finishers_spread,
    dose.much_hard_work,
    course.no_cool_down,
    course.first_interval_cold,
    dose.heart_steers_badly,
    course.hard_not_last,
    course.skill_after_hard,
    dose.effort_by_round_unused,
    reps.set_not_unbroken,
    load.too_many_reps,
    load.skill_while_tired,
    load.rest_short_for_load,
    load.load_cannot_be,
    load.heavy_reps_many,
    landings.many_landings,
    course.sprint_from_cold,
    course.heart_nobody_holds,
    course.gate_not_reached,
    hearts.out_of_reach,
    hearts.rest_out_of_reach,
    hearts.at_odds,
    hearts.held_too_long,
    hearts.gate_never_up,
    hearts.gate_drives,
    hearts.whose_figures,
    circumstances.heat,
    circumstances.frost,
    circumstances.wet_floor,
    circumstances.crowded_station,
    circumstances.kit_for_all,
    reps.hold_too_long,
    reps.breath_held,
    reps.under_water,
    order.pattern_twice,
    balance.pattern_missing,
    order.grip_after_grip,
    order.shoulders_in_a_row,
    order.impact_in_a_row,
    order.up_and_down,
    balance.uneven_sides,
    balance.no_legs,
    balance.side_not_said,
    balance.unknown_move,
    telling.no_time_to_tell,
    telling.too_much_to_remember,
    telling.no_setup,
    untried.nobody_has_done,
    meant.load_nobody_means,
    meant.easy_at_odds,
    meant.cool_down_hard,
    meant.one_side_only,
    meant.only_pressing,
    meant.evening_of_presses,
    meant.much_lowering,
    meant.odd_one_out,
    meant.box_while_tired,
    meant.climb_on_spent_grip,
    meant.noise_late,
    tested.stretch_before_power,
    tested.many_tests,
    pregnant.no_landings,
    pregnant.no_lying,
    pregnant.talk_test,
    pregnant.no_target,
    pregnant.not_heavy,
    pregnant.no_held_breath,
    people.pace_of_nobody,
    people.all_out_for_new,
    people.beginners_dose,
    people.long_run_for_new,
    people.weeks_on_a_level,
    people.hard_for_older,
    people.hard_for_children,
    people.ask_first,
    people.jumps_for_new,
    people.skill_for_new,
    people.limits,
    people.missing_kit,
    days.clash_of_days,
)
# Of one level, what can hurt somebody comes first, then what spoils the evening; the rest by its lines.
FIRST = (
    "under-water",
    "climb-on-spent-grip",
    "pregnant-breath",
    "pregnant-hard",
    "pregnant-heavy",
    "pregnant-jump",
    "pregnant-lying",
    "load-nobody-means",
    "heat",
    "wet-floor",
    "sprint-from-cold",
    "many-landings",
    "all-out-for-new",
    "jumps-for-new",
    "skill-for-new",
    "hard-for-older",
    "hard-for-children",
    "breath-held",
    "skill-after-hard",
    "no-warm-up",
    "short-warm-up",
    "ask-first",
    "gate-drives-effort",
    "heart-cannot-steer",
    "missing-kit",
    "range-over-slot",
    "pace-will-not-hold",
)
WEIGHT = {"stop": 0, "weigh": 1, "tell": 2}


def second_look(
    plan: Plan,
    library: Library,
    company: Company | None = None,
    aside: frozenset[str] = frozenset(),
) -> tuple[Note, ...]:
    """All that the rules say of a plan, the weightiest first, of those what can hurt, then in the order of the lines.

    ``aside`` are the codes that a coach has put aside; a ``stop`` can't be.
    """
    look = Look(plan, library, company)
    notes = [
        note
        for rule in RULES
        for note in rule(look)
        if note.level == "stop" or note.code not in aside
    ]
    return tuple(
        sorted(
            _once(notes),
            key=lambda note: (WEIGHT[note.level], _rank(note.code), note.line or 0, note.code),
        )
    )


def _once(notes: list[Note]) -> list[Note]:
    """What is said of a block that is repeated, said once."""
    said = {(note.code, note.line, note.text): note for note in reversed(notes)}
    return list(said.values())


def _rank(code: str) -> int:
    return FIRST.index(code) if code in FIRST else len(FIRST)


def blocked(notes: tuple[Note, ...]) -> tuple[Note, ...]:
    """Those that keep a session from the floor."""
    return tuple(note for note in notes if note.level == "stop")
