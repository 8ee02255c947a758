"""What hearts will do in a block, in a sentence for the Desk: who stays under, from when on, when the peak comes."""

from statistics import median

from lovrit.core.crew.person import USUAL_HIGHEST, USUAL_REST, Person
from lovrit.core.heart.group import CompanyAhead, TurnOfAll, foresee_company
from lovrit.core.timeline.plan import Plan

MOST_INTERVALS = 400  # of longer sessions nothing is said, so that typing stays quick
NTH = {2: "second", 3: "third", 4: "fourth", 5: "fifth", 6: "sixth"}
MOST_OF = 0.8  # of those who steer: most of them
USUAL = Person(id=0, name="", initials="")


def foretold(plan: Plan, block: int) -> bool:
    """Whether there is something to foretell of a block: works with an effort or a target, and not too many."""
    chosen = plan.session.blocks[block]
    asks = chosen.heart is not None or chosen.top_effort is not None
    long = len(plan.timeline.intervals) > MOST_INTERVALS
    lane = chosen.interval_block and not chosen.lifts and not chosen.in_turns
    return asks and not long and lane and plan.timeline.blocks[block].seconds > 0


def hearts_said(ahead: CompanyAhead, people: list[Person]) -> str:
    """A block's forecast in words; of a usual heart where nobody is known."""
    turns = [one for one in ahead.turns if one.steer]
    if len(turns) < 2 or ahead.gated:
        return ""
    most = next((nth for nth, one in enumerate(turns, 1) if one.reached >= MOST_OF * one.steer), 0)
    if len(people) > 1:
        return _of_many(f"{ahead.steer} hearts", turns, most) + _by_effort(ahead)
    who = people[0] if people else USUAL
    name = f"{who.name}’s heart" if people else f"A usual heart ({USUAL_REST} to {USUAL_HIGHEST})"
    return _of_one(name, who, turns, most)


def heart_said(plan: Plan, block: int) -> str:
    """What a usual heart will do in a block; empty where there is nothing to foretell."""
    ahead = foresee_company(plan, [USUAL], block) if foretold(plan, block) else None
    return hearts_said(ahead, []) if ahead else ""


def _peaks(turns: list[TurnOfAll]) -> str:
    after = median(one.peak_after_end_s for one in turns)
    return f"the peak comes some {round(after)} s into the rest" if after >= 2 else ""


def _of_one(name: str, who: Person, turns: list[TurnOfAll], from_on: int) -> str:
    first, last = (
        round(who.rest + one.peak * (who.highest - who.rest)) for one in (turns[0], turns[-1])
    )
    if not from_on:
        return f"{name} reaches its box in no turn, {last} at the most: go by effort here."
    peaks = _peaks(turns)
    tops = f"{first} in the first turn, {last} in the last" + (f"; {peaks}" if peaks else "")
    over = _over_from(turns, 1)
    if from_on == 1 and over == 1:
        return f"{name} goes over its box from the first turn on: {tops}. Lower the effort, or go by effort here."
    then = f" It goes over it from the {NTH.get(over, 'later ones')} on." if over else ""
    if from_on == 1:
        return f"{name} is in its box from the first turn: {tops}.{then}"
    where = NTH.get(from_on, "later ones")
    if over == from_on:
        return f"{name}: {tops}. {_under(from_on)}; from the {where} on it goes over its box."
    return f"{name}: {tops}. {_under(from_on)}; from the {where} on it is in its box.{then}"


def _over_from(turns: list[TurnOfAll], least: float) -> int:
    """From which turn on, and to the last, so many are over their box; 0 where they are not."""
    found = 0
    for nth in range(len(turns), 0, -1):
        if turns[nth - 1].over < least:
            break
        found = nth
    return found


def _under(from_on: int) -> str:
    if from_on == 2:
        return "The first effort stays under, which is normal: a heart lags"
    return "The first efforts stay under, which is normal: a heart lags"


def _of_many(who: str, turns: list[TurnOfAll], from_on: int) -> str:
    first, last = turns[0], turns[-1]
    peaks = _peaks(turns)
    when = f" {peaks[0].upper()}{peaks[1:]}." if peaks else ""
    if not from_on:
        most = max(one.reached for one in turns)
        said = f"{most} of {last.steer} at the most" if most else "none"
        return f"{who}: {said} get to their box in any turn, so go by effort here.{when}"
    if last.over:
        when = f" {last.over} go over it by the last.{when}"
    if from_on == 1:
        return f"{who}: {first.reached} of {first.steer} get to their box from the first turn on.{when}"
    nth = NTH.get(from_on, "later ones")
    return (
        f"{who}: {first.reached} of {first.steer} get to their box in the first turn, "
        f"{turns[from_on - 1].reached} from the {nth} on. {_under(from_on)}.{when}"
    )


def _by_effort(ahead: CompanyAhead) -> str:
    count = ahead.by_effort
    if not count:
        return ""
    return f" {count} {'goes' if count == 1 else 'go'} by effort."
