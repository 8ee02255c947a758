"""A print sheet: A4, one page, stations and times that can be read on a wall from three metres."""

from html import escape

from lovrit.core.clock import clock, minutes
from lovrit.core.slate.written import move_line
from lovrit.core.timeline.plan import Plan

STYLE = """
@page { size: A4; margin: 12mm }
body { font: 700 15pt/1.25 Recursive, system-ui, sans-serif; color: #000; background: #fff }
body { margin: 0 auto; max-width: 186mm; padding: 6mm }
h1 { font-size: 26pt; margin: 0 0 1mm }
.line { margin: 0 0 5mm; font-weight: 500 }
section { border-top: 1mm solid #000; padding: 2mm 0 3mm; break-inside: avoid }
section { display: grid; grid-template-columns: 32mm 1fr }
.when { font-size: 20pt; font-variant-numeric: tabular-nums }
h2 { font-size: 17pt; margin: 0 }
ol { margin: 1mm 0 0; padding-left: 10mm; font-size: VARpt; line-height: 1.2 }
.plain { list-style: none; padding-left: 0; font-size: 13pt; font-weight: 500 }
"""
FACE = """
@font-face { font-family: Recursive; font-weight: 300 1000; src: url("/static/recursive-latin-mono-normal.woff2") }
"""
MOST_PT, LEAST_PT = 26, 10


def to_sheet(plan: Plan, nonce: str = "") -> str:
    """The sheet as a page of its own; letters shrink until all of it has a chance of fitting on one page."""
    session = plan.session
    lines = sum(len(block.moves) for block in session.blocks if block.works)
    size = max(LEAST_PT, min(MOST_PT, round(500 / max(1, lines + 2 * len(session.blocks)))))
    told = [f"{minutes(plan.timeline.total_s)}"]
    told += (
        [f"{session.slot.start}–{session.slot.end}"] if session.slot and session.slot.start else []
    )
    told += [f"{session.people} people"] if session.people else []
    blocks = "".join(_block(plan, at) for at in range(len(session.blocks)))
    title = escape(session.title or "A session")
    mark = '<link rel="icon" href="/static/mark.svg">' if nonce else ""
    face = (
        FACE if nonce else ""
    )  # served, it has the house's letters; as a file it takes what the machine has
    style = f"<style{f' nonce={nonce!r}' if nonce else ''}>{face}{STYLE.replace('VAR', str(size))}</style>"
    return (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{title}</title>{mark}{style}</head>'
        f'<body><main><h1>{title}</h1><p class="line">{escape(" · ".join(told))}</p>{blocks}</main></body></html>\n'
    )


def _block(plan: Plan, at: int) -> str:
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    kind = ' class="plain"' if not block.works else ""
    moves = "".join(f"<li>{escape(move_line(line))}</li>" for line in block.moves)
    listed = f"<ol{kind}>{moves}</ol>" if moves else ""
    length = (
        "" if laid.label.endswith(clock(laid.seconds)) else f" <small>{clock(laid.seconds)}</small>"
    )
    head = f"{escape(laid.label)}{length}"
    return f'<section><div class="when">{clock(laid.start_s)}</div><div><h2>{head}</h2>{listed}</div></section>'
