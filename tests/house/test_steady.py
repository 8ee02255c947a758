"""The clock of classes goes on whatever is done to the machine's."""

from hypothesis import given
from hypothesis import strategies as st

from lovrit.house.steady import MOST_APART_MS, SteadyClock

LEAPS = st.sampled_from([0, 300, -300, 3_600_000, -3_600_000, 86_400_000, MOST_APART_MS])


class Machine:
    def __init__(self) -> None:
        self.wall, self.forward = 1_800_000_000_000, 5_000

    def clock(self) -> SteadyClock:
        return SteadyClock(lambda: self.wall, lambda: self.forward)


@given(st.lists(st.tuples(st.integers(0, 5000), LEAPS), min_size=1, max_size=12))
def test_while_a_class_is_on_time_goes_on_as_it_passes(steps: list[tuple[int, int]]) -> None:
    machine = Machine()
    clock = machine.clock()
    clock.busy = lambda: True
    for passed, leap in steps:
        before = clock()
        machine.forward += passed
        machine.wall += passed + leap
        assert passed <= clock() - before <= passed + MOST_APART_MS


def test_where_nothing_is_on_the_machine_is_believed() -> None:
    machine = Machine()
    clock = machine.clock()
    machine.wall -= 3_600_000
    assert clock() == machine.wall
    clock.busy = lambda: True
    machine.wall += 7_200_000
    assert clock() == machine.wall - 7_200_000
    clock.busy = lambda: False
    assert clock() == machine.wall
