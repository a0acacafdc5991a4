#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Writes docs/approaches.md from the playbook's data: the approaches, and how each of the questions on which schools
disagree is set up. With --check it only compares and exits 1 on a difference."""
import json
import pathlib
import sys

# What the schools disagree on (common practice, no source) and the rows of the playbook that ask it. An answer that no
# row can ask is set up elsewhere, in words.
QUESTIONS = [
    ("Move forward early, or hold the weight back", ["early-travel", "weight-ahead"], ""),
    ("Stay tall, sink, or travel first and then sink", ["back-knee", "head-drop", "forward-down", "travel-down", "back-knee-start"], ""),
    ("Push with the back leg, or turn and let gravity work", ["back-foot-off", "back-knee-release", "back-hip-release", "into-back-hip", "forward-and-down"], ""),
    ("Lift to level or more, barely lift, or slide", ["lift-height", "knee-path"], ""),
    ("Pelvis tipped up in the lift, or level", ["pelvis-slope-lift", "pelvis-slope-load", "pelvis-up-load"], ""),
    ("Land on the whole foot, flat, any way, or from above", ["landing-part", "foot-from-above", "whole-foot-landing", "foot-comes-down"], ""),
    ("Lead foot about 20 closed, straight, at the target, or any way", ["foot-direction"], "any way: a target of type `any` or no row"),
    ("Pelvis opens early, before, into or after landing", ["hip-open-start", "hips-open", "lag-foot-hips"], ""),
    ("Separation is the engine, or hips and shoulders turn through together", ["separation", "hips-then-shoulders", "belly-stretch"], ""),
    ("Front knee stiff, bent, or pulling back", ["front-knee-plant", "front-knee-release", "front-knee-change", "leg-pulls-back", "bent-then-firm"], ""),
    ("Back foot down at release, near the rubber, or free", ["back-foot-off", "back-foot-distance", "back-knee-beside", "back-toes-down"], ""),
    ("Elbow below, at, or up to the shoulders at landing", ["elbow-height", "upper-arm-level"], ""),
    ("Hand up by landing, not early, or still rising", ["hand-up", "hand-early", "hand-up-time"], ""),
    ("Turned-in takeaway harmful, used, or wanted", ["elbow-rise", "thumb-down-takeaway", "elbow-with-shoulder"], ""),
    ("Long mirrored takeaway, bent early, circle, close to the thigh", ["arm-match", "thigh-path", "elbow-bend", "forearm-flat"], ""),
    ("Glove stays out, is pulled down, stays high, or stops dead", ["glove-reach", "glove-fall", "glove-stop", "glove-firm", "glove-stops", "glove-over-foot"], ""),
    ("Trunk bends late and far, or turning beats bending", ["trunk-forward", "trunk-start", "flat-back"], ""),
    ("Release far in front, by the face, or as high as possible", ["release-ahead", "release-by-head", "release-height"], ""),
    ("Do not over-turn the finish, keep turning, flat back, or forward", ["keeps-turning", "back-not-shown", "flat-back", "hip-through"], ""),
    ("Head in its box, tilted with the slot, or over the knee", ["head-back", "head-line", "trunk-side", "head-over-knee", "head-in-box"], ""),
    ("Root of power: hips, back leg, separation, front leg, chain, direction", [], "the causes: each edge says whose opinion it is, and only edges between rows of the approach are shown with it"),
    ("One model for all, or keep the style", ["repeatable"], "a target for one athlete (T in Judge, *for the athlete from now on*)"),
    ("Teach from the feet up, from the end backwards, or from the start", [], "the card by time or by body (W in Judge and in Measure)"),
    ("Change is quick, takes weeks, or comes with strength", [], "`lookAgainDays` of the drills: 21 to 56 days"),
    ("Turn the forearm in through release, as relief, or not enough alone", ["turn-in"], ""),
    ("Counter-turn buys time, is best absent, or starts a swing", ["counter-turn", "counter-turn-lift"], ""),
    ("Hands part in the middle, lower, with the knee, after the sink", ["break-timing", "break-centre", "break-to-push", "hands-together"], ""),
    ("Same school, other numbers", ["leg-spread", "back-knee"], "a copy with 110 in place of 106, or 100 in place of 110"),
    ("Forearm at or inside vertical at release, or not looked at", ["forearm-vertical"], ""),
    ("Chest at landing: to the camera, closed, neutral, lead elbow at the target", ["shoulders-closed", "glove-show", "trunk-neutral"], ""),
    ("Back heel down in the load, rising in the drive", ["heel-up", "back-foot-turn", "whole-foot-load"], "both, each at its moment"),
    ("The elbow lags behind the shoulders: wanted, or a fault", ["elbow-behind", "lag-shoulders-elbow", "elbow-on-line"], ""),
]


def number(value):
    return f"{value:g}".replace("-", "\u2212")


def asked(t):
    unit = {"deg": "\u00b0", "seen": "", "x": " x"}.get(t.get("unit", ""), " " + t.get("unit", ""))
    if t["type"] == "atLeast":
        return f"at least {number(t['x'])}{unit}"
    if t["type"] == "atMost":
        return f"at most {number(t['x'])}{unit}"
    if t["type"] == "band":
        return f"{number(t['x'])} to {number(t['y'])}{unit}"
    if t["type"] == "options":
        return " or ".join(t["wanted"])
    return {"record": "recorded", "any": "any way"}[t["type"]]


def answers(row, approaches):
    found = []
    for a in approaches:
        for t in a["targets"]:
            if t["measure"] == row:
                found.append(f"{a['name']}: {asked(t)}")
        if row in a["graded"]:
            found.append(f"{a['name']}: graded")
    return found


def sided(text):
    row, _, side = text.partition(":")
    return row, side


def has_sides(measure):
    return measure["kind"] != "seen" and measure.get("goalUp") != measure.get("goalDown")


def faults(approaches, measures, items):
    """Every (row, side) that an approach can find off, with how many approaches can."""
    found = {}
    for a in approaches:
        sides = {"atLeast": ["below"], "atMost": ["above"], "band": ["below", "above"], "options": [""]}
        for t in a["targets"]:
            for side in sides.get(t["type"], []):
                key = (t["measure"], side if has_sides(measures[t["measure"]]) else "")
                found.setdefault(key, set()).add(a["name"])
        for row in a["graded"]:
            for side in items[row].get("sides", [{"id": ""}]):
                found.setdefault((row, side["id"]), set()).add(a["name"])
    return found


def words_of(row, side, measures, items):
    """What a correction of a side is called and how it feels; for an item what it does when it is so."""
    if row in measures:
        m = measures[row]
        if m["kind"] == "seen":
            return m.get("goal", ""), m.get("feel", ""), ""
        up = side != "above"
        return m.get("goalUp" if up else "goalDown", ""), m.get("feelUp" if up else "feelDown", ""), ""
    item = items[row]
    own = next((s for s in item.get("sides", []) if s["id"] == side), item)
    return own["goal"], own["player"], item.get("praise", "")


def sides_table(approaches, measures, items, causes, drills):
    out = ["", "## What is said of each side", "",
           "Each row with the side on which an approach can find it off: what the correction is called, how it feels, how many",
           "edges of the causes end or begin there, and the drills that train it. Where a row has no drill of its own that is said;",
           "a drill that only supports the part of the body may stand in then, and is shown as such. `tests/coaching/sides_test.cpp`",
           "checks the same in both languages.", "",
           "| row and side | approaches | correction | how it feels | causes | drills |", "|---|---|---|---|---|---|"]
    for (row, side), who in sorted(faults(approaches, measures, items).items()):
        goal, feel, _ = words_of(row, side, measures, items)
        if not goal or not feel:
            raise SystemExit(f"{row}:{side} has no title or no cue")
        meets = lambda text: sided(text)[0] == row and (not side or sided(text)[1] in ("", side))
        edges = sum(1 for c in causes if meets(c["from"]) or meets(c["to"]))
        own = [d["id"] for d in drills if any(meets(s) for s in d["serves"])]
        out.append(f"| `{row}{':' + side if side else ''}` | {len(who)} | {goal} | {feel} | {edges or 'none'} | {', '.join(own) or 'none of its own'} |")
    return out


TOLD = "## Ten approaches on one delivery"


def document(root):
    book = root / "data/playbook"
    read = lambda name: json.loads((book / name).read_text(encoding="utf-8"))
    approaches = sorted((d for d in (json.loads(p.read_text(encoding="utf-8")) for p in book.glob("*.json"))
                         if d.get("format") == "juxtagraph-approach-1"), key=lambda a: a["name"])
    names = {r["id"]: r["name"] for r in read("measures.json")["measures"] + read("items.json")["items"]}
    out = ["# Approaches", "",
           "Made from `data/playbook` by `tools/make_approaches.py`. All figures are common coaching practice with no published",
           "source. Nothing about an approach stands in code: a copy in the playbook place can ask anything else.", "",
           "| approach | edition | ages | targets | graded items | where power comes from, as it says | taught | about |",
           "|---|---|---|---|---|---|---|---|"]
    for a in approaches:
        out.append(f"| {a['name']} | {a['version']} | {a['ages'][0]} to {a['ages'][1]} | {len(a['targets'])} | {len(a['graded'])} | "
                   f"{a.get('power', '')} | {a.get('teaching', 'by weight').replace('-', ' ')} | {a['about']} |")
    out += ["", "## Where schools disagree", "",
            "Each question, the rows that ask it, and what the shipped approaches answer. A row without an answer is in the",
            "playbook and joins a copy by *Add a row*.", ""]
    for n, (question, rows, words) in enumerate(QUESTIONS, 1):
        out.append(f"{n}. **{question}**" + (f" ({words})" if words else ""))
        for row in rows:
            if row not in names:
                raise SystemExit(f"question {n} names the unknown row {row}")
            found = answers(row, approaches)
            out.append(f"   - {names[row]} (`{row}`): " + ("; ".join(found) if found else "asked by none; add it to a copy"))
    by_id = lambda rows: {r["id"]: r for r in rows}
    out += sides_table(approaches, by_id(read("measures.json")["measures"]), by_id(read("items.json")["items"]),
                       read("causes.json")["causes"], read("drills.json")["drills"])
    return "\n".join(out) + "\n"


if __name__ == "__main__":
    root = pathlib.Path(__file__).resolve().parent.parent
    path, text = root / "docs/approaches.md", document(root)
    # The last section is make_ten_approaches.py's, which asks the program.
    told = path.read_text(encoding="utf-8").partition("\n" + TOLD) if path.exists() else ("", "", "")
    text += "".join(told[1:])
    if "--check" not in sys.argv:
        path.write_text(text, encoding="utf-8")
    elif not path.exists() or path.read_text(encoding="utf-8") != text:
        sys.exit("docs/approaches.md is not what the data say: run tools/make_approaches.py")
    else:
        print("approaches: the document says what the data say")
