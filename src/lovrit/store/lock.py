"""One Lovrit a folder: two on the same file would each tick their own classes, a turn apart after seconds."""

import errno
import fcntl
import os
from pathlib import Path

from lovrit.store.trouble import CannotOpen, DiskFull, InUse


class FolderLock:
    """A folder held for this process until it ends, however it ends."""

    def __init__(self, folder: Path, said: str) -> None:
        """Take the folder; ``said`` is who we are, for whoever comes second.

        Raises:
            InUse: if another process holds it.
            CannotOpen: if the folder can't be made or written to.
        """
        try:
            folder.mkdir(parents=True, exist_ok=True)
            folder.chmod(0o700)
            self._file = os.open(folder / "lovrit.lock", os.O_RDWR | os.O_CREAT, 0o600)
        except OSError as error:
            raise (DiskFull() if error.errno == errno.ENOSPC else CannotOpen(folder)) from None
        try:
            fcntl.flock(self._file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            who = os.read(self._file, 200).decode("utf-8", "replace").strip() or "it said no more"
            os.close(self._file)
            raise InUse(folder, who) from None
        os.ftruncate(self._file, 0)
        os.pwrite(self._file, said.encode(), 0)

    def release(self) -> None:
        """Let the folder go."""
        os.close(self._file)
