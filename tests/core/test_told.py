"""One version of a limit: what somebody does at a line is the same whoever is asked, and no limit is passed over."""

from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.blocks.kinds import STARTS
from lovrit.core.crew.fits import at_line, cells, choices, chosen, told
from lovrit.core.crew.person import DOES_NOT, Person
from lovrit.core.moves.library import shipped
from lovrit.core.run.frozen import freeze, frozen_object, thaw
from lovrit.core.slate.line import Line
from lovrit.core.timeline.plan import plan_text
from tests.conftest import examples

MOVES = (
    "bench step-up", "plank", "box jump", "8 squat + 10 box jump", "overhead press", "burpee",
    "goblet squat | bell 16 12 8",
    "broad jump, easier step", "kettlebell swing @ 16/12/8", "hollow rock", "rope skip or side steps", "drop jump",
    "thruster @ 70%", "row @ 220 W", "250 m row @ 2:05/500 m", "5 back squat @ 75-80%",
    "swing @ 35 lb", "10 tuck jump", "push-up", "bear crawl", "wall sit", "zorb hop", "overhead zorb",
)  # fmt: skip


@st.composite
def people(draw: st.DrawFn) -> Person:
    limits = draw(st.lists(st.sampled_from(tuple(DOES_NOT)), unique=True, max_size=4))
    return Person(
        id=1, name="Nia", initials="NI", limits=tuple(limits), age=draw(st.sampled_from([None, 22, 70])),
        standing=draw(st.sampled_from(["usual", "new", "back"])), bests=draw(st.sampled_from([{}, {"thruster": 60.0}])),
    )  # fmt: skip


def sessions() -> st.SearchStrategy[str]:
    own = st.lists(st.sampled_from(MOVES), min_size=1, max_size=5, unique=True)
    rounds = own.map(lambda some: "\n  ".join(["2 rounds of 40/20 at 7", *some]))
    return st.one_of(st.sampled_from(STARTS), rounds)


def lines(text: str) -> list[Line]:
    return [
        line
        for block in plan_text(text, shipped()).session.blocks
        for line in block.moves
        if not line.is_rest
    ]


@examples(150)
@given(people(), sessions())
def test_the_floor_knows_every_way_that_the_desk_knows(person: Person, text: str) -> None:
    frozen = thaw(frozen_object(freeze(plan_text(text, shipped()))))
    for line in lines(text):
        assert told(person, line, frozen.library) == told(person, line, shipped()), line.name
        assert at_line(person, line, frozen.library) == at_line(person, line, shipped())


@examples(150)
@given(people(), sessions())
def test_no_limit_is_passed_over_in_any_task(person: Person, text: str) -> None:
    for line in lines(text):
        for own, said in zip(
            cells(person, line, shipped()), told(person, line, shipped()), strict=True
        ):
            move, way = shipped().find_way(own.does)
            asked = move.asks if move and not way else frozenset()
            assert own.open == said.endswith("ask your coach")
            assert own.open or not asked & frozenset(person.limits), own


@examples(150)
@given(people(), sessions())
def test_a_load_that_stands_on_the_line_is_told(person: Person, text: str) -> None:
    for line in lines(text):
        every = zip(
            line.tasks, cells(person, line, shipped()), told(person, line, shipped()), strict=True
        )
        for task, own, said in every:
            if task.load and not own.swapped and not own.open:
                assert own.load_said and own.load_said in said and own.load_said in own.said


@examples(100)
@given(people(), sessions())
def test_what_nobody_knows_a_way_for_can_be_chosen(person: Person, text: str) -> None:
    for line in lines(text):
        if not cells(person, line, shipped())[0].open:
            continue
        offered = choices(person, line, shipped())
        assert offered
        for name in offered:
            own = cells(chosen(person, line, shipped(), name), line, shipped())[0]
            assert (own.does, own.open) == (name, False)
