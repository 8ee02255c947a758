"""Every word that the pages say, page by page, from the templates: to be read aloud before and after a change."""

import re
import sys
from pathlib import Path

WEB = Path(__file__).parent.parent / "src" / "lovrit" / "web"
CODE = re.compile(r"\{%.*?%\}|\{#.*?#\}", re.DOTALL)
FIGURE = re.compile(r"\{\{.*?\}\}", re.DOTALL)
SAID_IN = re.compile(r"\b(?:aria-label|placeholder|title|alt)=\"([^\"]+)\"")
TAG = re.compile(r"<(?:script|style).*?</(?:script|style)>|<[^>]*>", re.DOTALL)


def said(template: str) -> list[str]:
    """The sentences and labels of a template, each once, figures as “…”."""
    text = FIGURE.sub("…", CODE.sub("\n", template))
    found = SAID_IN.findall(text) + TAG.sub("\n", text).splitlines()
    lines = (" ".join(one.replace("&#10;", " / ").split()) for one in found)
    return list(dict.fromkeys(one for one in lines if re.search(r"[a-zA-Z]{2}", one)))


def main() -> None:
    """Print them, a screen at a time."""
    for path in sorted(WEB.glob("*/templates/*/*.html")):
        lines = said(path.read_text("utf-8"))
        if lines:
            sys.stdout.write(f"\n{path.parent.name}/{path.stem}\n")
            sys.stdout.writelines(f"  {line}\n" for line in lines)


if __name__ == "__main__":
    main()
