"""Links that Lovrit signed: whoever holds one has the page, without a passphrase; and the short code of a class."""

import hmac
from hashlib import sha256

import segno
from itsdangerous import BadSignature, URLSafeSerializer

from lovrit.house.house import House
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


def code_of(house: House, class_id: int) -> str:
    """Four letters that a screen in the hall is joined by; of this class, in this house."""
    digest = hmac.new(house.secret.encode(), f"join {class_id}".encode(), sha256).digest()
    return "".join(LETTERS[byte % len(LETTERS)] for byte in digest[:CODE_LENGTH])
