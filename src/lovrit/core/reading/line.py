"""What a line of a message says, as values: its tasks, its roles, and what could not be understood."""

from dataclasses import dataclass, field
from typing import NamedTuple

from lovrit.core.reading.giving import Role, clocked
from lovrit.core.reading.token import Figure


class Left(NamedTuple):
    """What could be two things, or has no place: as written, which role it is unsure of, and by which task."""

    text: str
    unsure: str = ""
    figure: Figure | None = None
    task: int = 0


@dataclass(frozen=True)
class Task:
    """A thing to do: how much, its name as the slate has it, and the marks behind it.

    ``most`` is as many as one can; ``known`` where the library has some word of it, ``whole`` where it has all;
    ``easy`` where it was said to be easy.
    """

    name: str
    amount: Figure | None = None
    marks: tuple[str, ...] = ()
    most: bool = False
    known: bool = False
    whole: bool = False
    easy: bool = False

    @property
    def seconds(self) -> int:
        """How long it is done, where that is one time; else nothing."""
        timed = self.amount and self.amount.seconds and self.amount.form == "one"
        return self.amount.seconds[0] if timed and self.amount else 0

    def written(self, behind: str = "") -> str:
        """As a line of the slate."""
        said = "max " if self.most else f"{amount_of(self.amount)} " if self.amount else ""
        marks = "".join(one if one.startswith(",") else f" {one}" for one in self.marks)
        return f"{said}{self.name}{behind}{marks}".strip()


def amount_of(figure: Figure) -> str:
    """An amount as the slate writes it; seconds have their unit."""
    if not figure.seconds:
        return figure.own
    if figure.form == "range":
        return f"{'-'.join(str(one) for one in figure.seconds)} s"
    return f"{figure.said[0]} s" if figure.seconds[0] < 60 else clocked(figure.seconds[0])


@dataclass
class Said:
    """What a line says. ``label`` is what stands before it (a1, min 2, 3), ``all_`` where it is said of all above,
    ``then`` where it says that it comes after that, ``joined`` where a + stands between its tasks, ``finish`` where it
    says that it is the end.
    """

    number: int
    text: str
    inset: bool = False
    bullet: bool = False
    label: str = ""
    roles: dict[str, str] = field(default_factory=dict)
    again: list[Role] = field(default_factory=list)
    tasks: list[Task] = field(default_factory=list)
    marks: list[str] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    left: list[Left] = field(default_factory=list)
    figures: int = 0
    words: int = 0
    section: bool = False
    all_: bool = False
    then: bool = False
    joined: bool = False
    finish: bool = False

    @property
    def says_nothing(self) -> bool:
        """Whether nothing of a block stands in it."""
        return not (self.roles or self.tasks or self.marks or self.left)

    @property
    def inside(self) -> bool:
        """Whether it stands in, has a bullet or a label of its own: a part of what is above."""
        return self.inset or self.bullet or bool(self.label)
