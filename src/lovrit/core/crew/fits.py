"""The fit sheet: at each station the version and load that somebody does. Limits first, then what was chosen, then who
they are; a version that a limit forbids is never taken, and where no way is known somebody has to choose.
"""

from collections.abc import Iterator
from statistics import fmean
from typing import NamedTuple

from lovrit.core.clock import number
from lovrit.core.crew.person import DOES_NOT, OLDER, Chosen, Person
from lovrit.core.moves.guess import stand_in
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.moves.names import FREE, key_of
from lovrit.core.slate.line import Line, Task, Way
from lovrit.core.slate.written import load as load_words
from lovrit.core.slate.written import task_said
from lovrit.core.values import Value

OF_BEST = 0.8  # of a best can be done in sets, as coaches have it; to be checked
STEP_KG = 2.5
MOST_WAYS = 6
RESTS = "rest here"  # what somebody does at a station where nothing is for them
# words of a way that take away what its move asks
RELIEF: dict[str, tuple[str, ...]] = {
    "depth": ("half", "bench", "box", "chair", "high", "shallow", "partial"),
    "jumps": ("step", "no jump", "walk", "side to side", "slow"),
    "overhead": ("floor", "front", "waist", "shoulder height", "chest"),
    "floor": ("bench", "wall", "standing", "chair", "box", "bar"),
}


class Option(NamedTuple):
    """Something that can be done at a station, and with how much; ``asks`` what some people can't do."""

    name: str
    load: float | None
    asks: frozenset[str]


class Cell(Value):
    """What somebody does at a station, and why; ``open`` where nobody knows a way and somebody has to choose.

    ``at`` is its place among the options, the easiest first; ``swapped`` where it isn't the move as written;
    ``written`` the load as the line has it, where it is nobody's kilograms: a share of a best that is not known, watts.
    """

    station: str
    does: str
    load: float | None = None
    written: str = ""
    because: str = ""
    swapped: bool = False
    open: bool = False
    at: int = 0
    options: int = 1

    @property
    def said(self) -> str:
        """In words: the version, with its load; where nobody knows one, whom to ask."""
        said = ", ".join(filter(None, (self.does, self.load_said)))
        return f"{said}: ask your coach" if self.open else said

    @property
    def load_said(self) -> str:
        """The load in words: somebody's own kilograms, else as it is written."""
        return self.written if self.load is None else f"{number(self.load)} kg"


def ladder(line: Line, library: Library, person: Person | None = None) -> tuple[Option, ...]:
    """What can be done at a station, the easiest first: kinder ways with the lightest load, the move from light to
    heavy, harder ways with the heaviest. A person's may hold a load that they bring there.
    """
    task = line.tasks[0]
    move = library.find(task.name)
    loads = tuple(sorted({*loads_of(line), *_own_loads(line, person)}))
    asks = _asks(task.name, library)
    middle = [Option(task.name, load, asks) for load in loads or (None,)]
    easier = [_option(name, loads[:1], library) for name in _kinder(line, move)]
    easier += _way_round(move, easier, library)
    harder = [_option(name, loads[-1:], library) for name in _harder(line, move)]
    return (*reversed(easier), *middle, *harder)


def _own_loads(line: Line, person: Person | None) -> tuple[float, ...]:
    """Loads that only this person has here: one that they bring, or the share of their best that is asked for."""
    best, share = _best(line, person), _share_asked(line)
    return (*_brought(line, person), *((_loadable(best * share / 100),) if best and share else ()))


def _best(line: Line, person: Person | None) -> float | None:
    return person.bests.get(key_of(line.tasks[0].name)) if person else None


def _share_asked(line: Line) -> float | None:
    """The share of one's best that a line asks for, per cent; of a range its middle."""
    load = line.tasks[0].load
    return fmean((load.values[0], load.values[-1])) if load and load.unit == "%" else None


def _as_written(task: Task) -> str:
    """A load that is nobody's kilograms, as people are told it."""
    if task.load is None or task.load.unit == "kg":
        return ""
    return load_words(task.load) + (" of best" if task.load.unit == "%" else "")


def _loadable(kg: float) -> float:
    return int(kg / STEP_KG) * STEP_KG


def _brought(line: Line, person: Person | None) -> tuple[float, ...]:
    chosen = person.does.get(key_of(line.tasks[0].name)) if person else None
    return (chosen.load,) if chosen and chosen.brought and chosen.load is not None else ()


def loads_of(line: Line) -> tuple[float, ...]:
    """Loads (kg) that stand ready at a station, the lightest first: of its kit, else as written."""
    task = line.tasks[0]
    of_kit = {load for kit in task.kit for load in kit.loads}
    written = task.load.values if task.load and task.load.unit == "kg" else ()
    return tuple(sorted(of_kit or set(written)))


def _kinder(line: Line, move: Move | None) -> list[str]:
    """Names of easier and other ways, the nearest first: the line's own, then the library's."""
    task = line.tasks[0]
    own = [_named(way, task.name) for way in (*task.easier, *task.alternatives) if way.name]
    known = [f"{move.name} {way}" for way in move.easier] if move else []
    other = [name for name in (move.low_impact, move.no_kit) if name] if move else []
    names = dict.fromkeys((*own, *known, *other))
    names.pop(task.name, None)
    return list(names)[:MOST_WAYS]


def _way_round(move: Move | None, ways: list[Option], library: Library) -> list[Option]:
    """For each thing that a move asks and no way of it spares: a plain move of the same pattern that does.

    Where that move has a way that spares it further, that one: a hold goes as deep as it is held.
    """
    found = []
    for ask, one in _spared(move, ways, library):
        sparing = (way for way in one.easier if any(word in way for word in RELIEF.get(ask, ())))
        found.append(Option(" ".join((one.name, *list(sparing)[:1])), None, one.asks))
    return found


def _spared(move: Move | None, ways: list[Option], library: Library) -> Iterator[tuple[str, Move]]:
    kit = set(move.needs_kit) if move else set()
    for ask in sorted(move.asks) if move else ():
        if any(ask not in way.asks for way in ways):
            continue
        others = (
            one
            for one in library.moves
            if move and one.pattern == move.pattern and not one.skill and ask not in one.asks
            if set(one.needs_kit) <= kit and not one.asks - move.asks
        )
        yield from ((ask, one) for one in list(others)[:1])


def _harder(line: Line, move: Move | None) -> list[str]:
    task = line.tasks[0]
    own = [_named(way, task.name) for way in task.harder if way.name]
    known = [f"{move.name} {way}" for way in move.harder] if move else []
    return list(dict.fromkeys((*own, *known)))[:MOST_WAYS]


def _named(way: Way, name: str) -> str:
    """A way by its whole name: “to a bench” is said of the move."""
    small = way.name.split(" ", 1)[0] in (
        "to",
        "on",
        "with",
        "without",
        "from",
        "in",
        "half",
        "one",
        "no",
        "slower",
    )
    return f"{name} {way.name}" if small else way.name


def _option(name: str, load: tuple[float, ...], library: Library) -> Option:
    return Option(name, load[0] if load and _weighed(name, library) else None, _asks(name, library))


def _weighed(name: str, library: Library) -> bool:
    """Whether a way is done with the station's load: a way of a move that takes one."""
    move = library.find(name)
    return move is not None and bool({"bell", "bar", "plate", "sandbag"} & set(move.kit))


def _asks(name: str, library: Library) -> frozenset[str]:
    """What a version asks of people: its move's, without what the words of the way take away."""
    move, way = library.find_way(name)
    known = move or stand_in(name)
    if known is None:
        return frozenset()
    words = way or (name if move is None else "")
    gone = {ask for ask, relief in RELIEF.items() if way and any(word in words for word in relief)}
    return known.asks - gone


def cell(
    person: Person, line: Line, library: Library, usual: tuple[Option, ...] | None = None
) -> Cell:
    """What somebody does at a station, by rule; ``usual`` is its ladder, where it has been worked out for many."""
    brings = bool(_own_loads(line, person))
    options = usual if usual and not brings else ladder(line, library, person)
    forbidden = frozenset(person.limits)
    own = _of_choice(person, line, options, library)
    if own:
        return own
    written = next(nth for nth, one in enumerate(options) if one.name == line.tasks[0].name)
    at, because = _wanted(person, line, options, written)
    if options[at].asks & forbidden:
        because = ", ".join(DOES_NOT[limit] for limit in person.limits if limit in options[at].asks)
        found = next(_kinder_than(options, at, forbidden), None)
        if found is None:
            return Cell(
                station=line.name,
                does=options[at].name,
                because=because,
                open=True,
                options=len(options),
                at=at,
            )
        at = found
    chosen = options[at]
    swapped = chosen.name != line.tasks[0].name
    return Cell(
        station=line.name,
        does=chosen.name,
        load=chosen.load,
        written="" if swapped else _as_written(line.tasks[0]),
        because=because,
        swapped=swapped,
        at=at,
        options=len(options),
    )


def cells(person: Person, line: Line, library: Library) -> tuple[Cell, ...]:
    """What somebody does of each task of a line: a limit holds for the second as for the first."""
    return tuple(cell(person, line.but(tasks=(task,)), library) for task in line.tasks)


def at_line(
    person: Person, line: Line, library: Library, usual: tuple[Option, ...] | None = None
) -> Cell:
    """What somebody does at a station, all its tasks in one cell; steps and choices are of the first."""
    first = cell(person, line, library, usual)
    if len(line.tasks) == 1:
        return first
    every = (first, *cells(person, line, library)[1:])
    because = dict.fromkeys(one.because for one in every if one.because)
    return first.but(
        does=" + ".join(one.does for one in every),
        because=", ".join(because),
        swapped=any(one.swapped for one in every),
        open=any(one.open for one in every),
    )


def told(person: Person, line: Line, library: Library) -> tuple[str, ...]:
    """What somebody is told to do at a line, task by task: how much, in which version, with which load.

    Every page, card and screen that tells one person says this.
    """
    return tuple(
        _with_amount(task, own, own_most(person, task, library), library)
        for task, own in zip(line.tasks, cells(person, line, library), strict=True)
    )


def _with_amount(task: Task, own: Cell, most: float | None, library: Library) -> str:
    said = ", ".join(filter(None, (task_said(task.but(load=None), own.does), own.load_said)))
    if own.open:
        return f"{said}: ask your coach"
    if most is None or own.swapped or not task.amount or task.amount.form != "max":
        return said
    move = library.find(task.name)
    return f"{said} ({number(most)}{' s' if move and move.counted == 's' else ''} so far)"


def own_most(person: Person, task: Task, library: Library) -> float | None:
    """How much of a task somebody does in one go, fresh: reps, or seconds of a hold; None where nobody knows."""
    move = library.find(task.name)
    if move is None or task.load or not goes_by_itself(move):
        return None
    return person.mosts.get(key_of(move.name)) if key_of(task.name) in _names(move) else None


def goes_by_itself(move: Move | None) -> bool:
    """Whether how often a move goes in one go is its own; with a weight it is the weight's."""
    return move is not None and move.counted in ("reps", "s") and not set(move.kit) & FREE


def _names(move: Move) -> frozenset[str]:
    return frozenset(map(key_of, (move.name, *move.also)))


def choices(person: Person, line: Line, library: Library) -> tuple[str, ...]:
    """Where nobody knows a way: moves that no limit of somebody forbids, of the same pattern first; or to rest."""
    asked = library.find(line.tasks[0].name)
    kit = set(asked.needs_kit) if asked else set()
    free = [
        one
        for one in library.moves
        if not one.skill and not one.asks & frozenset(person.limits) and set(one.needs_kit) <= kit
    ]
    alike = [one.name for one in free if asked and one.pattern == asked.pattern]
    others = [one.name for one in free if one.name not in alike]
    return (*alike[:MOST_WAYS], *others[: MOST_WAYS - len(alike[:MOST_WAYS])], RESTS)


def chosen(person: Person, line: Line, library: Library, name: str) -> Person:
    """A person who does a move of the coach's choice at a station from now on; nothing where a limit forbids it."""
    if name != RESTS and (
        library.find(name) is None or _asks(name, library) & frozenset(person.limits)
    ):
        return person
    return person.but(does=person.does | {key_of(line.tasks[0].name): Chosen(name=name)})


def _of_choice(
    person: Person, line: Line, options: tuple[Option, ...], library: Library
) -> Cell | None:
    """What the coach chose from outside the station's ways, while no limit forbids it."""
    taken = person.does.get(key_of(line.tasks[0].name))
    if taken is None or any(one.name == taken.name for one in options):
        return None
    known = taken.name == RESTS or library.find(taken.name) is not None
    if not known or _asks(taken.name, library) & frozenset(person.limits):
        return None
    return Cell(
        station=line.name, does=taken.name, because="as chosen", swapped=True, options=len(options)
    )


def _kinder_than(options: tuple[Option, ...], at: int, forbidden: frozenset[str]) -> Iterator[int]:
    """The options that no limit forbids: easier ones first, the nearest of them first."""
    order = [*range(at, -1, -1), *range(at + 1, len(options))]
    return (nth for nth in order if not options[nth].asks & forbidden)


def _wanted(
    person: Person, line: Line, options: tuple[Option, ...], written: int
) -> tuple[int, str]:
    """What would be taken if no limit forbade it, and why."""
    chosen = person.does.get(key_of(line.tasks[0].name))
    if chosen:
        return _as_chosen(chosen, options, written)
    own = [nth for nth, one in enumerate(options) if one.name == line.tasks[0].name]
    gently = {"new": "new", "back": "just back"}.get(person.standing, "")
    if not gently and person.age is not None and person.age >= OLDER:
        gently = f"{person.age}"
    if not gently:
        return _by_best(person, line, options, own)
    easier = line.tasks[0].easier
    if easier and easier[0].name and person.standing != "usual":
        name = _named(easier[0], line.tasks[0].name)
        return next(nth for nth, one in enumerate(options) if one.name == name), gently
    return own[0], gently if len(own) > 1 else ""


def _by_best(
    person: Person, line: Line, options: tuple[Option, ...], own: list[int]
) -> tuple[int, str]:
    """The share of a measured best that a line asks for, or what of the loads that stand ready is within one; else
    the middle of them.
    """
    best, share = _best(line, person), _share_asked(line)
    if share:
        said = "best not known" if best is None else f"{number(share)} % of {number(best)}"
        return own[(len(own) - 1) // 2], said
    ready = [nth for nth in own if options[nth].load is not None]
    if best is None or not ready:
        return own[(len(own) - 1) // 2], ""
    within = [nth for nth in ready if (options[nth].load or 0) <= best * OF_BEST]
    if not within:
        return ready[0], f"none is light enough: {OF_BEST:.0%} of {number(best)}".replace("%", " %")
    return within[-1], f"at most {OF_BEST:.0%} of {number(best)}".replace("%", " %")


def _as_chosen(chosen: Chosen, options: tuple[Option, ...], written: int) -> tuple[int, str]:
    """What was chosen before, as near as what stands ready here allows."""
    alike = [nth for nth, one in enumerate(options) if one.name == chosen.name]
    if not alike:
        return written, f"“{chosen.name}” isn’t offered here"
    load = chosen.load
    if load is None or options[alike[0]].load is None:
        return alike[0], "as chosen"
    exact = [nth for nth in alike if options[nth].load == load]
    if exact:
        return exact[0], "as chosen"
    lighter = [nth for nth in alike if (options[nth].load or 0) < load]
    return (lighter or alike[:1])[-1], f"{number(load)} kg isn’t here"


def stepped(person: Person, line: Line, library: Library, by: int) -> Person:
    """A person who does one step harder or easier at a station from now on; what a limit forbids is passed over."""
    options = ladder(line, library, person)
    now = cell(person, line, library)
    at = now.at + by
    while 0 <= at < len(options) and options[at].asks & frozenset(person.limits):
        at += by
    if not 0 <= at < len(options):
        return person
    return put(person, line, library, at)


def put(person: Person, line: Line, library: Library, at: int | None) -> Person:
    """A person who does an option of a station from now on; with None what was chosen is forgotten, and the rule holds.

    One that a limit forbids is not taken.
    """
    key = key_of(line.tasks[0].name)
    if at is None:
        return person.but(does={name: one for name, one in person.does.items() if name != key})
    options = ladder(line, library, person)
    if not 0 <= at < len(options) or options[at].asks & frozenset(person.limits):
        return person
    load = options[at].load
    taken = Chosen(name=options[at].name, load=load, brought=load in _brought(line, person))
    return person.but(does=person.does | {key: taken})
