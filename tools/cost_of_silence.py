#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""How many verdicts of a library's reviews can be told, as they were made and had less been said of them.

cost_of_silence.py CLI LIB: for each review the verdicts and those that are "cannot tell" as it stands, without a word
on the camera, without the coach's exercise of the own click error, and without both; the open ones of the last on the error output. Takes the lead
deliveries as seen from the open side at 240 a second by 1280 x 720, as the demo's are, or nearly. Prints a table for
docs/accuracy.md.
"""
import json
import subprocess
import sys

FILM = {"hand": "R", "view": "open", "captureFps": 240, "width": 1280, "height": 720}


def run(cli, *arguments, text=None):
    done = subprocess.run([cli, *arguments, "--json"], capture_output=True, text=True, input=text)
    if done.returncode:
        sys.exit(done.stderr)
    return json.loads(done.stdout)


def document(delivery, turn, exercise):
    """The points of one delivery, told of as if less was known."""
    points = []
    for p in delivery["points"]:
        if p.get("hidden"):
            continue
        row = {"frame": p["frame"], "landmark": p["landmark"], "x": p["at"][0], "y": p["at"][1]}
        if exercise:
            row["sigma"] = p["sigmaPx"]
        points.append(row)
    d = {"format": "juxtagraph-points-1", **FILM, "points": points,
         "positions": {k: m["frame"] for k, m in delivery["moments"].items() if "frame" in m},
         "lines": [{"kind": m["kind"], "frame": m["frame"], "x1": m["points"][0][0], "y1": m["points"][0][1],
                    "x2": m["points"][1][0], "y2": m["points"][1][1]}
                   for m in delivery["marks"] if m["kind"] in ("plumb", "level")]}
    if turn:
        d["turn"] = {"deg": delivery["cameraTurnDeg"], "sd": delivery["cameraTurnSdDeg"]}
    return d


def told(target, value):
    """'told' or 'cannot tell'; nothing where the target asks nothing of this number."""
    if target["type"] not in ("atLeast", "atMost", "band") or value["value"] is None or value["unit"] != target["unit"]:
        return None
    low, high = value["low95"], value["high95"]
    least = target["x"] if target["type"] in ("atLeast", "band") else float("-inf")
    most = target["y"] if target["type"] == "band" else target["x"] if target["type"] == "atMost" else float("inf")
    if least <= value["value"] <= most:
        return "told"
    return "cannot tell" if high >= least and low <= most else "told"


def main():
    cli, library = sys.argv[1:3]
    approaches = {a["id"]: a for a in run(cli, "approaches")}
    print("| review | said, exercise done | nothing said | no exercise | neither |\n|---|---|---|---|---|")
    for summary in run(cli, "review", "list", library):
        review = run(cli, "review", "show", library, summary["id"])
        delivery = next(d for d in review["deliveries"] if d["number"] == review["lead"])
        targets = {t["measure"]: t for t in approaches[review["judgings"][0]["approach"]["id"]]["targets"]}
        cells = []
        for turn, exercise in ((True, True), (False, True), (True, False), (False, False)):
            values = run(cli, "assess", "-", text=json.dumps(document(delivery, turn, exercise)))
            verdicts = [told(targets[v["id"]], v) for v in values if v["id"] in targets]
            open_ = [v["id"] for v in values if v["id"] in targets and told(targets[v["id"]], v) == "cannot tell"]
            cells.append((len([v for v in verdicts if v]), open_))
        row = [f"{len(o)} of {n}" for n, o in cells]
        print(f"| {review['athleteName']}, {review['date']} | {' | '.join(row)} |")
        print(f"open without both: {', '.join(cells[3][1])}", file=sys.stderr)


main()
