"""Lines that are no block and no part of one, by what they say alone: a title, a part by its name, a length ahead."""

from lovrit.core.reading.apart import QUOTES
from lovrit.core.reading.belongs import is_letter
from lovrit.core.reading.giving import seconds_in
from lovrit.core.reading.line import Said, Task
from lovrit.core.reading.stacked import THEMED
from lovrit.core.reading.vocabulary import labels, plain

SENTENCE = 4  # words


def is_title(line: Said, many: int) -> bool:
    """Whether the first of so many lines only says what the session is called."""
    if line.roles.keys() - {"company"} or line.marks:
        return False
    if not line.figures and many > 1 and THEMED.match(line.text):
        return True
    if line.roles and not line.tasks:
        return False  # “partner up.”: with whom, and nothing that names the evening
    if any(one.seconds for one in line.tasks) or (
        line.left and any(one.known for one in line.tasks)
    ):
        return False
    plainly_ = not line.tasks or not all(one.whole for one in line.tasks)
    counted = (
        any(one.amount for one in line.tasks)
        and line.figures
        and any(one.known for one in line.tasks)
    )
    return (
        plainly_
        and not counted
        and not line.bullet
        and many > 1
        and line.words <= 8
        and (line.section or not line.notes)
    )


def is_quoted(line: Said) -> bool:
    """Whether a line is a name in quotes: what the session, or a part of it, is called."""
    said = line.text.strip()
    return len(said) > 2 and said[0] in QUOTES and said[-1] in QUOTES and not line.figures


def is_part_ahead(line: Said, after: list[Said]) -> bool:
    """Whether a line only names a part of the evening, and all of it stands under it with a bullet."""
    one = line.tasks[0] if len(line.tasks) == 1 and not (line.roles or line.figures) else None
    named = one is not None and plain(one.name) in labels() and not line.inside
    return named and bool(after) and bool(after[0].bullet and after[0].roles)


def is_part(line: Said) -> bool:
    """Whether a line begins a part of the evening: A, B; block 1, part 2."""
    return line.section or is_letter(line.label)


def is_times_ahead(line: Said, after: list[Said]) -> bool:
    """“4 x 4”, and below it four minutes and their rest: so many times."""
    if line.roles.keys() != {"sets", "reps"} or line.tasks or not after:
        return False
    roles = after[0].roles
    work = roles.get("work") or roles.get("pair", "").split("/")[0]
    minutes = line.roles["reps"].removesuffix(" reps")
    timed = bool(work) and not roles.keys() & {"times", "rounds", "sets", "often"}
    return timed and minutes.isdecimal() and seconds_in(work) == 60 * int(minutes)


def is_length_ahead(line: Said, after: list[Said]) -> bool:
    """Whether a line names a part of the evening with its minutes, and what is done in it follows."""
    alone = line.section and line.roles.keys() == {"time"} and not line.tasks
    return alone and line.text.rstrip()[-1:] in ":)" and bool(after)


def sounds_like_prose(task: Task) -> bool:
    """Whether a name is a sentence rather than a move: several words, none of which the library knows, and no count."""
    return not task.known and not task.amount and len(task.name.split()) >= SENTENCE
