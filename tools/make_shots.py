#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Makes every picture of docs/screenshots again from a fresh demo library: make_shots.py BIN_FOLDER."""
import os
import pathlib
import shutil
import subprocess
import sys

DAY = "2026-11-25"


def main():
    bin_folder = pathlib.Path(sys.argv[1])
    work = bin_folder.parent / "shots"
    library = work / "library"
    shutil.rmtree(work, ignore_errors=True)
    work.mkdir(parents=True)
    env = dict(os.environ, QT_QPA_PLATFORM="offscreen", LC_ALL="C.UTF-8", TZ="UTC")
    env.setdefault("XDG_RUNTIME_DIR", str(work))
    subprocess.run([bin_folder / "juxtagraph-cli", "demo", library, "--date", DAY], check=True, env=env)
    subprocess.run([bin_folder / "ui_shots", library, work / "out"], check=True, env=env, stderr=subprocess.DEVNULL)
    target = pathlib.Path("docs/screenshots")
    target.mkdir(parents=True, exist_ok=True)
    for picture in sorted((work / "out").glob("*.png")):
        shutil.copy(picture, target / picture.name)
        print(target / picture.name)


if __name__ == "__main__":
    main()
