"""What a coach's note says of kit that lacked: "two bells too few", "a box is broken". What is not plain is no lack."""

import re
from collections.abc import Iterable, Iterator
from typing import NamedTuple

NUMBERS = {
    "no": 0, "a": 1, "an": 1, "one": 1, "another": 1, "the": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6,
    "seven": 7, "eight": 8, "nine": 9, "ten": 10,
}  # fmt: skip
IS = "(?:is|are|were|was|has|have)"
LACKING = f"too few|missing|short|broken|gone|lost|not there|{IS} (?:missing|broken|gone|lost)"
CLAUSE = re.compile(r"[.;,!?\n]+")
WE, MANY, HEAVY, KIT = (
    "(?:we (?:were|are) )?",
    "(?P<many>{number})",
    r"(?:(?P<kg>\d+)(?: ?kgs?)? )?",
    "(?P<kit>{kit})",
)
WHERE = "(?: (?:at|in|for|on|by) .{{1,80}})?"
# the first form that fits the whole of a clause says it; {kit} are the hall's own names
FORMS = (
    f"{WE}{MANY}(?: ?[x×])? {HEAVY}{KIT}(?: {IS})? (?:{{lacking}}){WHERE}",
    rf"{WE}{MANY} (?P<kg>\d+)s (?:{{lacking}})",
    f"{WE}(?:missing|short of|lacked|need) {MANY}(?: more)? {HEAVY}{KIT}{WHERE}",
    f"{KIT}: {MANY} (?:{{lacking}})",
    f"(?:not enough|too few) {KIT}{WHERE}",
)


class Lacked(NamedTuple):
    """So many pieces of a kind that lacked, 0 where nobody said how many; of how many kilograms, where that was."""

    many: int
    kit: str
    kg: float | None = None


def lacked(note: str, kits: Iterable[str]) -> list[Lacked]:
    """What a note says that lacked, of the kinds of kit that a hall has.

    >>> lacked("Good evening, two bells too few", ["bell", "box"])
    [Lacked(many=2, kit='bell', kg=None)]
    """
    named = {spoken: kit for kit in kits for spoken in _spoken(kit)}
    if not named:
        return []
    words = "|".join(sorted(map(re.escape, named), key=len, reverse=True))
    number = "|".join(sorted((*NUMBERS, r"\d{1,2}"), key=len, reverse=True))
    forms = [
        re.compile(one.format(kit=words, number=number, lacking=LACKING)) for one in FORMS
    ]  # fmt: skip
    clauses = (" ".join(part.casefold().split()) for part in CLAUSE.split(note))
    return [found for clause in clauses for found in _of(clause, forms, named)][:4]


def _of(clause: str, forms: Iterable[re.Pattern[str]], named: dict[str, str]) -> Iterator[Lacked]:
    for form in forms:
        told = form.fullmatch(clause)
        if not told:
            continue
        parts = told.groupdict()
        many = parts.get("many", "") or ""
        count = int(many) if many.isdecimal() else NUMBERS.get(many, 0)
        if many and not count:
            return  # “no box was missing”
        kit = named.get(parts.get("kit") or "bell", "")
        if not kit:
            return  # “two 12s”, where there are no bells
        yield Lacked(count, kit, float(parts["kg"]) if parts.get("kg") else None)
        return


def _spoken(kit: str) -> set[str]:
    """A kind of kit as it is spoken of: one of it, several; rings, of which one is a ring."""
    one = kit.casefold()
    bare = one.removesuffix("s") if not one.endswith("ss") else one
    more = f"{bare}es" if bare.endswith(("x", "ch", "sh", "s")) else f"{bare}s"
    return {one, bare, more}
