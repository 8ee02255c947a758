"""Messages that sessions were made from, kept while they are looked at: the last few, and not on the disk."""

from collections import OrderedDict

MOST_KEPT = 32


class Sent:
    """A message by the session that was made from it."""

    def __init__(self) -> None:
        self._kept: OrderedDict[int, str] = OrderedDict()

    def keep(self, session_id: int, text: str) -> None:
        """Keep a message; the oldest goes."""
        self._kept[session_id] = text
        while len(self._kept) > MOST_KEPT:
            self._kept.popitem(last=False)

    def of(self, session_id: int) -> str | None:
        """The message of a session; None once it is forgotten."""
        return self._kept.get(session_id)
