"""One step on the board: what it changes is noted as it was, so that all of it is taken back at once."""

from datetime import date
from typing import Any

from sqlmodel import Session as Work

from lovrit.core.days import NoSuchDay
from lovrit.core.session.dated import with_date
from lovrit.house.house import House
from lovrit.store import club, evenings, sessions, weeks
from lovrit.store.tables import SessionRow
from lovrit.store.weeks import Step


class Doing:
    """A step in the making. ``done`` keeps it, with words for what it was."""

    def __init__(self, house: House, work: Work) -> None:
        self.house, self.work = house, work
        self._step: Step = {"moves": [], "texts": [], "made": [], "kept": {}}

    def move(self, session_id: int, day: str | None, was: str | None = None) -> None:
        """A session goes to a day, on its slate too; to none where there is no day.

        ``was`` is the day that it was seen on by who moves it.

        Raises:
            NoSuchDay: where somebody else has moved it meanwhile, or the day is off.
        """
        row = sessions.get(self.work, session_id)
        if was is not None and was != (row.day or ""):
            now = f"on {_said(row.day)}" if row.day else "on no day"
            raise NoSuchDay(
                f"Somebody has moved “{row.title}” meanwhile: it is {now}. Nothing was changed."
            )
        if row.day == day:
            return
        self._on(day)
        before = row.text
        self._step["moves"].append((session_id, row.day, day))
        _move(self.house, self.work, session_id, day)
        self._step["texts"].append((session_id, before, row.text))

    def write(self, session_id: int, text: str) -> None:
        """A session gets another text."""
        row = sessions.get(self.work, session_id)
        if row.text == text:
            return
        self._step["texts"].append((session_id, row.text, text))
        _write(self.house, self.work, session_id, text)

    def make(self, text: str, title: str, day: str) -> int:
        """A new session on a day; its number.

        Raises:
            NoSuchDay: where the day is off.
        """
        self._on(day)
        made = sessions.create(self.work, with_date(text, day), title, self.house.now_ms())
        made.day = day
        self.work.add(made)
        assert made.id is not None
        self._step["made"].append(made.id)
        return made.id

    def again(self, row: SessionRow, day: str) -> int:
        """A session on one more day: the same text on another evening; its number there."""
        made = self.make(row.text, row.title, day)
        evenings.mark(self.work, sessions.get(self.work, made), row)
        return made

    def put(self, session_id: int, day: str) -> int:
        """A session on a day: itself where it has none yet, else a copy of it; the number of the one that is there."""
        row = sessions.get(self.work, session_id)
        if row.day is not None:
            return self.again(row, day)
        self.move(session_id, day)
        return session_id

    def _on(self, day: str | None) -> None:
        if day in weeks.off(self.work):
            raise NoSuchDay(
                f"{_said(day)} is a day off. Make it a day on again first, or choose another."
            )

    def choose(self, key: str, value: Any) -> None:
        """What is kept beside sessions becomes another."""
        before = club.choice(self.work, key)
        if before == value or (not before and not value):
            return
        self._step["kept"].setdefault(key, before)
        club.choose(self.work, key, value)

    def done(self, said: str = "") -> None:
        """Keep the step, where it changed anything."""
        if any(self._step[one] for one in ("moves", "texts", "made", "kept")):
            self._step["said"] = said
            weeks.set_steps(self.work, [*weeks.steps(self.work), self._step])


def _said(day: str | None) -> str:
    return f"{date.fromisoformat(day or ''):%A %-d %B}"


def take_back(house: House, work: Work, seen: int | None = None) -> None:
    """Take the last step back; ``seen`` is how many there were for who takes it back.

    Raises:
        NoSuchDay: where somebody else has done something since, so that it would be theirs.
    """
    steps = weeks.steps(work)
    if not steps:
        return
    if seen is not None and seen != len(steps):
        did = steps[-1].get("said", "") if len(steps) > seen else "a step taken back"
        raise NoSuchDay(
            f"Somebody else has done something since: {did or 'a step'}. Look at the board again."
        )
    last = steps.pop()
    _as_before(house, work, last)
    for session in last.get("made", []):
        sessions.put_away(work, sessions.get(work, session), house.now_ms())
    kept = dict(last.get("kept", {}))
    if last.get("others") is not None:  # as steps were kept before
        kept[weeks.OTHERS] = last["others"]
    for key, value in kept.items():
        club.choose(work, key, value)
    weeks.set_steps(work, steps)


def _as_before(house: House, work: Work, last: Step) -> None:
    """Sessions as they were before a step; what was written on one since stays, on the day of before."""
    written = {session for session, _, _ in last.get("texts", [])}
    for session, before, _ in reversed(last.get("moves", [])):
        if session in written:
            sessions.get(work, session).day = before
        else:  # as steps were kept before
            _move(house, work, session, before)
    for session, text, after in reversed(last.get("texts", [])):
        row = sessions.get(work, session)
        if row.text == after:
            _write(house, work, session, text)
        else:
            _move(house, work, session, row.day)


def _move(house: House, work: Work, session_id: int, day: str | None) -> None:
    row = sessions.get(work, session_id)
    sessions.write_text(
        work, row, with_date(row.text, day), row.version, None, None, house.now_ms()
    )
    row.day, row.good_text = day, with_date(row.good_text, day) if row.good_text else row.good_text
    work.add(row)


def _write(house: House, work: Work, session_id: int, text: str) -> None:
    row = sessions.get(work, session_id)
    sessions.write_text(work, row, text, row.version, None, None, house.now_ms())
    row.good_text = text
    work.add(row)
