#!/usr/bin/env python3
"""Checks that every test and file that docs/security.md names as the holder of a promise is there. Exits 1 when one is not."""
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


if __name__ == "__main__":
    found = unheld(pathlib.Path(sys.argv[1] if len(sys.argv) > 1 else "."))
    print("\n".join(found) if found else "promises: each has its tests")
    sys.exit(1 if found else 0)
