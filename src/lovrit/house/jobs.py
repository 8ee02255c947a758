"""Placings under way: each in a thread of its own, told of as it goes, stopped by a press; what was found is taken."""

from collections.abc import Callable
from threading import Lock, Thread
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from lovrit.core.place.watch import Watch

PATIENCE_S = 0.7  # a placing that is done by then is answered at once


class Job:
    """One placing: whoever waits for it is told how far it is, and then what came of it."""

    def __init__(self, work: Callable[["Watch"], object]) -> None:
        from lovrit.core.place.watch import Watch  # the solver, for those who ask

        self.watch = Watch()
        self.answer: object = None
        self.trouble: Exception | None = None
        self._work = work
        self._thread = Thread(target=self._run, daemon=True)
        self._thread.start()

    def _run(self) -> None:
        try:
            self.answer = self._work(self.watch)
        except Exception as error:  # whoever asks for the answer is told, whatever it was
            self.trouble = error

    @property
    def done(self) -> bool:
        """Whether something came of it."""
        return not self._thread.is_alive()

    def wait(self, seconds: float | None = None) -> bool:
        """Wait for it, so long at most; whether it is done."""
        self._thread.join(seconds)
        return self.done

    def taken(self) -> object:
        """What came of it.

        Raises:
            Exception: what went wrong in it.
        """
        if self.trouble:
            raise self.trouble
        return self.answer


class Jobs:
    """One placing a session at most: a new one stops the one before and begins from what that found."""

    def __init__(self) -> None:
        self._jobs: dict[int, Job] = {}
        self._lock = Lock()

    def begin(self, session_id: int, work: Callable[["Watch"], object]) -> Job:
        """Begin a placing."""
        with self._lock:
            before = self._jobs.get(session_id)
            if before and not before.done:
                before.watch.stop()
                before.wait()
            job = self._jobs[session_id] = Job(work)
            return job

    def under_way(self, session_id: int) -> Job | None:
        """The placing of a session that is not yet answered."""
        return self._jobs.get(session_id)

    def over(self, session_id: int) -> None:
        """It was answered."""
        self._jobs.pop(session_id, None)
