"""Every setting in one place, read from the environment as LOVRIT_… ."""

from ipaddress import ip_address
from pathlib import Path
from zoneinfo import ZoneInfo

from pydantic import Field, SecretStr
from pydantic_settings import BaseSettings, SettingsConfigDict

from lovrit.core.values import LovritError

LEAST_PASSPHRASE = 10


class NoZone(LovritError):
    """A time zone that isn't one."""


def known_zone(name: str) -> str:
    """A time zone's name.

    Raises:
        NoZone: if there is none of this name.
    """
    try:
        return ZoneInfo(name).key
    except (KeyError, ValueError, OSError):
        raise NoZone(f"There is no time zone “{name}”; write one such as Europe/Berlin.") from None


class Settings(BaseSettings):
    """Where Lovrit listens, where it keeps its data, and what it asks for when it isn't on loopback.

    ``simulated`` is whether people wear straps that Lovrit plays itself, as in the sample club; elsewhere a strap tells
    from outside or not at all. ``season`` is whether the sample club comes with classes that were; ``hosts`` are more
    names that it may be called by, where it stands behind something that answers for it, and ``proxies`` the addresses
    from which that something may say who asks and whether over TLS. ``copies`` is the folder
    of the nightly copies, within ``data`` or anywhere else; empty where none is wanted.
    """

    model_config = SettingsConfigDict(env_prefix="LOVRIT_", extra="ignore")

    host: str = "127.0.0.1"
    port: int = Field(default=8484, ge=1, le=65_535)
    data: Path = Path("data")
    passphrase: SecretStr | None = None
    log_json: bool = False
    straps: bool = True
    simulated: bool = True
    season: bool = True
    time_zone: str = "Europe/Berlin"
    hosts: tuple[str, ...] = ()
    proxies: tuple[str, ...] = ("127.0.0.1", "::1")
    copies: str = "copies"

    @property
    def copies_in(self) -> Path | None:
        """Where a copy of the club's file is kept each night; None where none is wanted."""
        return self.data / self.copies if self.copies else None

    @property
    def database(self) -> Path:
        """The file that everything is kept in."""
        return self.data / "lovrit.sqlite"

    @property
    def loopback(self) -> bool:
        """Whether only this machine can reach the pages."""
        if self.host == "localhost":
            return True
        try:
            return ip_address(self.host).is_loopback
        except ValueError:
            return False
