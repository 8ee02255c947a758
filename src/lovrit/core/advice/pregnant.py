"""Rules where a session says that it is for somebody pregnant: the talk test, no landings, no lying late on, no strain.

What is careful here defers to her midwife and her doctor (ACOG 2020, committee opinion 804; Bø and others 2016).
"""

import re
from collections.abc import Iterator
from math import ceil

from lovrit.core.advice.load import heavy_lines, lighter
from lovrit.core.advice.note import Fix, Look, Note, WayTo, effort
from lovrit.core.blocks.build import Build
from lovrit.core.blocks.strength import Strength
from lovrit.core.moves.move import Move
from lovrit.core.session.edits import ReplaceBlock, ReplaceLine
from lovrit.core.slate.line import Line
from lovrit.core.slate.written import move_line

TALK = 6.0  # up to here whole sentences can be said
HEAVY = 80.0  # per cent of one's best from which people hold their breath
LIGHT = 60.0
BASIS = "exercise in pregnancy (ACOG 2020); her midwife and doctor decide"
# on the back or the front: what lies, curls up or bridges
LIES = re.compile(
    r"\b(lying|prone|supine|dead bug|hollow|sit up|crunch|v up|bridge|floor press|superman|rollover|leg raise|get up|"
    r"hip lift|hip thrust|swimmer|russian twist|reverse fly on the floor)\b"
)
STANDING = ("standing twist", "wall push-up", "band pull", "march")


def is_for_pregnant(look: Look) -> bool:
    """Whether a session says that it is for somebody pregnant."""
    return "pregnant" in look.session.whom


def no_landings(look: Look) -> Iterator[Note]:
    """Jumps and hard landings."""
    for at, nth, line, move in _lines(look):
        if move.impact != "high" or _has_other(line):
            continue
        yield look.note(
            code="pregnant-jump",
            level="weigh",
            text=f"{move.name}: a hard landing, and it is for somebody pregnant.",
            reason="Step it. Stop with bleeding, leaking, dizziness, pain or contractions, and call.",
            basis=BASIS,
            at=at,
            nth=nth,
            fixes=look.instead(at, nth, move.low_impact or _standing(look)),
        )


def no_lying(look: Look) -> Iterator[Note]:
    """Lying on the back or the front: late on it is not for long, if at all."""
    for at, nth, line, move in _lines(look):
        if not LIES.search(line.name.replace("-", " ").casefold()) or _has_other(line):
            continue
        yield look.note(
            code="pregnant-lying",
            level="weigh",
            text=f"{move.name}: on the back or the front, and it is for somebody pregnant.",
            reason="From the middle of it on not flat for long; dizzy on the back: onto the left side. Or stand.",
            basis=BASIS,
            at=at,
            nth=nth,
            fixes=look.instead(at, nth, _standing(look)),
        )


def talk_test(look: Look) -> Iterator[Note]:
    """More than can be talked at."""
    for at, block, laid in look.blocks():
        asked = effort(block)
        if not is_for_pregnant(look) or asked <= TALK or not laid.seconds:
            continue
        yield look.note(
            code="pregnant-hard",
            level="weigh",
            text=f"Effort {asked:g}, and it is for somebody pregnant: talking has to be possible.",
            reason="Up to 6, whole sentences; who has always trained hard asks her doctor. Cool, never breathless.",
            basis=BASIS,
            at=at,
            fixes=look.ease(at, TALK - 0.5 if not block.efforts else TALK),
        )


def no_target(look: Look) -> Iterator[Note]:
    """A heart as a target: it rises by itself, so effort leads."""
    for at, block, _ in look.blocks():
        if not is_for_pregnant(look) or not block.heart or block.efforts or effort(block) > TALK:
            continue
        yield look.note(
            code="pregnant-heart",
            level="weigh",
            text="A target of the heart, and it is for somebody pregnant: hers is higher by itself.",
            reason="It misleads either way; the talk test leads.",
            basis=BASIS,
            at=at,
            fixes=look.ease(at, max(1.0, ceil(effort(block)) - 1.0)),
        )


def not_heavy(look: Look) -> Iterator[Note]:
    """Building to a heavy single, or sets so heavy that the breath is held."""
    for at, block, _ in look.working():
        if not is_for_pregnant(look):
            return
        if isinstance(block, Build):
            lines = "\n".join(f"  {line.tasks[0].name}" for line in block.moves) or "  squat"
            text = f"3 sets of 8 reps, rest 1:30, at 5\n{lines}"
            fixes: tuple[Fix | WayTo, ...] = (
                Fix("sets of eight, light", ReplaceBlock(block=at, text=text)),
            )
            yield _heavy(look, at, None, "Building to heavy", fixes)
        elif isinstance(block, Strength):
            for nth, line in heavy_lines(block, HEAVY):
                load = line.tasks[0].load
                text = f"Sets at {max(load.values):g} %" if load else "Heavy sets"
                yield _heavy(look, at, nth, text, (lighter(look, at, nth, line),))


def _heavy(look: Look, at: int, nth: int | None, what: str, fixes: tuple[Fix | WayTo, ...]) -> Note:
    return look.note(
        code="pregnant-heavy",
        level="weigh",
        text=f"{what}, and it is for somebody pregnant: no strain, no held breath.",
        reason="A load that leaves several reps, breathing out with the effort; joints are looser than usual.",
        basis=BASIS,
        at=at,
        nth=nth,
        fixes=fixes,
    )


def no_held_breath(look: Look) -> Iterator[Note]:
    """Breath held on purpose."""
    for at, nth, line, move in _lines(look):
        if not any(task.breath_held for task in line.tasks):
            continue
        breathing = Line(tasks=tuple(task.but(breath_held=False) for task in line.tasks))
        edit = ReplaceLine(line=look.line(at, nth), text=f"  {move_line(breathing)}")
        yield look.note(
            code="pregnant-breath",
            level="weigh",
            text=f"{move.name}: breath held, and it is for somebody pregnant.",
            reason="Two breathe with it. Out with the effort, never held.",
            basis=BASIS,
            at=at,
            nth=nth,
            fixes=(Fix("let them breathe", edit),),
        )


def _lines(look: Look) -> Iterator[tuple[int, int, Line, Move]]:
    if is_for_pregnant(look):
        yield from ((at, nth, line, move) for at, nth, line, move in look.lines() if move)


def _has_other(line: Line) -> bool:
    return any(task.alternatives or task.easier for task in line.tasks)


def _standing(look: Look) -> str:
    """A move on one's feet, not of this session yet where there is one."""
    here = {line.name for _, _, line, _ in look.lines()}
    known = [name for name in STANDING if look.library.find(name)]
    return next((name for name in known if name not in here), known[0] if known else "squat")
