#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Checks docs/screenshots: one picture for each main view, none above 1 MiB, fewer than 20, all linked from the README."""
import pathlib
import sys

VIEWS = ["desk", "look", "positions", "measure", "judge", "say", "prescribe", "send", "letters", "film", "post", "juxta", "log", "playbook", "ghost", "hand", "pair", "curves", "group"]


def problems(root):
    folder = root / "docs" / "screenshots"
    pictures = sorted(folder.glob("*.png"))
    readme = (root / "README.md").read_text(encoding="utf-8")
    for view in VIEWS:
        if not (folder / f"{view}.png").is_file():
            yield f"docs/screenshots/{view}.png is missing: run ./run shots"
    for picture in pictures:
        if picture.stem not in VIEWS:
            yield f"{picture.name} belongs to no main view"
        if picture.stat().st_size > 1 << 20:
            yield f"{picture.name} is larger than 1 MiB"
        if picture.name not in readme:
            yield f"{picture.name} is not linked from the README"
    if len(pictures) >= 20:
        yield "there are 20 pictures or more"


if __name__ == "__main__":
    found = list(problems(pathlib.Path(".")))
    print("\n".join(found) if found else "screenshots: one for each main view")
    sys.exit(1 if found else 0)
