"""The payload of the standard Bluetooth heart-rate measurement (characteristic 0x2A37), read by one pure function.

As the public specification has it: a byte of flags; the beats in 8 or 16 bits; where the flags say so the energy spent
(kilojoules, 16 bits) and the intervals between beats (16 bits each, in 1/1024 s). All is little-endian.
"""

from typing import NamedTuple

from lovrit.core.values import LovritError

WIDE, CONTACT, CONTACT_KNOWN, ENERGY, INTERVALS = 0x01, 0x02, 0x04, 0x08, 0x10
PER_SECOND = 1024


class NotAMeasurement(LovritError):
    """Bytes that are no heart-rate measurement."""


class Measurement(NamedTuple):
    """Beats a minute; whether there is skin contact (None where it can't tell); kilojoules; seconds between beats."""

    bpm: int
    contact: bool | None = None
    energy_kj: int | None = None
    rr_s: tuple[float, ...] = ()


def read_measurement(payload: bytes) -> Measurement:
    """A measurement from its bytes; bytes beyond what the flags announce are not read.

    Raises:
        NotAMeasurement: where there are fewer bytes than the flags announce.
    """
    if not payload:
        raise NotAMeasurement("There is nothing in this measurement.")
    flags, at = payload[0], 1
    bpm, at = _number(payload, at, 2 if flags & WIDE else 1)
    energy: int | None = None
    if flags & ENERGY:
        energy, at = _number(payload, at, 2)
    rr: list[float] = []
    while flags & INTERVALS and at + 2 <= len(payload):
        raw, at = _number(payload, at, 2)
        rr.append(raw / PER_SECOND)
    contact = bool(flags & CONTACT) if flags & CONTACT_KNOWN else None
    return Measurement(bpm, contact, energy, tuple(rr))


def _number(payload: bytes, at: int, size: int) -> tuple[int, int]:
    if at + size > len(payload):
        raise NotAMeasurement("This measurement is cut off.")
    return int.from_bytes(payload[at : at + size], "little"), at + size
