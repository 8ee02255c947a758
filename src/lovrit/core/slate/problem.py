"""What stands in the way of reading a line, in words that the person reads, and its place."""

from lovrit.core.values import LovritError, Value


class Problem(Value):
    """Why a line could not be read. Lines and columns count from 1; ``nearest`` is a line that would be read."""

    line: int
    column: int
    text: str
    expected: tuple[str, ...] = ()
    nearest: str | None = None


class Unreadable(LovritError):
    """A line, or a whole text, that can't be read; ``column`` counts from 1."""

    def __init__(
        self, text: str, column: int = 1, expected: tuple[str, ...] = (), nearest: str | None = None
    ) -> None:
        super().__init__(text)
        self.text, self.column, self.expected, self.nearest = text, column, expected, nearest
