"""Writes whose work is shipped to browsers, and under which licence, to `web/dist/licences.txt`.

Every package that the front end runs with, its styles and its fonts; a package without the text of its licence stops
the build.
"""

import json
import sys
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
WEB = ROOT / "web"
STYLES = ("tailwindcss", "daisyui", "workbox-core", "workbox-precaching", "workbox-routing", "workbox-strategies",
          "workbox-expiration", "workbox-range-requests")  # fmt: skip
"""What only the build runs with, and leaves something of itself in what is shipped."""
TEXTS = ("LICENSE", "LICENSE.md", "LICENSE.txt", "LICENCE", "license", "LICENSE-MIT", "License.md", "license.md")


@dataclass(frozen=True)
class Shipped:
    name: str
    version: str
    licence: str
    text: str


def _text(folder: Path) -> str:
    found = next((folder / name for name in TEXTS if (folder / name).is_file()), None)
    return found.read_text(encoding="utf-8").strip() if found else ""


def shipped() -> Iterator[Shipped]:
    """Every package that leaves something of itself in what browsers load, by name."""
    packages = json.loads((WEB / "package-lock.json").read_text(encoding="utf-8"))["packages"]
    for path, told in sorted(packages.items()):
        name = path.rpartition("node_modules/")[2]
        types_alone = name.startswith("@types/") or name == "csstype"
        runs = path and not told.get("dev") and not told.get("optional") and not types_alone
        if (runs or name in STYLES) and (WEB / path).is_dir():
            yield Shipped(name, told["version"], told.get("license", ""), _text(WEB / path))


def page(found: list[Shipped]) -> str:
    own = (ROOT / "LICENSE").read_text(encoding="utf-8").strip()
    parts = [f"Yoisho\n\n{own}"]
    parts += [f"{each.name} {each.version} ({each.licence})\n\n{each.text}" for each in found]
    return f"\n\n{'=' * 78}\n\n".join(parts) + "\n"


def main() -> None:
    found = list(shipped())
    bare = [each.name for each in found if not each.text and each.licence not in ("MIT", "ISC", "0BSD")]
    if bare or not all(each.licence for each in found):
        sys.exit(f"It stopped: no licence is known of {', '.join(bare) or 'a package'}\nTo mend it: leave it out")
    (WEB / "dist" / "licences.txt").write_text(page(found), encoding="utf-8")


if __name__ == "__main__":
    main()
