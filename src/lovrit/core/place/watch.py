"""Somebody who watches a placing: told how far it is, and able to stop it; what was found up to then is kept."""

from threading import Event

from ortools.sat.python import cp_model

SEED, WORKERS = 7, 2
LAST_S = 1.0  # so long a step may still take once all was stopped, to make something whole of what is there


class Watch:
    """Solves models and says how they go. The same input gives the same answer, unless it is stopped."""

    def __init__(self) -> None:
        self.said = "looking at what has to be placed"
        self._stop = Event()
        self._solver: cp_model.CpSolver | None = None

    @property
    def stopped(self) -> bool:
        """Whether somebody stopped it."""
        return self._stop.is_set()

    def tell(self, said: str) -> None:
        """How far it is, in words."""
        self.said = said

    def stop(self) -> None:
        """Go no further: the best that is known is kept."""
        self._stop.set()
        solver = self._solver
        if solver:
            solver.stop_search()

    def solve(
        self, model: cp_model.CpModel, seconds: float
    ) -> tuple[cp_model.CpSolver, cp_model.CpSolverStatus]:
        """A solver that has tried a model for so long at most, and what it says of it."""
        solver = cp_model.CpSolver()
        solver.parameters.random_seed, solver.parameters.num_workers = SEED, WORKERS
        solver.parameters.max_time_in_seconds = min(seconds, LAST_S) if self.stopped else seconds
        self._solver = solver
        status = solver.solve(model, _Told(self))
        self._solver = None
        return solver, status


class _Told(cp_model.CpSolverSolutionCallback):
    """Tells of each better one that is found."""

    def __init__(self, watch: Watch) -> None:
        super().__init__()
        self._watch, self._head = watch, watch.said.split(":", 1)[0]

    def on_solution_callback(self) -> None:
        """A better one: how good it is and what none can undercut."""
        self._watch.tell(
            f"{self._head}: the best costs {self.objective_value:.0f}, none less than {self.best_objective_bound:.0f}"
        )
