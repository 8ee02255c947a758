"""The door of reading: a message in, a slate out, what has to be asked, and what was kept beside it."""

from collections.abc import Iterable, Iterator, Mapping
from itertools import accumulate
from typing import NamedTuple

from lovrit.core.messages.asked import MOST_ANSWERS, Question, ask, name_of
from lovrit.core.messages.several import race, two_ways
from lovrit.core.messages.sound import sound
from lovrit.core.messages.turns import ways_of_turns
from lovrit.core.reading.alone import standing
from lovrit.core.reading.apart import is_manner
from lovrit.core.reading.draft import Draft
from lovrit.core.reading.meant import meant
from lovrit.core.reading.message import Gathered, gather
from lovrit.core.reading.written import INSET, plainly, written
from lovrit.core.session.reader import read

MOST_LINES, MOST_LETTERS = 200, 300  # of a message, of a line; more is no session
MOST_SAID = 5_000  # letters of a message that are looked at
MOST_IN_SENTENCES = 4000  # letters of a message that is read twice
FIRST_LINES = 8  # of a message that are enough to see that it is no slate
MOST_ASKED = 12  # questions whose answers are worked out
NOTHING = "says no work, no rest and no moves: what is done, and how long?"
TOO_LONG = f"has more than {MOST_LETTERS} letters: write it as several, what is only told on lines of its own."
UNREAD = "nothing was read: that is longer than a session. Paste it in parts."
ALONE = frozenset(
    {"effort", "heart", "around"}
)  # what may be said of tasks that stand under no heading
MARK = "# "  # before the lines of what is asked, in the place where its block will stand


class Asked(NamedTuple):
    """What can't be known from what was written: the first line (from 1), what it is about, a question and answers.

    Each answer is the whole block as it would stand on the slate.
    """

    line: int
    text: str
    question: str
    answers: tuple[str, ...]


class Row(NamedTuple):
    """A part of a message beside what it became: its lines, those of the slate, and the question about it."""

    said: str
    slate: str
    asked: Asked | None = None


class Message(NamedTuple):
    """What a message says: a slate with what is asked in its place as comments, the questions, and the notes kept.

    ``rows`` are its parts beside what each became; ``head`` are the headers of the slate.
    """

    slate: str
    asked: tuple[Asked, ...] = ()
    kept: tuple[str, ...] = ()
    head: str = ""
    rows: tuple[Row, ...] = ()

    def answered(self, chosen: Mapping[int, int]) -> str:
        """The slate with some questions answered: by the number of a row, the number of its answer (both from 0)."""
        return _joined(self.head, self.parts(chosen)) if self.rows else self.slate

    def parts(self, chosen: Mapping[int, int]) -> list[str]:
        """What each row stands as, where some are answered; an answer that there is none of leaves it asked."""
        return [
            row.asked.answers[chosen[nth]]
            if row.asked and chosen.get(nth, len(row.asked.answers)) < len(row.asked.answers)
            else row.slate
            for nth, row in enumerate(self.rows)
        ]


class _Part(NamedTuple):
    """A block as it stands, or what is asked instead."""

    draft: Draft
    text: str = ""
    question: Question | None = None


def read_message(text: str) -> Message:
    """What a message says, read by the roles of its figures. Never raises for what a person wrote."""
    text = text.replace("\r\n", "\n").removeprefix("\ufeff")
    if is_own(text):
        return Message(text, kept=tuple(_kept(text)))
    said, more = _looked_at(text)
    found = _read(said, more)
    if not found.asked or len(said) > MOST_IN_SENTENCES:
        return found
    apart = _read(said, more, by_sentence=True)
    return min(found, apart, key=_doubts)


def _doubts(made: Message) -> tuple[int, int]:
    """How much of a message is asked: first what nobody has an answer for."""
    return sum(not one.answers for one in made.asked), len(made.asked)


def _read(said: str, more: tuple[Asked, ...], by_sentence: bool = False) -> Message:
    """The message that lines are, or their sentences."""
    made = gather(said, by_sentence)
    blocks = _Parts()
    parts = list(_together(part for draft in made.drafts for part in blocks.of(draft)))
    rows = [_row(one) for one in parts]
    asked = [row.asked for row in rows if row.asked]
    if not parts and not made.notes and said.strip():
        asked.append(Asked(1, said.strip(), f"“{plainly(said)[:80]}” {NOTHING}", ()))
    head = "\n".join(_head(made))
    slate = _joined(head, [row.slate for row in rows])
    waiting = [note for one in parts if one.question for note in one.draft.notes]
    return Message(slate, (*asked, *more), (*_kept(slate), *waiting), head, tuple(rows))


def _joined(head: str, blocks: Iterable[str]) -> str:
    slate = "\n\n".join(filter(None, [head, *blocks]))
    return f"{slate}\n" if slate else ""


def _row(part: _Part) -> Row:
    said = "\n".join(dict.fromkeys(line.text for line in part.draft.lines))
    if not part.question:
        return Row(said, part.text)
    return Row(said, _placeholder(part.draft), _asked(part))


def is_own(text: str) -> bool:
    """Whether a text is a slate already, each line in the slate's own form.

    Its first lines are looked at alone before all are: of a message few are needed to see that it is none.
    """
    lines = text.split("\n")
    begun = [nth for nth, line in enumerate(lines[:FIRST_LINES]) if line[:1].strip()]
    first = "\n".join(lines[: begun[-1]]) if begun else ""  # the last of them may go on below
    return (not first.strip() or _is_clean(first, whole=False)) and _is_clean(text)


def _is_clean(text: str, whole: bool = True) -> bool:
    made = read(text, 0)
    names = (
        task.name for block in made.session.blocks for line in block.moves for task in line.tasks
    )
    clean = not (made.problems or made.spoken or made.said or any(map(is_manner, names)))
    return clean and (bool(made.session.blocks) or not whole)


def _looked_at(text: str) -> tuple[str, tuple[Asked, ...]]:
    """What is read of a text, and what of it is longer than a session, or a line, ever is."""
    lines = text.split("\n")
    most = min(
        MOST_LINES,
        next((nth for nth, said in enumerate(_so_far(lines)) if said > MOST_SAID), MOST_LINES),
    )
    beyond = "\n".join(lines[most:])
    asked = [
        Asked(nth, line[:MOST_LETTERS], f"Line {nth} {TOO_LONG}", ())
        for nth, line in enumerate(lines[:most], 1)
        if len(line) > MOST_LETTERS
    ]
    if beyond.strip():
        asked.append(
            Asked(most + 1, beyond[:MOST_LETTERS], f"From line {most + 1} on {UNREAD}", ())
        )
    kept = [line if len(line) <= MOST_LETTERS else "" for line in lines[:most]]
    return "\n".join(kept), tuple(asked)


def _so_far(lines: list[str]) -> Iterator[int]:
    """Letters up to the end of each line; lines that are too long are not looked at."""
    return accumulate(len(line) if len(line) <= MOST_LETTERS else 0 for line in lines)


def _head(made: Gathered) -> Iterator[str]:
    """The headers; what is told and too long for one line stands as comments below."""
    title = plainly(made.title)
    notes = list(filter(None, map(plainly, dict.fromkeys(made.notes))))
    told = [
        one
        for one, letters in zip(notes, accumulate(map(len, notes)), strict=True)
        if letters <= MOST_LETTERS
    ]
    if title:
        yield f"title: {title}"
    if told:
        yield f"note: {'; '.join(told)}"
    yield from (f"{name}: {said}" for name, said in made.headers.items())
    yield from (f"{MARK}{one}" for one in notes[len(told) :])


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


class _Parts:
    """The blocks of a message one by one; for the first questions their answers are worked out."""

    def __init__(self) -> None:
        self.asked = 0

    def of(self, draft: Draft) -> Iterator[_Part]:
        """A draft as one block, or as several that stand alone."""
        draft = draft if draft.inside else meant(draft)
        if "race" in draft.roles:
            self.asked += 1
            yield _Part(draft, question=race(draft))
        elif draft.inside:
            yield self._nested(draft)
        elif draft.roles.keys() <= ALONE and draft.tasks and not draft.left:
            yield from self._standing(draft)
        else:
            yield self._part(draft)

    def _ask(self, draft: Draft) -> _Part:
        self.asked += 1
        if self.asked > MOST_ASKED:
            return _Part(draft, question=Question(f"{name_of(draft)}: what is meant by it?", ()))
        return _Part(draft, question=ask(draft))

    def _part(self, draft: Draft) -> _Part:
        whole = meant(draft)
        ways = list(ways_of_turns(whole)) if not draft.left else []
        texts = list(dict.fromkeys(written(way, offer) for way in ways for offer in way.offers()))
        doubted = two_ways(whole) if not whole.left else None
        if doubted:
            self.asked += 1
            return _Part(draft, question=doubted)
        if len(texts) == 1 and sound(texts[0]):
            return _Part(draft, texts[0])
        if len(ways) > 1 and len(texts) > 1 and self.asked < MOST_ASKED:
            self.asked += 1
            said = f"{name_of(draft)}: one of these each turn, or all of them in every turn?"
            return _Part(draft, question=Question(said, tuple(filter(sound, texts))[:MOST_ANSWERS]))
        return self._ask(whole)

    def _standing(self, draft: Draft) -> Iterator[_Part]:
        """Tasks under no heading: each a stretch of its own where it says how long, else asked about together."""
        alone = list(standing(draft))
        if alone and all(one.roles.keys() - {"around"} for one in alone):
            yield from map(self._part, alone)
        else:
            yield self._ask(draft)

    def _nested(self, draft: Draft) -> _Part:
        """Whole blocks inside rounds."""
        inner = [self._part(one) for one in draft.inside]
        rest = draft.roles.get("rest") or draft.roles.get("between")
        times = draft.roles.get("rounds") or draft.roles.get("sets") or ""
        head = f"{times} times" + (f", rest {rest}" if rest else "")
        unsure = next((one.question for one in inner if one.question), None)
        answers = unsure.answers if unsure else ("",)
        texts = tuple(filter(sound, (_around(head, inner, answer) for answer in answers)))
        if not unsure and texts:
            return _Part(draft, texts[0])
        return _Part(draft, question=Question(unsure.text, texts)) if unsure else self._ask(draft)


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
