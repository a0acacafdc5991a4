#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""What every approach says of one delivery, as the last section of docs/approaches.md.

The delivery stands in docs/one-delivery.json; `juxtagraph-cli tell` says what a letter to a player would.

Use: make_ten_approaches.py [--check] [BIN_DIR, default build/release/bin]"""
import json
import pathlib
import subprocess
import sys

HEAD = "## Ten approaches on one delivery"
ROOT = pathlib.Path(__file__).resolve().parent.parent


def asked(approach, delivery):
    """The delivery as `tell` reads it: only what this approach asks for."""
    results = []
    for target in approach["targets"]:
        row = target["measure"]
        if row in delivery["seen"]:
            results.append({"measure": row, "seen": delivery["seen"][row]})
        elif row in delivery["numbers"]:
            value, sd = delivery["numbers"][row]
            results.append({"measure": row, "value": value, "sd": sd})
    grades = []
    for row in approach["graded"]:
        grade = {"item": row, "step": delivery["grades"].get(row, 5)}
        if row in delivery["sides"]:
            grade["side"] = delivery["sides"][row]
        grades.append(grade)
    return {"format": "juxtagraph-tell-1", "approach": approach["id"], "age": delivery["age"], "hand": delivery["hand"],
            "view": "open", "reader": "player", "language": "en", "results": results, "grades": grades}


def told(cli, approach, delivery):
    done = subprocess.run([cli, "tell", "-", "--json"], input=json.dumps(asked(approach, delivery)), capture_output=True,
                          text=True, check=False)
    if done.returncode != 0:
        raise SystemExit(f"{approach['id']}: {done.stderr.strip()}")
    return json.loads(done.stdout)


def section(cli):
    book = ROOT / "data/playbook"
    delivery = json.loads((ROOT / "docs/one-delivery.json").read_text(encoding="utf-8"))
    approaches = sorted((d for d in (json.loads(p.read_text(encoding="utf-8")) for p in book.glob("*.json"))
                         if d.get("format") == "juxtagraph-approach-1"), key=lambda a: a["name"])
    out = [HEAD, "",
           "One made-up delivery of a thrower of 15 (`docs/one-delivery.json`: numbers with their errors, looks, grades), told by each approach's own",
           "proposal; made by `tools/make_ten_approaches.py`, looked at again by `.ci/run`.", "",
           "| approach | keeps | works on | cannot tell |", "|---|---|---|---|"]
    for a in approaches:
        letter = told(cli, a, delivery)
        keeps = "; ".join(k["title"] for k in letter["keeps"]) or "nothing"
        work = "; ".join(f"{c['title']} ({c['row']}{':' + c['side'] if c['side'] else ''})" for c in letter["corrections"]) or "nothing"
        out.append(f"| {a['name']} | {keeps} | {work} | {len(letter['cannotTell'])} |")
    return "\n".join(out) + "\n"


if __name__ == "__main__":
    words = [w for w in sys.argv[1:] if w != "--check"]
    cli = str(pathlib.Path(words[0] if words else ROOT / "build/release/bin") / "juxtagraph-cli")
    path = ROOT / "docs/approaches.md"
    before = path.read_text(encoding="utf-8")
    text = before.split(HEAD)[0].rstrip("\n") + "\n\n" + section(cli)
    if "--check" not in sys.argv:
        path.write_text(text, encoding="utf-8")
    elif before != text:
        sys.exit("docs/approaches.md is not what the approaches say: run tools/make_ten_approaches.py")
    else:
        print("approaches: the table of one delivery is what they say")
