"""Eight weeks of classes that were, made from a seed: late starts, stops, a failing strap, scores, efforts, notes."""

from collections.abc import Iterator
from datetime import datetime, timedelta
from math import floor
from random import Random
from zoneinfo import ZoneInfo

from sqlmodel import Session as Work
from sqlmodel import select

from lovrit.core.crew.groups import deal, letter
from lovrit.core.crew.person import Comer, Person
from lovrit.core.forecast.learned import Scored, learn, ratios_of
from lovrit.core.heart.asked import interval_demand
from lovrit.core.heart.body import BodyState, beats, settled, step
from lovrit.core.heart.hearts import STANDING
from lovrit.core.moves.library import Library
from lovrit.core.run.account import Class, account
from lovrit.core.run.classplan import Runner
from lovrit.core.run.event import Event, happening
from lovrit.core.run.fold import Fold
from lovrit.core.run.frozen import Frozen, freeze
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import checked, fields_of
from lovrit.store import classes, club, people
from lovrit.store.database import Database
from lovrit.store.tables import ClassRow, SessionRow
from lovrit.straps.simulated import SimulatedStrap

WEEKS, SEED, BEGINS = 8, 2027, "18:10"
ZONE = ZoneInfo("Europe/Berlin")
HALL, EVEN = "Winter hall 4, legs and pull", "Long and even"
TUESDAY, THURSDAY = 1, 3
EVERY_S = 6  # hearts are worked out so often and drawn straight between
CAME, REPS = 16, 30  # who comes, and the reps of one round of as many as possible
LEGS = """title: Legs and pull, week {week}
slot: 18:10-18:55
people: {people}

warm-up 6:00 at 3
  easy laps
  hip circles

{rounds} rounds of 40/20, break 1:30, at 8
  goblet squat | bell 16 12 8
  ring row | rings
  bench step-up, each side | bench
  dead bug | mat

rest 1:30

as many as possible in 6:00 at 8
  8 push-up
  10 squat
  12 mountain climber

cool-down 4:00 at 2
  walk, shake out
"""
LONG = """title: Long and even, week {week}
slot: 18:10-18:55
people: {people}

warm-up 6:00 at 3
  easy laps

{rounds} x 2:00/2:00 at 7
  shuttle run

rest 1:00

hold ladder 15 +5 every 1:00 for 5:00
  plank

cool-down 4:00 at 2
"""
NOTES = (
    "Quiet landings worked. Third round fell apart at the rings.",
    "Hall was cold, longer warm-up next time.",
    "Started too fast again; hold the first two back.",
    "Good evening. Faye at 7 was fine.",
    "Two bells too few at the squats: order the stations otherwise.",
    "Calm, even, nobody hurried.",
)


def season(database: Database) -> None:
    """Put the season before the sample club's classes; where classes are already, nothing is changed."""
    with database.work() as work:
        if work.exec(select(ClassRow.id)).first() is not None:
            return
        everyone = people.everyone(work)
        library = club.library(work)
    maker = _Maker(library, everyone, Random(SEED))
    for at, week, title, text in evenings(datetime.now(ZONE)):
        with database.writing() as work:  # one at a time, so that nobody waits for it
            maker.make(work, at, week, title, text)
    with database.writing() as work:
        whole, own = learn(club.learnt(work))
        own.pop(0, None)
        club.set_paces(work, whole, own)


def evenings(today: datetime) -> Iterator[tuple[datetime, int, str, str]]:
    """Two evenings a week, the oldest first: when, which week, whose session it is, its slate."""
    monday = today - timedelta(days=today.weekday(), weeks=WEEKS)
    for week in range(WEEKS):
        for day, title, text in ((TUESDAY, HALL, LEGS), (THURSDAY, EVEN, LONG)):
            at = monday + timedelta(days=day, weeks=week)
            hour, minute = map(int, BEGINS.split(":"))
            rounds = (2 if title == HALL else 4) + (week > 3)
            yield (
                at.replace(hour=hour, minute=minute, second=0, microsecond=0),
                week,
                title,
                text.format(week=week + 1, rounds=rounds, people=CAME),
            )


class _Maker:
    def __init__(self, library: Library, everyone: list[Person], chance: Random) -> None:
        self.library, self.everyone, self.chance = library, everyone, chance
        self.skill = {one.id: chance.gauss(1.0, 0.09) for one in everyone}

    def make(self, work: Work, at: datetime, week: int, title: str, text: str) -> None:
        """One class with all that happened in it."""
        frozen = freeze(plan_text(text, self.library))
        comers = self._comers()
        opened_ms = round(at.timestamp() * 1000) - 120_000
        session = work.exec(select(SessionRow.id).where(SessionRow.title == title)).first()
        row = classes.make(
            work, session or 0, frozen.session.title, text, comers, opened_ms, frozen
        )
        assert row.id is not None
        events = list(self._events(frozen, comers, opened_ms, week))
        classes.add_events(work, row.id, events)
        told = run(frozen, comers, opened_ms, events)
        row.over_ms = told.over_ms
        if title == HALL:
            classes.add_samples(work, row.id, self._hearts(frozen, told, comers, row.id, week))
        scored = [
            Scored(person=one.person or 0, block=frozen.session.blocks[one.block], text=one.text)
            for one in told.scores
        ]
        club.keep_learnt(work, row.id, ratios_of(scored, self.library.at_pace(1.0, 0)))

    def _comers(self) -> tuple[Comer, ...]:
        """Who came that evening, dealt into four groups."""
        away = {"Ulla", *self.chance.sample([one.name for one in self.everyone], 3)}
        there = [one for one in self.everyone if one.name not in away]
        groups = deal([one.id for one in there], 4)
        return tuple(Comer(**fields_of(one), group=groups[one.id]) for one in there)

    def _events(
        self, frozen: Frozen, comers: tuple[Comer, ...], opened_ms: int, week: int
    ) -> Iterator[Event]:
        """What was pressed and said: as the class ran, and behind it."""
        chance = self.chance
        start_ms = opened_ms + 120_000 + chance.choice([0, 20, 90, 300]) * 1000
        said = _Sayer(start_ms)
        yield said.at(0, "start")
        yield said.at(chance.randint(300, 420), "longer", seconds=chance.choice([10, 30]))
        if chance.random() < 0.4:
            gone = chance.choice(comers)
            yield said.at(chance.randint(900, 1100), "stops", person=gone.id)
        yield said.at(chance.randint(1101, 1200), "mark", text=chance.choice(["", "form", "rings"]))
        after_s = frozen.timeline.total_s + 700
        for block, kind in enumerate(one.kind for one in frozen.session.blocks):
            for comer in comers:
                text = self._score(frozen, block, kind, comer, week)
                if text:
                    yield said.at(after_s, "score", block=block, person=comer.id, text=text)
        for comer in comers:
            value = min(10.0, max(4.0, round(2 * chance.gauss(7.2, 0.8)) / 2))
            yield said.at(after_s, "felt", person=comer.id, value=value)
        yield said.at(after_s, "note", text=NOTES[chance.randrange(len(NOTES))])

    def _score(self, frozen: Frozen, block: int, kind: str, comer: Comer, week: int) -> str:
        """A score as it was said, round what is usual: most get a little better, each on their own evening's form."""
        form = self.skill[comer.id] * (1 + 0.008 * week) * self.chance.gauss(1.0, 0.03)
        if kind == "amrap":
            told = frozen.timeline.blocks[block].forecast
            reps = floor(REPS * form * (told.rounds[1] if told and told.rounds else 4))
            return f"{reps // REPS} + {reps % REPS}"
        if kind == "hold-ladder":
            return f"{min(35, 5 * floor(29 * form / 5))} s"
        return ""

    def _hearts(
        self, frozen: Frozen, told: Class, comers: tuple[Comer, ...], seed: int, week: int
    ) -> Iterator[tuple[int, dict[int, int]]]:
        """Every second of every strap; one of them fails on some evenings."""
        worn = [one for one in comers if not one.effort_only]
        failed = self.chance.choice(worn).id if week % 3 == 1 else None
        lines = {one.id: self._line(frozen, told, one, seed) for one in worn}
        if failed is not None:
            lines[failed] = [*lines[failed][:600], *[0] * (len(lines[failed]) - 600)]
        begun = told.started_ms or 0
        for second in range(min(map(len, lines.values()))):
            yield begun + second * 1000, {who: line[second] for who, line in lines.items()}

    def _line(self, frozen: Frozen, told: Class, comer: Comer, seed: int) -> list[int]:
        """One heart through a class, second by second."""
        strap = SimulatedStrap(comer, seed)
        state, line, noise = settled(STANDING), [float(comer.rest + 8)], 0.0
        stopped = told.stopped.get(comer.id)
        for lap in told.laps:
            sits = stopped is not None and stopped <= lap.from_ms
            asked = (
                STANDING
                if sits
                else interval_demand(frozen.session, frozen.timeline.intervals[lap.interval])
            )
            seconds = max(1, round((lap.to_ms - lap.from_ms) / 1000))
            for nth in range(0, seconds, EVERY_S):
                length = min(EVERY_S, seconds - nth)
                state = self._on(strap, state, asked, length)
                there = beats(strap.body, state)
                before = line[-1]
                line += [before + (there - before) * (one + 1) / length for one in range(length)]
        late = [line[0]] * round(strap.body.delay)  # what is read lags behind what is
        noisy = []
        for bpm in (*late, *line[: len(line) - len(late)]):
            noise = 0.85 * noise + self.chance.gauss(0, 0.9)
            noisy.append(round(bpm + noise))
        return noisy

    @staticmethod
    def _on(strap: SimulatedStrap, state: BodyState, asked: float, seconds: float) -> BodyState:
        return step(strap.body, state, asked, seconds)


class _Sayer:
    """Makes events at so many seconds after a class's start."""

    def __init__(self, start_ms: int) -> None:
        self.start_ms, self.nth = start_ms, 0

    def at(self, second: float, kind: str, **fields: object) -> Event:
        """The next event."""
        self.nth += 1
        at_ms = self.start_ms + round(second * 1000)
        return checked(Event, {"id": f"season-{self.nth}", "kind": kind, "at_ms": at_ms, **fields})


def run(frozen: Frozen, comers: tuple[Comer, ...], opened_ms: int, events: list[Event]) -> Class:
    """The account of a class that was run to its end."""
    runners = [Runner(str(one.id), letter(one.group)) for one in comers]
    fold = Fold(frozen.plan(), runners)
    for event in events:
        fold.take(happening(event, opened_ms))
    return account(fold.at(fold.state.now_s + 9000), frozen, opened_ms)
