# SPDX-License-Identifier: GPL-3.0-or-later
"""What clang needs in order to read our sources: the flags of each room, out of compile_commands.json, without what
only the other compiler knows. For the checks that are run with it."""
import json
import pathlib
import re
import shlex

DROP = re.compile(r"^(-fcf-protection|-fstack-clash-protection|-Wno-maybe-uninitialized|-Winvalid-pch|-O\d|-Werror)$")


def flags_by_target(build):
    """{target: [flag]} for each library and program of the build folder."""
    flags = {}
    for entry in json.loads((build / "compile_commands.json").read_text()):
        words = shlex.split(entry["command"])[1:]
        target = re.search(r"-o \S*CMakeFiles/([\w-]+)\.dir", entry["command"])
        if not target or "cmake_pch" in entry["file"]:
            continue
        kept = []
        while words:
            word = words.pop(0)
            if word in ("-include", "-o", "-c"):
                words.pop(0)
            elif not DROP.match(word):
                kept.append(word)
        flags.setdefault(target[1], kept)
    return flags


def target_of(path):
    """The target that a source below src is compiled for: jg_demo_films for src/demo/films/camera.cpp."""
    parts = pathlib.PurePath(path).parts
    if parts[0] == "src":
        return "jg_" + ("_".join(parts[1:3]) if parts[1] == "demo" else parts[1])
    return {"demo_films": "demo-films", "post_office": "post-office", "cli": "juxtagraph-cli"}.get(parts[1], parts[1])
