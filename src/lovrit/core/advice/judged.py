"""What Lovrit makes, it judges: fits, recasts and steps of a series are looked at twice before they are offered."""

from collections import Counter
from collections.abc import Callable
from dataclasses import replace

from lovrit.core.advice.company import Company
from lovrit.core.advice.look import second_look
from lovrit.core.advice.note import Note
from lovrit.core.fit.fit import Fit, Fits
from lovrit.core.moves.library import Library
from lovrit.core.recast.recast import Recast
from lovrit.core.timeline.plan import Plan, plan_text

Judge = Callable[[Plan, Plan], str]


def doubts(
    before: Plan, after: Plan, library: Library, company: Company | None = None
) -> tuple[Note, ...]:
    """What would have to be weighed, or stop it, in what was made, and was not before."""
    had = Counter(note.code for note in _heavy(before, library, company))
    found = []
    for note in _heavy(after, library, company):
        if had[note.code]:
            had[note.code] -= 1
        else:
            found.append(note)
    return tuple(found)


def _heavy(plan: Plan, library: Library, company: Company | None) -> list[Note]:
    return [note for note in second_look(plan, library, company) if note.level != "tell"]


def judge_by(library: Library, company: Company | None = None) -> Judge:
    """Why something that was made is not sound, in words; empty where it is."""

    def why(before: Plan, after: Plan) -> str:
        new = doubts(before, after, library, company)
        return new[0].text.rstrip(".") if new else ""

    return why


def judged_fits(before: Plan, found: Fits, judge: Judge) -> Fits:
    """Fits without those that are not sound; where none is, all of them, each with what would have to be weighed."""
    told = [(one, judge(before, one.plan)) for one in found.fits]
    sound = tuple(one for one, why in told if not why)
    doubtful = tuple(_warned(one, why) for one, why in told)
    return Fits(sound or doubtful, found.least, found.instead)


def _warned(fit: Fit, why: str) -> Fit:
    return replace(fit, cautions=(*fit.cautions, why)) if why else fit


def doubts_of(before: Plan, offers: list[Recast], library: Library, judge: Judge) -> dict[str, str]:
    """Of each recast that is not sound, by what it makes: what would have to be weighed."""
    told = ((one.to, judge(before, plan_text(one.slate, library))) for one in offers)
    return {to: why for to, why in told if why}
