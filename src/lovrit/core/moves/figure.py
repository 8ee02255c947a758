"""Drawings of moves: a plain figure in two positions, from joint angles kept as data (figures.toml).

Angles are degrees as on a protractor seen from the side, the figure facing right: 0 points ahead, 90 up, 180 back and
-90 down. Lengths are shares of body height, from the segment lengths of Drillis and Contini (1966), rounded.
"""

import tomllib
from collections.abc import Iterable
from functools import cache
from importlib.resources import files
from math import cos, radians, sin
from typing import Annotated, Any, Literal, NamedTuple

from pydantic import Field

from lovrit.core.moves.names import key_of
from lovrit.core.values import Value, checked

TORSO, HEAD, UPPER, FORE, THIGH, SHIN, FOOT = 0.30, 0.07, 0.19, 0.17, 0.245, 0.245, 0.09
SHOULDER = 0.93
Angle = Annotated[float, Field(ge=-360, le=360)]
What = Literal[
    "bell",
    "bar",
    "ball",
    "band",
    "rings",
    "bench",
    "box",
    "bag",
    "plate",
    "rope",
    "wall",
    "rail",
    "seat",
]


class Pose(Value):
    """One position. ``arms`` and ``legs`` are upper and lower limb, and then the far ones where they differ."""

    torso: Angle = 90
    arms: Annotated[tuple[Angle, ...], Field(min_length=2, max_length=4)] = (-90, -90)
    legs: Annotated[tuple[Angle, ...], Field(min_length=2, max_length=4)] = (-90, -90)
    head: Angle | None = None
    feet: Angle | None = None
    lift: Annotated[float, Field(ge=0, le=1)] = 0


class Prop(Value):
    """Kit in a drawing: in the hands, or standing ``under`` a joint; ``high`` as a share of body height."""

    what: What
    under: Literal["hand", "foot", "seat"] = "hand"
    high: Annotated[float, Field(ge=0, le=2)] = 0


class Drawing(Value):
    """A move drawn: where it starts and where it goes, and the kit that is seen."""

    start: Pose
    end: Pose
    props: tuple[Prop, ...] = ()


class Point(NamedTuple):
    """A place, in shares of body height; x ahead, y up from the floor."""

    x: float
    y: float


class Limb(NamedTuple):
    """A limb as a line through its joints; ``far`` where it is on the far side."""

    joints: tuple[Point, ...]
    far: bool


class Posture(NamedTuple):
    """A position as lines: limbs, the head's middle, hands, near foot and hip, and how far it reaches."""

    limbs: tuple[Limb, ...]
    head: Point
    hands: tuple[Point, ...]
    foot: Point
    seat: Point
    right: float
    top: float


def _from(start: Point, angle: float, length: float) -> Point:
    return Point(start.x + length * cos(radians(angle)), start.y + length * sin(radians(angle)))


def _chain(start: Point, parts: Iterable[tuple[float, float]]) -> tuple[Point, ...]:
    joints = [start]
    for angle, length in parts:
        joints.append(_from(joints[-1], angle, length))
    return tuple(joints)


def _leg(hip: Point, thigh: float, shin: float, feet: float | None) -> tuple[Point, ...]:
    foot = shin + 90 if feet is None else feet
    return _chain(hip, ((thigh, THIGH), (shin, SHIN), (foot, FOOT)))


def figure(pose: Pose) -> Posture:
    """Joints of a position by forward kinematics; the lowest of them stands on the floor, or ``lift`` above it."""
    hip = Point(0, 0)
    neck = _from(hip, pose.torso, TORSO)
    shoulder = _from(hip, pose.torso, TORSO * SHOULDER)
    head = _from(neck, pose.torso if pose.head is None else pose.head, HEAD * 1.25)
    arms = [pose.arms[at : at + 2] for at in range(0, len(pose.arms), 2)]
    legs = [pose.legs[at : at + 2] for at in range(0, len(pose.legs), 2)]
    limbs = [
        Limb(_leg(hip, thigh, shin, pose.feet), nth > 0) for nth, (thigh, shin) in enumerate(legs)
    ]
    limbs += [
        Limb(_chain(shoulder, ((up, UPPER), (fore, FORE))), nth > 0)
        for nth, (up, fore) in enumerate(arms)
    ]
    limbs.append(Limb((hip, neck), False))
    return _on_the_floor(
        limbs, head, [limb.joints[-1] for limb in limbs[len(legs) : -1]], pose.lift
    )


def _on_the_floor(limbs: list[Limb], head: Point, hands: list[Point], lift: float) -> Posture:
    points = [point for limb in limbs for point in limb.joints]
    down = min([head.y - HEAD, *(point.y for point in points)]) - lift
    left = min([head.x - HEAD, *(point.x for point in points)])
    right = max([head.x + HEAD, *(point.x for point in points)])

    def at(point: Point) -> Point:
        return Point(point.x - left, point.y - down)

    return Posture(
        limbs=tuple(Limb(tuple(at(point) for point in limb.joints), limb.far) for limb in limbs),
        head=at(head),
        hands=tuple(at(hand) for hand in hands),
        foot=at(limbs[0].joints[-2]),
        seat=at(limbs[0].joints[0]),
        right=right - left,
        top=max([head.y + HEAD, *(point.y for point in points)]) - down,
    )


@cache
def drawings() -> dict[str, Drawing]:
    """The drawings that ship with Lovrit, by the key of the move's name."""
    data = tomllib.loads(files("lovrit.core.moves").joinpath("figures.toml").read_text("utf-8"))
    return {key_of(name): checked(Drawing, _whole(name, data)) for name in data}


def _whole(name: str, data: dict[str, Any]) -> dict[str, Any]:
    """A drawing's fields; one that says it is like another has the other's, but for what it says itself."""
    own = dict(data[name])
    base = own.pop("like", None)
    if base is None:
        return own
    like = _whole(base, data)
    poses = {end: like[end] | own.get(end, {}) for end in ("start", "end")}
    return like | own | poses
