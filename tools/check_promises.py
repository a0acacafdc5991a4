#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Checks that every test and file that docs/security.md names as the holder of a promise is there, and every file that
ARCHITECTURE.md, CONTRIBUTING.md and docs name. Exits 1 when one is not."""
import fnmatch
import pathlib
import re
import sys

TEST = re.compile(r"^\s*TEST(?:_F|_P)?\(\s*(\w+)\s*,\s*(\w+)\s*\)", re.MULTILINE)


def tests(root):
    found = set()
    for path in sorted((root / "tests").rglob("*.cpp")):
        found |= {f"{suite}.{name}" for suite, name in TEST.findall(path.read_text(encoding="utf-8"))}
    return found


def unheld(root):
    known = tests(root)
    suites = {name.split(".")[0] for name in known}
    lost = []
    for number, line in enumerate((root / "docs/security.md").read_text(encoding="utf-8").splitlines(), 1):
        cells = line.strip().strip("|").split("|")
        if not line.startswith("|") or len(cells) != 2 or cells[0].strip() in ("promise", "---"):
            continue
        holders = re.findall(r"`([^`]+)`", cells[1])
        if not holders:
            lost.append(f"docs/security.md:{number}: nothing holds this promise")
        for holder in holders:
            there = (holder in suites or any(fnmatch.fnmatch(name, holder) for name in known)
                     or "/" in holder and (root / holder).exists())
            if not there:
                lost.append(f"docs/security.md:{number}: no test is called {holder}")
    return lost


NAMED = re.compile(r"`((?:[a-z_0-9.-]+/)+[a-z_0-9-]+\.(?:h|cpp|py|json|md))`")


def lost_files(root):
    """Files that a page names and that are nowhere; a path may begin in src."""
    pages = [root / "ARCHITECTURE.md", root / "CONTRIBUTING.md", root / "README.md", *sorted((root / "docs").glob("*.md"))]
    lost = []
    for page in pages:
        for number, line in enumerate(page.read_text(encoding="utf-8").splitlines(), 1):
            for name in NAMED.findall(line):
                if not any((root / place / name).exists() for place in ("", "src")):
                    lost.append(f"{page.relative_to(root)}:{number}: there is no {name}")
    return lost


if __name__ == "__main__":
    tree = pathlib.Path(sys.argv[1] if len(sys.argv) > 1 else ".")
    found = unheld(tree) + lost_files(tree)
    print("\n".join(found) if found else "promises: each has its tests; every file that a page names is there")
    sys.exit(1 if found else 0)
