"""Times as coaches say and write them: whole seconds inside, m:ss outside.

One place turns figures into words, so that every screen, file and command reads alike.
"""

from math import isclose

HOUR = 3600


def clock(seconds: float) -> str:
    """Write seconds as ``m:ss``, or ``h:mm:ss`` from an hour on; negative times carry a minus.

    >>> clock(90), clock(4), clock(3725), clock(-30)
    ('1:30', '0:04', '1:02:05', '-0:30')
    """
    whole = round(abs(seconds))
    sign = "-" if seconds < 0 and whole else ""
    hours, left = divmod(whole, HOUR)
    if hours:
        return f"{sign}{hours}:{left // 60:02d}:{left % 60:02d}"
    return f"{sign}{left // 60}:{left % 60:02d}"


def minutes(seconds: float) -> str:
    """Write seconds as minutes and seconds, however many: ``75:00`` rather than ``1:15:00``.

    >>> minutes(4500), minutes(2610)
    ('75:00', '43:30')
    """
    whole = round(seconds)
    return f"{whole // 60}:{whole % 60:02d}"


def read_clock(text: str) -> int:
    """Seconds of ``m:ss`` or ``h:mm:ss``.

    >>> read_clock("1:30"), read_clock("1:02:05")
    (90, 3725)
    """
    total = 0
    for part in text.split(":"):
        total = total * 60 + int(part)
    return total


def number(value: float) -> str:
    """Write a number without a tail of zeros.

    >>> number(8.0), number(8.5)
    ('8', '8.5')
    """
    return (
        str(round(value))
        if isclose(value, round(value), abs_tol=1e-9)
        else f"{value:.3f}".rstrip("0")
    )


def ratio(work_s: float, rest_s: float) -> str:
    """Work to rest in the smallest sayable numbers, ``2 : 1`` or ``1 : 2.3``.

    >>> ratio(40, 20), ratio(30, 70), ratio(45, 15), ratio(60, 0), ratio(90, 60)
    ('2 : 1', '3 : 7', '3 : 1', 'all work', '3 : 2')
    """
    if not rest_s:
        return "all work"
    if not work_s:
        return "all rest"
    for small in range(1, 5):
        if work_s >= rest_s and isclose(
            work_s * small / rest_s, round(work_s * small / rest_s), abs_tol=0.02
        ):
            return f"{round(work_s * small / rest_s)} : {small}"
        if rest_s > work_s and isclose(
            rest_s * small / work_s, round(rest_s * small / work_s), abs_tol=0.02
        ):
            return f"{small} : {round(rest_s * small / work_s)}"
    if work_s >= rest_s:
        return f"{number(round(work_s / rest_s, 1))} : 1"
    return f"1 : {number(round(rest_s / work_s, 1))}"
