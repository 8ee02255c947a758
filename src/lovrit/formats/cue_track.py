"""The cue track: a class's cues as a sound file (44.1 kHz, mono, 16 bit; FLAC or WAV), for any loudspeaker.

Kinds are told apart by their rhythm first, and by pitch besides: three short, one long, two falling.
"""

import io
import struct
from collections.abc import Iterator
from functools import cache
from math import exp, pi, sin
from typing import Literal

from lovrit.core.run.classplan import ClassPlan, class_plan
from lovrit.core.run.cues import COUNT_IN, Cue, cues
from lovrit.core.timeline.plan import Plan

RATE = 44_100
LOUD = 0.55
LEAD_S = len(COUNT_IN) + 1.0  # silence and the count before the first second
TAIL_S = 2.0
# kind: tones as (seconds from the cue, seconds long, Hz)
TONES: dict[str, tuple[tuple[float, float, float], ...]] = {
    "count": ((0.0, 0.12, 660.0),),
    "go": ((0.0, 0.7, 880.0),),
    "rest": ((0.0, 0.22, 440.0), (0.26, 0.34, 330.0)),
    "half": ((0.0, 0.09, 700.0), (0.16, 0.09, 700.0)),
    "ten": ((0.0, 0.06, 780.0), (0.1, 0.06, 780.0), (0.2, 0.06, 780.0)),
    "last": ((0.0, 0.07, 520.0),),
    "side": ((0.0, 0.12, 500.0), (0.16, 0.2, 750.0)),
    "part": ((0.0, 0.12, 500.0), (0.16, 0.2, 750.0)),
    "next": ((0.0, 0.05, 300.0),),
    "click": ((0.0, 0.02, 1500.0),),
    "end": ((0.0, 0.5, 660.0), (0.6, 0.5, 660.0), (1.2, 0.7, 880.0)),
}


def to_wav(plan: Plan) -> bytes:
    """The cue track of a session: it begins with the count, ``LEAD_S`` seconds before the first block."""
    return track_of(class_plan(plan.session, plan.library), "WAV")


def to_flac(plan: Plan) -> bytes:
    """The same without loss and some fifty times smaller, as most of it is silence."""
    return track_of(class_plan(plan.session, plan.library))


def track_of(plan: ClassPlan, form: Literal["FLAC", "WAV"] = "FLAC") -> bytes:
    """The cue track of a class as it is run."""
    from soundfile import SoundFile

    made = io.BytesIO()
    with SoundFile(made, "w", RATE, 1, "PCM_16", format=form) as track:
        for chunk in frames(cues(plan)):
            track.buffer_write(chunk, "int16")
    return made.getvalue()


def frames(given: tuple[Cue, ...]) -> Iterator[bytes]:
    """The track in chunks: silence up to a cue, then the cue, cut where the next one begins."""
    sounds = [
        (round((cue.at_s + LEAD_S) * RATE), sound(cue.kind)) for cue in given if cue.kind in TONES
    ]
    at = 0
    for nth, (begins, samples) in enumerate(sounds):
        ends = sounds[nth + 1][0] if nth + 1 < len(sounds) else begins + round(TAIL_S * RATE)
        yield bytes(2 * max(0, begins - at))
        at = max(at, begins)
        room = max(0, ends - at)
        yield samples[: 2 * room]
        at += min(room, len(samples) // 2)
    yield bytes(2 * round(0.2 * RATE))


@cache
def sound(kind: str) -> bytes:
    """The samples of one kind of cue."""
    tones = TONES[kind]
    length = max(start + seconds for start, seconds, _ in tones)
    values = [0.0] * (round(length * RATE) + 1)
    for start, seconds, hertz in tones:
        first, count = round(start * RATE), round(seconds * RATE)
        for nth in range(count):
            fade = min(1.0, nth / 90, (count - nth) / 400) * exp(-1.5 * nth / count)
            values[first + nth] += LOUD * fade * sin(2 * pi * hertz * nth / RATE)
    return struct.pack(
        f"<{len(values)}h", *(round(32_767 * max(-1.0, min(1.0, one))) for one in values)
    )
