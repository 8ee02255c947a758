"""Beats are pushed by sources in any order; what stands by now is the last, until it is stale."""

from hypothesis import given
from hypothesis import strategies as st

from lovrit.straps.source import STALE_MS, Beat, Readings

BEATS = st.lists(
    st.builds(Beat, st.integers(1, 3), st.integers(0, 20_000), st.integers(0, 220)), max_size=30
)


@given(BEATS, st.randoms(), st.integers(0, 40_000))
def test_the_last_reading_stands_whatever_the_order(
    beats: list[Beat], chance: object, at_ms: int
) -> None:
    unique = list({(one.person, one.at_ms): one for one in beats}.values())
    one, two = Readings(), Readings()
    for beat in unique:
        one.push(beat)
    chance.shuffle(unique)  # type: ignore[attr-defined]
    for beat in unique:
        two.push(beat)
    assert one.at(at_ms) == two.at(at_ms)
    for person, bpm in one.at(at_ms).items():
        last = max((beat for beat in unique if beat.person == person), key=lambda beat: beat.at_ms)
        assert bpm == (last.bpm if at_ms - last.at_ms <= STALE_MS else 0)
