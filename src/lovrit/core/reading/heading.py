"""A heading by the roles of its figures: its own form, or what has to be asked before it has one."""

from dataclasses import replace
from typing import NamedTuple

from lovrit.core.reading.alone import standing
from lovrit.core.reading.apart import read_line
from lovrit.core.reading.draft import Draft, Offer
from lovrit.core.reading.line import Left
from lovrit.core.reading.written import written

ALONE = frozenset({"effort", "heart"})


class Ways(NamedTuple):
    """What a heading could be: its own forms with what stands below; figures that are left, roles that lack."""

    forms: tuple[str, ...] = ()
    left: tuple[Left, ...] = ()
    lacking: tuple[str, ...] = ()
    said: bool = False  # whether any role was found
    nest: tuple[
        str, ...
    ] = ()  # the lines of whole blocks that are done several times, where it says these


def heading_ways(text: str) -> Ways:
    """The slate's own forms of a heading; its moves may still come below it."""
    lines = read_line(1, text)
    if len(lines) != 1:
        return Ways()
    draft = Draft()
    draft.add(lines[0])
    if draft.left:
        return Ways(left=tuple(draft.left), said=True)
    if draft.roles.keys() <= ALONE and draft.tasks:
        alone = list(standing(draft))
        if len(alone) != 1 or not alone[0].roles:
            return Ways()
        draft = alone[0]
    if _is_unsure(text, draft):
        return Ways(said=True)
    tried = [_bare(draft, one) for one in draft.tried(lines=False) if _may_head(draft, one)]
    load = "".join(f"\n{one}" for one in draft.marks) if not draft.tasks else ""
    whole = replace(draft, marks=()) if load else draft
    forms = dict.fromkeys(
        written(whole, one) + load for one in tried if not one.missing and not one.over
    )
    near = [one for one in tried if not one.over]
    least = min((len(one.missing) for one in near), default=0)
    lacking = {name for one in near if len(one.missing) == least for name in one.missing}
    nests = [written(whole, one) for one in draft.tried(lines=False) if _is_nest(one)]
    nest = tuple(one.strip() for one in nests[0].split("\n")[:2]) if nests and not forms else ()
    return Ways(tuple(forms), lacking=tuple(sorted(lacking)), said=bool(draft.roles), nest=nest)


def _is_unsure(text: str, draft: Draft) -> bool:
    """Whether a heading of sets says neither what of nor that the figures are reps: 3 x 10 may be seconds."""
    roles = draft.roles
    crossed = "sets" in roles and "rep" not in text.lower() and "set" not in text.lower()
    return crossed and not draft.tasks and not draft.marks


def _may_head(draft: Draft, offer: Offer) -> bool:
    """Whether a way may stand over moves that are not written yet."""
    rest = draft.roles.keys() <= {"rest", *ALONE} and offer.saying.fields == {"rest"}
    few = offer.saying.least <= max(1, draft.moves)
    return rest or (few and offer.saying.most != 0 and not offer.saying.times)


def _is_nest(offer: Offer) -> bool:
    return bool(offer.saying.times) and not offer.missing and not offer.over


def _bare(draft: Draft, offer: Offer) -> Offer:
    """A rest of sets that nobody wrote is no reason not to read a heading: a coach who types may write it yet."""
    if "sets" not in draft.roles and "far" not in draft.roles:
        return offer
    return offer._replace(missing=tuple(one for one in offer.missing if one != offer.saying.wants))
