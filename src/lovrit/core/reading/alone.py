"""Tasks under no heading: each a stretch of so many minutes, or a way, of its own."""

from collections.abc import Iterator
from dataclasses import replace

from lovrit.core.reading.draft import Draft
from lovrit.core.reading.giving import clocked
from lovrit.core.reading.tokens import cut
from lovrit.core.reading.vocabulary import labels, plain

# what no stretch at one's own pace is called
NO_LABELS = frozenset({
    "AMRAP", "EMOM", "EVERY", "RFT", "FOR_TIME", "X", "ON", "CAP", "ROUND", "SET", "REP", "SUPERSET", "LADDER", "MAX",
    "FOR", "TEAM", "PYRAMID", "ODD", "ELL",
})  # fmt: skip
NO_NAMES = frozenset({"off", "death", "relay"})


def is_label(name: str) -> bool:
    """Whether a stretch may be called so on the slate: no word of it says another kind of block."""
    words = cut(name)
    if any(one.kind == "AROUND" and one.kept != one.text.lower() for one in words):
        return False  # wu is short for what it is called
    return not any(
        one.kind in NO_LABELS or one.figure or plain(one.text) in NO_NAMES for one in words
    )


def standing(draft: Draft) -> Iterator[Draft]:
    """Tasks without a heading, as blocks of their own: a stretch of so many minutes, a way of so many metres."""
    timed = [line[0] for line in draft.tasks if len(line) == 1 and line[0].seconds]
    others = [line[0] for line in draft.tasks if line[0] not in timed]
    if (
        "around" in draft.roles
        and len(timed) == 1
        and draft.moves > 1
        and not any(one.amount for one in others)
    ):
        length = {"time": clocked(timed[0].seconds)}
        tasks = [
            [replace(one, amount=None) if one is timed[0] else one for one in line]
            for line in draft.tasks
        ]
        yield replace(draft, tasks=tasks, roles={**draft.roles, **length})
        return
    first = draft.tasks[0][0]
    if (
        draft.moves > 1
        and timed == [first]
        and not first.known
        and plain(first.name) not in labels()
    ):
        yield replace(
            draft,
            tasks=draft.tasks[1:],
            labels=draft.labels[1:],
            roles={"time": clocked(first.seconds)},
            notes=[*draft.notes, first.name],
        )
        return
    for line in draft.tasks:
        one = line[0]
        amount = one.amount
        made = replace(draft, tasks=[], labels=[], roles=dict(draft.roles))
        if len(line) == 1 and amount and amount.seconds and amount.form == "one":
            said = draft.roles.get("around")
            label = one.name if is_label(one.name) else one.name.split()[0]
            made.roles = {"around": said} if said else {"label": label}
            made.tasks = [[replace(one, amount=None)]] if said or label != one.name else []
            made.roles["time"] = f"{amount.seconds[0] // 60}:{amount.seconds[0] % 60:02}"
            marks = [mark for mark in one.marks if mark.startswith("at ")]
            made.roles |= {"effort": marks[0][3:]} if marks else {}
            told = [mark.strip(", ") for mark in one.marks if mark not in marks]
            made.notes = [*draft.notes, *(told if not made.tasks else [])]
            made.roles |= {
                name: said for name, said in draft.roles.items() if name in ("effort", "heart")
            }
        elif len(line) == 1 and amount and amount.measure == "far" and amount.form == "one":
            made.roles = {"once_far": amount.own}
            made.roles |= {"around": draft.roles["around"]} if "around" in draft.roles else {}
            made.tasks = [[replace(one, amount=None)]]
        else:
            made.tasks = [line]
        yield made
