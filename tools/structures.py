"""docs/structures.md and its pictures: every shape of the rack with its slate and figures, from the running code."""

import re
import sys
from pathlib import Path

from lovrit.core.clock import clock, minutes, ratio
from lovrit.core.moves.library import shipped
from lovrit.core.session.rack import Shape, rack
from lovrit.core.timeline.explain import block_sum
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.web.desk.rails import rails_view
from lovrit.web.desk.view import People, desk_view
from lovrit.web.pages import environment
from lovrit.web.screens import SCREENS

DOCS = Path("docs")
OUT = DOCS / "structures"
TOKENS = Path("src/lovrit/web/static/styles/_tokens.scss").read_text("utf-8")
GROUPS = tuple(re.findall(r"--group-\d: (#[0-9a-f]{6});", TOKENS))  # as the pages have them
STYLE = """
text { font: 12px monospace; fill: #17252b } .tick { fill: #55636a } .grid-line, .rail { stroke: #c9c1ae }
.work, .ink, .hatch-line { fill: #17252b } .steady, .lead-in { fill: url(#hatch) } .leftover { fill: #c9c1ae }
.second, .ragged { fill: none; stroke: #17252b; stroke-dasharray: 3 2 } .round-mark { stroke: #f5f1e8; stroke-width: 2 }
.thins { fill: url(#fade) } .handle { fill: none }
.crossing { fill: none; stroke-width: 2; vector-effect: non-scaling-stroke }
.letter { fill: #f5f1e8; font-weight: 800 }
"""
DEFS = (
    '<defs><pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">'
    '<rect width="1.6" height="6" class="hatch-line"/></pattern><linearGradient id="fade"><stop offset="0" '
    'stop-color="#17252b"/><stop offset="1" stop-color="#17252b" stop-opacity="0.1"/></linearGradient></defs>'
)


def picture(plan: Plan) -> str:
    """The rails of the session's first block with work, as they stand on the Desk."""
    at = next((nth for nth, block in enumerate(plan.timeline.blocks) if block.work_s), 0)
    groups = max(1, min(4, len(plan.session.blocks[at].moves)))
    view = desk_view(plan, shipped(), People(groups * 3, (3,) * groups), (at, 0))
    assert rails_view(plan, groups, at, 0)
    session, written = {"id": 0}, {"version": 1}
    html = (
        environment("docs", SCREENS)
        .get_template("desk/rails.html")
        .render(desk=view, oob=False, session=session, written=written, rack=(), ahead=None)
    )
    field = re.search(
        r'<svg class="field" width="100%" height="([\d.]+)".*?>(.*)</svg>\s*</div>', html, re.DOTALL
    )
    assert field
    colours = "".join(
        f"rect.group-{n} {{ fill: {colour} }} .crossing.group-{n} {{ stroke: {colour} }}\n"
        for n, colour in enumerate(GROUPS)
    )
    size = f'width="760" height="{field[1]}"'
    body = re.sub(r"<title>.*?</title>", "", field[2])
    return f'<svg xmlns="http://www.w3.org/2000/svg" {size}><style>{STYLE}{colours}</style>{DEFS}{body}</svg>\n'


def chapter(shape: Shape) -> list[str]:
    """A shape's part of the page."""
    plan = plan_text(shape.slate, shipped())
    low, high = plan.timeline.range_s
    spread = "" if low == high else f" ({minutes(low)} to {minutes(high)})"
    work, rest = plan.sums.ratio
    figures = [
        f"{minutes(plan.timeline.total_s)}{spread} in all",
        f"work {clock(plan.timeline.work_s)}",
    ]
    figures += [f"rest {clock(plan.timeline.rest_s)}"] if plan.timeline.rest_s else []
    figures += [f"work to rest {ratio(work, rest)}"] if work and rest else []
    lines = [
        f"## {shape.name[0].upper()}{shape.name[1:]}",
        "",
        shape.purpose,
        "",
        "```slate",
        shape.slate.strip(),
        "```",
        "",
    ]
    lines += [f"![{shape.name}](structures/{shape.key}.svg)", "", " · ".join(figures) + ".", ""]
    for at in range(len(plan.session.blocks)):
        told = block_sum(plan, at)
        lines.append(f"- {told.name}: " + "; ".join(told.lines))
    return [*lines, ""]


def main() -> None:
    """Write the page and its pictures."""
    OUT.mkdir(parents=True, exist_ok=True)
    text = [
        "# Structures",
        "",
        "Every shape of the rack, with its slate, its rails and its sums; made by `make structures`.",
        "",
    ]
    for shape in rack():
        text += chapter(shape)
        (OUT / f"{shape.key}.svg").write_text(picture(plan_text(shape.slate, shipped())), "utf-8")
    (DOCS / "structures.md").write_text("\n".join(text).rstrip() + "\n", "utf-8")
    sys.stdout.write(f"{len(rack())} structures\n")


if __name__ == "__main__":
    main()
