"""Lines of tests to lines of code; blank lines and comments count for neither."""

import subprocess
import sys
from pathlib import Path

CODE = (".py", ".js", ".html", ".svg", ".scss", ".lark", ".mjs")


def lines(path: Path) -> int:
    """Lines that say something."""
    found = (line.strip() for line in path.read_text("utf-8").splitlines())
    return sum(bool(line) and not line.startswith(("#", "//")) for line in found)


def main() -> None:
    """Count and print."""
    listed = subprocess.run(
        ["git", "ls-files", "src", "tests"], capture_output=True, text=True, check=True
    ).stdout
    paths = [Path(one) for one in listed.split() if one.endswith(CODE) and "/versions/" not in one]
    code = sum(lines(one) for one in paths if one.parts[0] == "src")
    tests = sum(lines(one) for one in paths if one.parts[0] == "tests")
    sys.stdout.write(f"tests {tests}, code {code}: {100 * tests / code:.0f} in 100\n")


if __name__ == "__main__":
    main()
