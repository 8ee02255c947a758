"""In at 18:10, out at 18:50: what a slot leaves for the session when explaining and clearing are counted."""

from lovrit.core.clock import clock, read_clock
from lovrit.core.fit.fit import CannotFit
from lovrit.core.values import Value

DAY = 24 * 3600


class Stay(Value):
    """A stay in a hall: in and out as HH:MM, and seconds for putting out kit, explaining and clearing."""

    come: str
    leave: str
    setup_s: int = 0
    explain_s: int = 0
    clear_s: int = 0

    @property
    def slot_s(self) -> int:
        """Seconds from in to out."""
        return (_of_day(self.leave) - _of_day(self.come)) % DAY

    @property
    def besides_s(self) -> int:
        """Seconds of the slot that are not the session's."""
        return self.setup_s + self.explain_s + self.clear_s

    def session_s(self) -> int:
        """Seconds that are left for the session.

        Raises:
            CannotFit: if nothing is left.
        """
        left = self.slot_s - self.besides_s
        if left < 60:
            raise CannotFit(
                f"In at {self.come}, out at {self.leave}: {clock(max(0, left))} is left for the session."
            )
        return left


def _of_day(text: str) -> int:
    hours, _, minutes = text.strip().partition(":")
    if not (hours.isdecimal() and minutes.isdecimal() and int(hours) < 24 and int(minutes) < 60):
        raise CannotFit(f"“{text}” is no time of day; write it as 18:10.")
    return read_clock(f"{hours}:{minutes}") * 60


def in_slot(text: str, stay: Stay) -> str:
    """The slate with this stay as its slot, and all that isn't the session as its setup."""
    headers = {"slot": f"{stay.come}-{stay.leave}"}
    if stay.besides_s:
        headers["setup"] = clock(stay.besides_s)
    lines = text.split("\n")
    for key, value in reversed(headers.items()):
        at = next(
            (nth for nth, line in enumerate(lines) if line.lower().startswith(f"{key}:")), None
        )
        if at is None:
            titled = next(
                (nth + 1 for nth, line in enumerate(lines) if line.lower().startswith("title:")), 0
            )
            lines.insert(titled, f"{key}: {value}")
        else:
            comment = lines[at].partition("#")
            lines[at] = f"{key}: {value}" + (f"    #{comment[2]}" if comment[1] else "")
    return "\n".join(lines)
