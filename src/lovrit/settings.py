"""Every setting in one place, read from the environment as LOVRIT_… ."""

from ipaddress import ip_address
from pathlib import Path

from pydantic import Field, SecretStr
from pydantic_settings import BaseSettings, SettingsConfigDict


class Settings(BaseSettings):
    """Where Lovrit listens, where it keeps its data, and what it asks for when it isn't on loopback."""

    model_config = SettingsConfigDict(env_prefix="LOVRIT_", extra="ignore")

    host: str = "127.0.0.1"
    port: int = Field(default=8484, ge=1, le=65_535)
    data: Path = Path("data")
    passphrase: SecretStr | None = None
    log_json: bool = False
    straps: bool = True

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
