"""Links that Lovrit signed: whoever holds one has the page, without a passphrase; and the short code of a class."""

import hmac
from hashlib import sha256

import segno
from itsdangerous import BadSignature, URLSafeSerializer

from lovrit.house.house import House
from lovrit.store import club
from lovrit.store.sessions import Gone

LETTERS = "BCDFGHJKMNPRSTVWXZ"  # no vowels, so no words; none that is taken for another
CODE_LENGTH = 4
AFTER_MS = 24 * 3_600_000


def link(house: House, kind: str, *numbers: int) -> str:
    """Where a page is whose link says what it shows: of the hand of somebody, of a screen in the hall."""
    return f"/{kind}/{_signer(house, kind).dumps(list(numbers))}"


def numbers_of(house: House, kind: str, token: str) -> list[int]:
    """What a link was made for.

    Raises:
        Gone: if Lovrit didn't make it.
    """
    try:
        return [int(one) for one in _signer(house, kind).loads(token)]
    except (BadSignature, ValueError, TypeError):
        raise Gone("This link is not one that Lovrit gave. Ask your coach for a new one.") from None


def still_open(house: House, over_ms: int | None) -> None:
    """Links into a class end a day after it is over: what stands there is for those who were in it, that evening.

    Raises:
        Gone: if it was over for a day.
    """
    if over_ms is not None and house.now_ms() - over_ms > AFTER_MS:
        raise Gone("This link ended a day after its class. Ask your coach, or open your own page.")


def _signer(house: House, kind: str) -> URLSafeSerializer:
    return URLSafeSerializer(house.secret, salt=kind)


def picture_of(url: str) -> str:
    """A code that a phone reads an address from, as an image's address."""
    return str(segno.make(url, error="m").svg_data_uri(scale=3, border=2))


class ClassLinks:
    """Links into one class, as they hold by now: each ends by itself with a press, or all of them at once."""

    def __init__(self, house: House, class_id: int) -> None:
        self._house, self._class = house, class_id
        with house.database.work() as work:
            self._ended = club.class_links(work, class_id)

    def to(self, kind: str, number: int) -> str:
        """Where a screen (``screen``, 0 for the wall) or somebody's own page (``hand``) is."""
        ended = self._ended_of(kind, number)
        return link(self._house, kind, self._class, number, *([ended] if ended else []))

    @property
    def code(self) -> str:
        """Four letters that a screen in the hall is joined by."""
        return code_of(self._house, self._class, self._ended_of("screen", 0))

    def holds(self, kind: str, number: int, ended: int) -> bool:
        """Whether a link that was made after so many endings still opens."""
        return ended == self._ended_of(kind, number)

    def _ended_of(self, kind: str, number: int) -> int:
        return self._ended.get("all", 0) + self._ended.get(f"{kind}-{number}", 0)


def into_class(house: House, kind: str, token: str) -> tuple[int, int]:
    """The class of a link, and whose or which screen's it is.

    Raises:
        Gone: if Lovrit didn't make it, or somebody ended it.
    """
    class_id, number, ended = [*numbers_of(house, kind, token), 0][:3]
    if not ClassLinks(house, class_id).holds(kind, number, ended):
        raise Gone("This link was ended. Ask your coach for the new one.")
    return class_id, number


def code_of(house: House, class_id: int, ended: int = 0) -> str:
    """Four letters of a class, in this house."""
    said = f"join {class_id}" + (f" {ended}" if ended else "")
    digest = hmac.new(house.secret.encode(), said.encode(), sha256).digest()
    return "".join(LETTERS[byte % len(LETTERS)] for byte in digest[:CODE_LENGTH])
