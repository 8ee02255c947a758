"""A class and all that happened in it, folded to how it stands: used by the server, after a crash, and afterwards."""

from lovrit.core.run.classplan import ClassPlan, Runner, by_group
from lovrit.core.run.events.kinds import KNOWN
from lovrit.core.run.events.undo import UNDO
from lovrit.core.run.going import Going, Happening

ARRIVING_S = 1.5  # a screen's clock may be this far ahead of ours when it presses at a border


class Fold:
    """A class and all that happened in it, in order. What is taken back is left out from that moment on."""

    def __init__(self, plan: ClassPlan, people: list[Runner]) -> None:
        self.plan, self._people = plan, people
        self.state = self._fresh()
        self.counted: list[Happening] = []
        self.seen: dict[str, None] = {}  # in the order of their coming
        self.refused: str | None = None

    def copy(self) -> "Fold":
        """A fold of its own, for an event that is only tried."""
        made = Fold(self.plan, self._people)
        made.state, made.counted, made.seen = self.state.copy(), list(self.counted), dict(self.seen)
        return made

    def _fresh(self) -> Going:
        people = {one.id: one for one in self._people}
        return Going(self.plan, people, letters=tuple(by_group(self._people)))

    def take(self, event: Happening) -> bool:
        """One more event; whether it changed anything. Each id counts once; none counts before what has been shown."""
        self.refused = None
        if event.id in self.seen:
            return False
        self.seen[event.id] = None
        at_s = max(event.at_s, self.state.now_s)
        event = Happening(event.id, event.kind, at_s, event.fields)
        self.state.advance(at_s)
        self.refused = self._why_not(event)
        if self.refused is None and event.kind != UNDO.name:
            self.counted.append(event)
        return self.refused is None

    def _why_not(self, event: Happening) -> str | None:
        """What is done for an event; why nothing was, where that is so."""
        kind = KNOWN.get(event.kind)
        if self.state.phase == "over" and not (kind and kind.afterwards):
            return "The class was over by then."
        if kind is None:
            return "Nothing was changed by it."
        place = event.fields.get("place")
        if kind.placed and place is not None and not _arrived(self.state, str(place)):
            return "The class had moved on by then."
        done = self._undo(event) if kind is UNDO else kind.deed(self.state, event)
        return None if done else kind.no

    def _undo(self, event: Happening) -> bool:
        """What came of an event is taken back from now on: the state is as though it had not been, the laps stay."""
        of = str(event.fields.get("of", ""))
        kept = [one for one in self.counted if one.id != of]
        if len(kept) == len(self.counted):
            return False
        shown = self.state
        shown.close_laps()
        state = self._fresh()
        for one in kept:
            state.advance(one.at_s)
            KNOWN[one.kind].deed(state, one)
        state.advance(event.at_s)
        state.laps = shown.laps + [lap for lap in state.laps if lap.from_s >= event.at_s]
        for lane in state.lanes:
            lane.lap_from_s = max(lane.lap_from_s, event.at_s)
        self.counted, self.state = kept, state
        return True

    def at(self, at_s: float) -> Going:
        """The state at a later moment, with nothing else happening."""
        state = self.state.copy()
        state.advance(at_s)
        return state


def _arrived(state: Going, place: str) -> bool:
    """Whether the class is where a press was made; one made by a screen a little ahead of it begins that place now."""
    if state.place == place:
        return True
    ahead = state.copy()
    ahead.advance(state.now_s + ARRIVING_S)
    if state.phase != "on" or ahead.place != place:
        return False
    if state.counting:
        state.begin(0)
    for lane in state.active:
        if state.place != place:
            state.finish(lane, "clock")
    return state.place == place
