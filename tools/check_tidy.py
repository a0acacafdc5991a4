#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Runs clang-tidy's set (.clang-tidy) over the sources that differ from the commit in tools/tidied.txt; --all goes
over all of them. Takes the build folder; exits 1 when it has something to say. What was older than that commit has not
been gone over as a whole yet. After a run of --all without a word, put that commit's id into tools/tidied.txt."""
import argparse
import concurrent.futures
import os
import pathlib
import re
import subprocess
import sys
import tempfile

from clang_flags import flags_by_target, target_of

TOGETHER = 20
MARK = pathlib.Path("tools/tidied.txt")


def git(*words):
    return subprocess.run(["git", *words], capture_output=True, text=True)


def sources():
    return [p for p in git("ls-files", "src/*.cpp", "apps/*.cpp").stdout.split() if pathlib.Path(p).exists()]


def changed(commit):
    """Sources that differ from `commit`, and those whose own header does; all where the commit isn't here."""
    difference = git("diff", "--name-only", commit, "--", "src", "apps")
    if difference.returncode != 0:
        print(f"tidy: {commit} is not in this clone, so everything is looked at")
        return sources()
    names = {pathlib.PurePath(name).with_suffix("") for name in difference.stdout.split()}
    return [p for p in sources() if pathlib.PurePath(p).with_suffix("") in names]


def heaps(files):
    """Sources of one target together, twenty at most: what they include is read once for all of them."""
    by_target = {}
    for path in files:
        by_target.setdefault(target_of(path), []).append(path)
    for target, paths in by_target.items():
        for i in range(0, len(paths), TOGETHER):
            yield target, paths[i:i + TOGETHER]


def look(paths, flags):
    """What clang-tidy says of our own lines; its count of silenced warnings is none of it."""
    with tempfile.TemporaryDirectory() as folder:
        heap = pathlib.Path(folder) / "heap.cpp"
        heap.write_text("".join(f'#include "{pathlib.Path(path).resolve()}"\n' for path in paths))
        done = subprocess.run(["clang-tidy", "--quiet", "--config-file=.clang-tidy", str(heap), "--", *flags],
                              capture_output=True, text=True)
    said = re.findall(r"^.*: (?:warning|error): .*$", done.stdout, re.M)
    return said or ([f"{paths}: clang-tidy ended with {done.returncode}: {done.stderr}"] if done.returncode else [])


def main():
    words = argparse.ArgumentParser(description=__doc__)
    words.add_argument("build", type=pathlib.Path, nargs="?", default=pathlib.Path("build/release"))
    words.add_argument("--all", action="store_true", help="every source, not only what has changed")
    asked = words.parse_args()
    files = sources() if asked.all else changed(MARK.read_text().split()[0])
    flags = flags_by_target(asked.build)
    with concurrent.futures.ThreadPoolExecutor(os.cpu_count()) as pool:
        said = {line for lines in pool.map(lambda heap: look(heap[1], flags[heap[0]]), heaps(files)) for line in lines}
    print("\n".join(sorted(said)) if said else f"tidy: nothing to say of {len(files)} sources")
    return 1 if said else 0


if __name__ == "__main__":
    sys.exit(main())
