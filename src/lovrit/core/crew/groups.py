"""Groups: letters, and people dealt into them."""

from collections.abc import Sequence

from lovrit.core.timeline.plan import Plan

LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"
MOST_GROUPS = len(LETTERS)


def letter(group: int) -> str:
    """The letter of a group, from 0.

    >>> letter(0), letter(5)
    ('A', 'F')
    """
    return LETTERS[group]


def deal(people: Sequence[int], groups: int) -> dict[int, int]:
    """Deal people into groups that are equal within one, neighbours staying together.

    >>> deal([1, 2, 3, 4, 5], 2)
    {1: 0, 2: 0, 3: 0, 4: 1, 5: 1}
    """
    groups = max(1, min(groups, MOST_GROUPS, len(people) or 1))
    size, more = divmod(len(people), groups)
    dealt: dict[int, int] = {}
    start = 0
    for group in range(groups):
        end = start + size + (group < more)
        dealt |= dict.fromkeys(people[start:end], group)
        start = end
    return dealt


def evened(groups: dict[int, int]) -> dict[int, int]:
    """Groups equal within one, with as few moved as can be: the last of a group that is too large go to a small one.

    >>> evened({1: 0, 2: 0, 3: 0, 4: 1})
    {1: 0, 2: 0, 3: 1, 4: 1}
    """
    letters = sorted(set(groups.values()))
    inside = {at: [who for who, group in groups.items() if group == at] for at in letters}
    low, more = divmod(len(groups), max(1, len(letters)))
    # who is large keeps one more, so that nobody has to move for it
    rows = sorted(letters, key=lambda at: (-len(inside[at]), at))
    wanted = {at: low + (nth < more) for nth, at in enumerate(rows)}
    spare = [who for at in letters for who in inside[at][wanted[at] :]]
    made = dict(groups)
    for at in letters:
        for _ in range(wanted[at] - len(inside[at])):
            made[spare.pop(0)] = at
    return made


def most_stations(plan: Plan) -> int:
    """The most stations of any block that people move through."""
    moving = (len(block.moves) for block in plan.session.blocks if block.rotates)
    return max(moving, default=0)


def usual_groups(people: int, stations: int) -> int:
    """How many groups a coach would begin with: one a station, but not fewer than two people in each."""
    return max(1, min(stations or 1, people // 2 or 1, MOST_GROUPS))


def sizes(groups: Sequence[int]) -> str:
    """What groups of these sizes are called.

    >>> sizes([3, 3, 3]), sizes([3, 3, 2]), sizes([4])
    ('3 threes', '2 threes and a two', 'one group of 4')
    """
    names = {1: "one", 2: "two", 3: "three", 4: "four", 5: "five", 6: "six"}
    plural = {1: "ones", 2: "twos", 3: "threes", 4: "fours", 5: "fives", 6: "sixes"}
    if len(groups) == 1:
        return f"one group of {groups[0]}"
    parts = []
    for size in sorted(set(groups), reverse=True):
        times = groups.count(size)
        many = plural.get(size, f"groups of {size}")
        parts.append(
            f"a {names.get(size, f'group of {size}')}" if times == 1 else f"{times} {many}"
        )
    return " and ".join(parts)
