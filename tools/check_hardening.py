#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Looks at the built programs as Debian's hardening checks do: position-independent, all of the table of addresses
read-only and bound at the start, no stack that runs, a guarded stack, checked library calls, and on x86-64 marked
jump targets. One sentence for each that lacks one of them; exit 1 then.

Use: check_hardening.py BIN_DIR (default build/release/bin)
"""
import platform
import re
import subprocess
import sys
from pathlib import Path

ENDBR64 = b"\xf3\x0f\x1e\xfa"
LEAST_TARGETS = 200  # a program without the marks has a few, from the start files
PROGRAMS = ("juxtagraph", "juxtagraph-cli", "post-office", "demo-films")


def read(program, *options):
    return subprocess.run(["readelf", "--wide", *options, str(program)], check=True, capture_output=True, text=True).stdout


def lacks(program):
    header, segments, dynamic = read(program, "-h"), read(program, "-l"), read(program, "-d")
    symbols = read(program, "--dyn-syms")
    found = []
    if not re.search(r"Type:\s+DYN", header):
        found.append("is not position-independent (PIE)")
    if "GNU_RELRO" not in segments:
        found.append("leaves its table of addresses writable (no RELRO)")
    if not re.search(r"BIND_NOW|FLAGS_1.*NOW", dynamic):
        found.append("binds its libraries late (no BIND_NOW)")
    stack = re.search(r"GNU_STACK.*", segments)
    if not stack or "E" in stack.group(0).split()[-2]:
        found.append("has a stack that can run")
    if "__stack_chk_fail" not in symbols:
        found.append("has no stack protector")
    if not re.search(r"__\w+_chk\b", symbols.replace("__stack_chk_fail", "")):
        found.append("calls no checked library function (no FORTIFY)")
    # Debian 12's own start files carry no such mark, so the note of the whole program is missing: our code is looked at.
    if platform.machine() == "x86_64" and program.read_bytes().count(ENDBR64) < LEAST_TARGETS:
        found.append("does not mark its jump targets (no CET)")
    return found


def main():
    folder = Path(sys.argv[1] if len(sys.argv) > 1 else "build/release/bin")
    wrong = [f"{p} {what}" for p in PROGRAMS for what in lacks(folder / p)]
    print("\n".join(wrong) if wrong else f"hardening: {len(PROGRAMS)} programs are as Debian's packages are")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
