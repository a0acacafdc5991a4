#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Looks by clang's thread-safety analysis whether what a mutex guards is touched only while it is held. Takes the
build folder with compile_commands.json; exits 1 when something is not, or when a plain std::mutex guards something."""
import concurrent.futures
import os
import pathlib
import re
import subprocess
import sys

from clang_flags import flags_by_target, target_of


def files_with_threads():
    """Sources that hold a mutex, or whose header does."""
    for path in sorted(pathlib.Path("src").rglob("*.cpp")):
        header = path.with_suffix(".h")
        text = path.read_text() + (header.read_text() if header.exists() else "")
        if re.search(r"\bMutex\b|\bstd::mutex\b", text):
            yield path, text


def look(path, flags):
    done = subprocess.run(["clang++", "-fsyntax-only", "-Wthread-safety", "-Werror=thread-safety", *flags, str(path)],
                          capture_output=True, text=True)
    return "" if done.returncode == 0 else done.stderr


def main(build):
    flags = flags_by_target(build)
    files = list(files_with_threads())
    wrong = [f"{path}: a std::mutex tells nobody what it guards; take Mutex of base/mutex.h\n"
             for path, text in files if "std::mutex" in text]
    with concurrent.futures.ThreadPoolExecutor(os.cpu_count()) as pool:
        wrong += [said for said in pool.map(lambda f: look(f[0], flags[target_of(f[0])]), files) if said]
    print("".join(wrong) if wrong else f"threads: what mutexes guard is touched under them, in {len(files)} files")
    return 1 if wrong or not files else 0


if __name__ == "__main__":
    sys.exit(main(pathlib.Path(sys.argv[1] if len(sys.argv) > 1 else "build/release")))
