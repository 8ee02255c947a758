"""The door of reading: a message in, a slate out, what has to be asked, and what was kept beside it."""

from collections.abc import Iterator
from typing import NamedTuple

from lovrit.core.reading.asked import Question, ask, name_of
from lovrit.core.reading.draft import Draft, unnumbered
from lovrit.core.reading.message import Gathered, gather, standing
from lovrit.core.reading.turns import ways_of_turns
from lovrit.core.reading.written import INSET, plainly, sound, written

MARK = "# "  # before the lines of what is asked, in the place where its block will stand


class Asked(NamedTuple):
    """What can't be known from what was written: the first line (from 1), all that it is about, a question, and answers.

    Each answer is the whole block as it would stand on the slate.
    """

    line: int
    text: str
    question: str
    answers: tuple[str, ...]


class Message(NamedTuple):
    """What a message says: a slate with what is asked in its place as comments, the questions, and the notes kept."""

    slate: str
    asked: tuple[Asked, ...] = ()
    kept: tuple[str, ...] = ()


class _Part(NamedTuple):
    """A block as it stands, or what is asked instead."""

    draft: Draft
    text: str = ""
    question: Question | None = None


def read_message(text: str) -> Message:
    """What a message says, read by the roles of its figures. Never raises for what a person wrote."""
    made = gather(text.replace("\r\n", "\n").removeprefix("\ufeff"))
    parts = list(_together(_parts(made)))
    asked = tuple(_asked(one) for one in parts if one.question)
    if not parts and not made.notes and text.strip():
        said = f"“{' '.join(text.split())[:80]}” says no work, no rest and no moves: what is done, and how long?"
        asked = (Asked(1, text.strip(), said, ()),)
    blocks = [one.text if not one.question else _placeholder(one.draft) for one in parts]
    head = "\n".join(_head(made))
    slate = "\n\n".join(filter(None, [head, *blocks]))
    return Message(f"{slate}\n" if slate else "", asked, tuple(_kept(slate)))


def _head(made: Gathered) -> Iterator[str]:
    title, notes = plainly(made.title), plainly("; ".join(dict.fromkeys(made.notes)))
    if title:
        yield f"title: {title}"
    if notes:
        yield f"note: {notes}"
    yield from (f"{name}: {said}" for name, said in made.headers.items())


def _kept(slate: str) -> Iterator[str]:
    """The notes that stand on a slate."""
    for line in slate.split("\n"):
        key, _, said = line.strip().partition(": ")
        if key == "note":
            yield said


def _placeholder(draft: Draft) -> str:
    return "\n".join(
        f"{MARK}{plainly(line.text)}" for line in {one.number: one for one in draft.lines}.values()
    )


def _parts(made: Gathered) -> Iterator[_Part]:
    for draft in made.drafts:
        if draft.inside:
            yield _nested(draft)
        elif draft.roles.keys() <= {"effort", "heart", "around"} and draft.tasks and not draft.left:
            yield from _standing(draft)
        else:
            yield _part(draft)


def _part(draft: Draft) -> _Part:
    whole = unnumbered(draft)
    ways = list(ways_of_turns(whole)) if not draft.left else []
    texts = list(dict.fromkeys(written(way, offer) for way in ways for offer in way.offers()))
    if len(texts) == 1 and sound(texts[0]):
        return _Part(draft, texts[0])
    if len(ways) > 1 and len(texts) > 1:
        said = f"{name_of(draft)}: one of these each turn, or all of them in every turn?"
        return _Part(draft, question=Question(said, tuple(filter(sound, texts))[:3]))
    return _Part(draft, question=ask(whole))


def _standing(draft: Draft) -> Iterator[_Part]:
    """Tasks under no heading: each a stretch of its own where it says how long, else they are asked about together."""
    alone = list(standing(draft))
    if alone and all(one.roles.keys() - {"around"} for one in alone):
        yield from (_part(one) for one in alone)
    else:
        yield _Part(draft, question=ask(draft))


def _nested(draft: Draft) -> _Part:
    """Whole blocks inside rounds."""
    inner = [_part(one) for one in draft.inside]
    times = draft.roles.get("rounds") or draft.roles.get("sets") or ""
    rest = draft.roles.get("rest") or draft.roles.get("between")
    head = f"{times} times" + (f", rest {rest}" if rest else "")
    unsure = next((one for one in inner if one.question), None)
    answers = unsure.question.answers if unsure and unsure.question else ("",)
    texts = tuple(_around(head, inner, answer) for answer in answers)
    if not unsure and sound(texts[0]):
        return _Part(draft, texts[0])
    question = unsure.question if unsure and unsure.question else ask(draft)
    return _Part(draft, question=Question(question.text, tuple(one for one in texts if sound(one))))


def _around(head: str, inner: list[_Part], answer: str) -> str:
    blocks = [one.text or answer for one in inner]
    below = "\n\n".join("\n".join(INSET + line for line in one.split("\n")) for one in blocks)
    return f"{head}\n{below}"


def _together(parts: Iterator[_Part]) -> Iterator[_Part]:
    """Blocks one after the other that all lack a rest are asked about once."""
    waiting: list[_Part] = []
    for part in parts:
        if part.question and part.question.wants == "rest":
            waiting.append(part)
            continue
        yield from _as_one(waiting)
        waiting = []
        yield part
    yield from _as_one(waiting)


def _as_one(parts: list[_Part]) -> Iterator[_Part]:
    if len(parts) < 2:
        yield from parts
        return
    questions = [one.question for one in parts if one.question]
    many = min(len(one.answers) for one in questions)
    answers = tuple("\n\n".join(one.answers[nth] for one in questions) for nth in range(many))
    names = ", ".join(name_of(one.draft) for one in parts)
    whole = Draft(lines=[line for one in parts for line in one.draft.lines])
    yield _Part(
        whole, question=Question(f"{names}: how long is the rest after each set?", answers, "rest")
    )


def _asked(part: _Part) -> Asked:
    assert part.question
    lines = part.draft.lines
    text = "\n".join(dict.fromkeys(line.text for line in lines))
    return Asked(lines[0].number if lines else 1, text, part.question.text, part.question.answers)
