"""Fits and recasts as the objects that the command line prints and the API answers."""

from typing import Any

from lovrit.core.fit.fit import Fit, Fits
from lovrit.core.recast.recast import Figures, Recast


def fits_object(fits: Fits) -> dict[str, Any]:
    """Fits, nearest first; ``least`` says what must give where there are none."""
    least = {"text": fits.least.text, "gives": list(fits.least.gives)} if fits.least else None
    return {"fits": [_fit(one) for one in fits.fits], "least": least}


def _fit(fit: Fit) -> dict[str, Any]:
    timeline = fit.plan.timeline
    figures = {
        "work_s": timeline.work_s,
        "rest_s": timeline.rest_s,
        "work_to_rest": fit.plan.sums.work_to_rest,
        "hard_s": fit.plan.sums.hard_s,
        "effort": fit.plan.sums.top_effort,
        "feel": fit.feel.verdict,
        "cautions": list(fit.cautions),
    }
    return {
        "slate": fit.slate,
        "total_s": timeline.total_s,
        "changes": list(fit.changes),
        "figures": figures,
    }


def recast_object(made: Recast) -> dict[str, Any]:
    """A recast: the slate after, what changes in words, and the block's figures before and after."""
    return {
        "slate": made.slate,
        "changes": [*made.changes, made.why],
        "before": _figures(made.before),
        "after": _figures(made.after),
    }


def _figures(one: Figures) -> dict[str, Any]:
    return {
        "total_s": one.total_s,
        "work_s": one.work_s,
        "rest_s": one.rest_s,
        "density": one.density,
        "reps": one.reps,
        "hard_landings": one.impact,
        "effort": one.effort or None,
    }
