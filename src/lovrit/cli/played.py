"""Straps that are played: a program of its own that tells a Lovrit hearts over its door, as a device outside would."""

import time
from argparse import Namespace
from collections.abc import Callable
from pathlib import Path
from random import Random
from typing import Any

from lovrit.cli.given import UNREADABLE, Ended, print_text

STANDING = 0.12
FAULTS = ("drops", "slips", "per cent", "doubled", "steps", "late", "flat battery")
SHAKES_EVERY_S, TIMEOUT_S, SECOND_MS = 40, 5.0, 1000
MOST_PEOPLE = 100


class Door:
    """Where the readings go: the address of a Lovrit, and the key where it asks for one."""

    def __init__(self, address: str, key: str) -> None:
        import httpx

        self._address = address
        headers = {"authorization": f"Bearer {key}"} if key else {}
        try:
            self._client = httpx.Client(base_url=address, headers=headers, timeout=TIMEOUT_S)
        except (httpx.InvalidURL, ValueError):
            raise Ended(
                UNREADABLE, f"“{address}” is no address; write http://127.0.0.1:8484."
            ) from None

    def asked(self) -> dict[str, float]:
        """What people are asked for by now (share of reserve), by their number."""
        told = self._answer("GET", None)
        return {str(who): float(share) for who, share in told.get("people", {}).items()}

    def tell(self, readings: list[dict[str, Any]]) -> int:
        """Tell readings; how many were taken."""
        return int(self._answer("POST", {"straps": readings}).get("taken", 0))

    def _answer(self, method: str, body: dict[str, Any] | None) -> dict[str, Any]:
        import httpx

        path = "/straps/beats" if method == "POST" else "/straps/beats/asked"
        try:
            answer = self._client.request(method, path, json=body)
        except httpx.HTTPError:
            raise Ended(
                UNREADABLE, f"Nothing answers at {self._address}; is Lovrit running there?"
            ) from None
        if answer.status_code == 401:
            raise Ended(UNREADABLE, "It asks for the straps’ key: --key, from the page Straps.")
        if answer.status_code != 200:
            raise Ended(
                UNREADABLE, f"{self._address} doesn’t take it: it answers {answer.status_code}."
            )
        told: dict[str, Any] = answer.json()
        return told


def straps(asked: Namespace) -> int:
    """Play straps, or replay a file of readings, to a Lovrit that runs; until it is stopped."""
    door = Door(asked.to, asked.key or "")
    if asked.replay:
        return _replay(door, Path(asked.replay), float(asked.speed), _pause)
    try:
        people, seed, last = int(asked.people), int(asked.seed), float(asked.seconds or "inf")
    except ValueError:
        raise Ended(UNREADABLE, "People, seed and seconds are whole numbers.") from None
    if not 1 <= people <= MOST_PEOPLE:
        raise Ended(UNREADABLE, f"From 1 to {MOST_PEOPLE} people.")
    return _play(door, Played(people, seed, asked.faults, _names(asked.swap)), last, _pause)


def _names(said: str | None) -> tuple[str, ...]:
    names = tuple(one.strip() for one in (said or "").split(",") if one.strip())
    if names and len(names) != 2:
        raise Ended(UNREADABLE, "Two straps are swapped, such as S02,S05.")
    return names


def _pause(seconds: float) -> None:
    time.sleep(max(0.0, seconds))


class Played:
    """So many straps with hearts of their own; one in four has a fault where ``faults`` are wanted.

    Two that are ``swapped`` tell each other's hearts.
    """

    def __init__(self, people: int, seed: int, faults: bool, swapped: tuple[str, ...] = ()) -> None:
        from lovrit.core.crew.person import Person
        from lovrit.straps.simulated import SimulatedStrap

        chance = Random(seed)
        kinds = [
            FAULTS[nth // 4 % len(FAULTS)] if faults and nth % 4 == 1 else "steady"
            for nth in range(people)
        ]
        self.names = [f"S{nth:02}" for nth in range(1, people + 1)]
        self._told_as = {name: name for name in self.names}
        if len(swapped) == 2 and set(swapped) <= set(self.names):
            self._told_as |= {swapped[0]: swapped[1], swapped[1]: swapped[0]}
        self._straps = [
            SimulatedStrap(
                Person(
                    id=nth, name="", initials="", rest_hr=chance.randint(50, 72),
                    max_hr=chance.randint(172, 198), strap=kind,
                ),
                seed,
            )
            for nth, kind in enumerate(kinds, 1)
        ]  # fmt: skip
        self._at = 0

    def second(self, asked: dict[str, float], at_ms: int) -> list[dict[str, Any]]:
        """One more second of all: who is asked for what goes by the number in the club, in the straps' order."""
        numbers = sorted(asked, key=int)
        readings = []
        for nth, (name, strap) in enumerate(zip(self.names, self._straps, strict=True)):
            demand = asked[numbers[nth]] if nth < len(numbers) else STANDING
            bpm = strap.second(demand)
            one = {
                "id": self._told_as[name],
                "bpm": bpm,
                "at_ms": at_ms,
                "contact": bpm > 0,
                "battery": strap.player.battery,
            }
            if (
                self._at
                and self._at % SHAKES_EVERY_S == 0
                and self._at // SHAKES_EVERY_S % len(self.names) == nth
            ):
                one["shaken"] = True
            readings.append(one)
        self._at += 1
        return readings


def _play(door: Door, played: Played, last: float, pause: Callable[[float], None]) -> int:
    begun, nth, taken = time.time(), 0, 0
    print_text(
        f"{len(played.names)} straps, {played.names[0]} to {played.names[-1]}; Ctrl-C takes them off."
    )
    try:
        while nth < last:
            taken += door.tell(played.second(door.asked(), round(time.time() * SECOND_MS)))
            nth += 1
            pause(begun + nth - time.time())
    except KeyboardInterrupt:
        pass
    print_text(f"{taken} readings told in {nth} s.")
    return 0


def _replay(door: Door, path: Path, speed: float, pause: Callable[[float], None]) -> int:
    """Tell what a file holds, each person's trace as a strap of their name, so many times as quickly as it was."""
    import numpy as np

    from lovrit.formats.trace_kinds import read_any
    from lovrit.formats.trace_reader import NotATrace

    if not speed > 0:
        raise Ended(
            UNREADABLE, "The speed is above nothing: 1 is as it was, 10 ten times as quick."
        )
    try:
        traces = read_any(path.read_bytes(), "UTC")
    except OSError:
        raise Ended(UNREADABLE, f"{path.name} can’t be read.") from None
    except NotATrace as error:
        raise Ended(UNREADABLE, str(error)) from None
    first = min(one.begins_s for one in traces)
    length = max(round(one.begins_s - first) + len(one.beats) for one in traces)
    begun, taken = time.time(), 0
    for second in range(length):
        readings: list[dict[str, Any]] = []
        for nth, one in enumerate(traces, 1):
            at = second - round(one.begins_s - first)
            if 0 <= at < len(one.beats) and not np.isnan(one.beats[at]):
                name = one.name or f"replay-{nth}"
                readings.append(
                    {
                        "id": name,
                        "bpm": round(float(one.beats[at])),
                        "at_ms": round(time.time() * SECOND_MS),
                    }
                )
        taken += door.tell(readings) if readings else 0
        pause(begun + (second + 1) / speed - time.time())
    print_text(f"{taken} readings told in {length / speed:.0f} s.")
    return 0
