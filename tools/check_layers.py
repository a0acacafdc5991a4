#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Checks that every include follows the arrows of ARCHITECTURE.md, that every folder is a room of it, and that no
modules (a header and its source) include each other in a circle. Exits 1 when one of them does not hold."""
import collections
import pathlib
import re
import sys

# What each room may look at. A room in a room comes after those below it; "review" stands for all rooms in it.
ARROWS = {
    "base": "",
    "words": "base",
    "kinematics": "base",
    "coaching": "base kinematics",
    "review/record": "base kinematics coaching",
    "review/assess": "base kinematics coaching review/record",
    "review/compare": "base kinematics coaching review/record review/assess",
    "review/tell": "base kinematics coaching review/record review/assess review/compare",
    "film": "base",
    "voice": "base",
    "library": "base kinematics coaching review",
    "letter": "base words kinematics coaching review film voice",
    "post": "base words review",
    "desk/jobs": "base words film voice library",
    "desk/keeping": "core desk/jobs",
    "desk/own": "core desk/jobs desk/keeping",
    "desk/intake": "core desk/jobs desk/keeping desk/own",
    "desk/session": "core desk/jobs desk/keeping desk/own desk/intake",
    "desk/sending": "core desk/jobs desk/keeping desk/own desk/intake desk/session",
    "desk/pages": "core desk/jobs desk/keeping desk/own desk/intake desk/session desk/sending",
    "demo/films": "base kinematics film",
    "demo/library": "core desk demo/films",
    "ui/kit": "base words letter desk/keeping",
    "ui/forms": "core desk ui/kit",
    "ui/film": "core desk ui/kit",
    "ui/bench": "core desk ui/kit ui/forms ui/film",
    "ui/stages/*": "core desk ui/kit ui/forms ui/film ui/bench",
    "ui/places/*": "core desk ui/kit ui/forms ui/film",
    "ui/places/review": "core desk ui/kit ui/forms ui/film ui/bench ui/stages",
    "ui/window": "core desk ui/kit ui/forms ui/film ui/bench ui/places",
    "apps/cli": "core desk demo",
    "apps/demo_films": "core demo/films",
    "apps/post_office": "core desk ui/kit",
    "apps/juxtagraph": "core desk ui/kit ui/window",
    "bench": "core desk demo ui tests",
    **{f"tests/{room}": "base words kinematics coaching review tests/support"
       for room in ("base", "words", "kinematics", "coaching", "review")},
    "tests": "core desk demo ui apps tests",
}
CORE = "base words kinematics coaching review film voice library letter post"
WITH_QT = ("voice", "library", "letter", "desk", "demo", "ui", "apps", "bench", "tests")
WITH_WIDGETS = ("ui", "apps/juxtagraph", "apps/post_office", "bench", "tests")
WIDGETS = re.compile(r"(QtWidgets|QWidget|QApplication|QMainWindow|QDialog|QLabel|QPushButton|Q\w*Layout|QLineEdit)\b")
INCLUDE = re.compile(r'^\s*#\s*include\s+(?:"([^"]+)"|<([^>]+)>)')


def lies_in(room, rooms):
    return any(room == r or room.startswith(r + "/") for r in rooms)


def room_of(folder):
    """The room that a folder is, by its name in ARROWS; None for one that is none."""
    if folder in ARROWS:
        return folder
    above = folder.rpartition("/")[0]
    if above + "/*" in ARROWS:
        return above + "/*"
    return folder.split("/")[0] if folder.startswith(("tests/", "bench/")) else None


def may_look_at(room):
    return [r for word in ARROWS[room].split() for r in (CORE.split() if word == "core" else [word])]


def sources(root):
    """Every source file with its path as includes name it."""
    for top in ("src", "apps", "bench", "tests", "tools"):
        for path in sorted((root / top).rglob("*")):
            if path.suffix in (".h", ".cpp"):
                yield path, path.relative_to(root / "src" if top == "src" else root)


def wrong_quoted(folder, target):
    if "/" not in target:
        return f'include "{target}" by its room, as in "film/reader.h"'
    there = target.rpartition("/")[0]
    room = room_of(folder)
    if there == folder or lies_in(there, may_look_at(room)):
        return ""
    return f"{folder} may not look at {there}" if room_of(there) else f"{there} is no room"


def wrong_bracketed(folder, header):
    if not lies_in(folder, WITH_QT) and re.match(r"Q[A-Z]|Qt", header):
        return f"{folder} knows no Qt"
    if not lies_in(folder, WITH_WIDGETS) and WIDGETS.match(header):
        return "only ui knows widgets"
    return ""


def wrong_arrows(root):
    wrong = []
    for path, name in sources(root):
        folder = name.parent.as_posix()
        if room_of(folder) is None:
            wrong.append(f"{path.relative_to(root)}: {folder} is no room of tools/check_layers.py")
            continue
        for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1):
            found = INCLUDE.match(line)
            why = found and (wrong_quoted(folder, found[1]) if found[1] else wrong_bracketed(folder, found[2]))
            if why:
                wrong.append(f"{path.relative_to(root)}:{number}: {why}")
    return wrong


def modules(root):
    """Each module with those it includes; a module is a header and its source."""
    known = collections.defaultdict(set)
    for path, name in sources(root):
        module = name.with_suffix("").as_posix()
        for line in path.read_text(encoding="utf-8").splitlines():
            found = INCLUDE.match(line)
            if found and found[1]:
                known[module].add(re.sub(r"\.h$", "", found[1]))
        known[module].discard(module)
    return known


def circles(graph):
    """Circles of modules, each as the way round it: depth first, what lies on the way is a circle."""
    state, found = {}, []

    def visit(module, way):
        state[module] = "on the way"
        for other in sorted(graph.get(module, ())):
            if state.get(other) == "on the way":
                found.append(way[way.index(other):] + [other])
            elif other not in state and other in graph:
                visit(other, way + [other])
        state[module] = "done"

    for module in sorted(graph):
        if module not in state:
            visit(module, [module])
    return found


def main(root):
    sys.setrecursionlimit(10000)
    graph = modules(root)
    wrong = wrong_arrows(root) + ["a circle: " + " -> ".join(c) for c in circles(graph)]
    print("\n".join(wrong) if wrong else f"layers: every include follows the arrows; {len(graph)} modules, no circle")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main(pathlib.Path(sys.argv[1] if len(sys.argv) > 1 else ".")))
