#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Checks that every source file says its licence in its first lines. Exits 1 when one does not."""
import subprocess
import sys

LINE = "SPDX-License-Identifier: GPL-3.0-or-later"
KINDS = ("*.cpp", "*.h", "*.in", "*.py", "*CMakeLists.txt", "*.cmake", "run", ".ci/run")


def main():
    files = subprocess.check_output(["git", "ls-files", *KINDS], text=True).splitlines()
    wrong = [f for f in files if LINE not in "".join(open(f, encoding="utf-8").readlines()[:2])]
    print("\n".join(f"{f}: its first line does not say '{LINE}'" for f in wrong) or f"licence: said in {len(files)} files")
    return 1 if wrong or not files else 0


if __name__ == "__main__":
    sys.exit(main())
