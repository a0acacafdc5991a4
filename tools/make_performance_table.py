#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Measures the film room beside ffmpeg in one run and writes docs/performance.md: make_performance_table.py BIN_FOLDER [--making]."""
import json
import pathlib
import re
import resource
import shutil
import subprocess
import sys
import tempfile
import time

FILMS = [
    ("1080p H.264, groups of 250, B pictures", "-f lavfi -i testsrc2=s=1920x1080:r=60:d=8 -c:v libx264 -preset veryfast -g 250 -bf 3"),
    ("720p H.264 at 240, groups of 240", "-f lavfi -i testsrc2=s=1280x720:r=240:d=2 -c:v libx264 -preset veryfast -g 240 -bf 2"),
    ("1080p HEVC, 10 bit, groups of 120", "-f lavfi -i testsrc2=s=1920x1080:r=60:d=4 -c:v libx265 -preset ultrafast -pix_fmt yuv420p10le -x265-params log-level=none:keyint=120"),
    ("4K H.264, groups of 60", "-f lavfi -i testsrc2=s=3840x2160:r=60:d=3 -c:v libx264 -preset ultrafast -g 60 -bf 2"),
]

# Those of the narrated film (src/film/encoder.h).
SETTINGS = "-c:v libx264 -preset veryfast -crf 20 -g 60 -threads 2 -c:a aac -b:a 128k".split()


def run(*command):
    return subprocess.run([str(c) for c in command], capture_output=True, text=True, check=True)


def ratio_of_best(ours, theirs):
    """The quickest of five runs each, taking turns: what else the machine does then falls on both."""
    pairs = [(ours(), theirs()) for _ in range(5)]
    return min(own for own, _ in pairs) / min(their for _, their in pairs)


def ffmpeg_decode_ms(film):
    """Wall time of ffmpeg's own decoding, from its -benchmark line."""
    said = run("ffmpeg", "-v", "info", "-benchmark", "-i", film, "-map", "0:v", "-f", "null", "-").stderr
    return float(re.search(r"rtime=([0-9.]+)s", said)[1]) * 1000


def ffprobe_count_ms(film):
    start = time.monotonic()
    run("ffprobe", "-v", "error", "-count_packets", "-show_entries", "stream=nb_read_packets", film)
    return (time.monotonic() - start) * 1000


def film_rows(bin_folder, folder):
    for name, options in FILMS:
        film = folder / "film.mp4"
        run("ffmpeg", "-v", "error", "-y", *options.split(), film)
        b = json.loads(run(bin_folder / "film_bench", film, folder).stdout)
        own_ms = lambda what: float(run(bin_folder / "film_bench", what, film).stdout)
        whole = ratio_of_best(lambda: own_ms("all"), lambda: ffmpeg_decode_ms(film))
        index = ratio_of_best(lambda: own_ms("index"), lambda: ffprobe_count_ms(film))
        ratio = lambda v: f"{v:.2f}"
        yield (f"| {name} | {b['frames']} / {b['group']} | {b['decodeMs']:.2f} ms | {ratio(whole)} | {ratio(index)} "
               f"| {ratio(b['forward']['mean'])} / {ratio(b['forward']['p95'])} | {ratio(b['backward']['mean'])} / {ratio(b['backward']['max'])} "
               f"| {ratio(b['calm']['p95'])} / {ratio(b['calm']['max'])} | {ratio(b['backward']['packets'])} "
               f"| {b['nearMs']:.0f} ms / {ratio(b['jump'])} | {b['overBudgetMB']:.0f} MB | {ratio(b['follow'])} |")


def core_rows(bin_folder):
    out = run(bin_folder / "core_bench", "--benchmark_format=json").stdout
    for row in json.loads(out)["benchmarks"]:
        words = re.sub("([A-Z])", r" \1", row["name"]).lower()
        yield f"| {words} | {row['real_time']:.1f} {row['time_unit']} |"


def library_rows(bin_folder, folder):
    """A library of years, filled from a small one; what the window asks of it, in a process of its own."""
    pattern, years = folder / "pattern", folder / "years"
    shutil.copytree("tests/golden/library-1", pattern)
    run(bin_folder / "library_bench", pattern, years)
    m = json.loads(run(bin_folder / "library_bench", pattern, years, "--measure").stdout)
    rows = [("opening", "openMs", "ms", 500), ("the desk's list", "deskMs", "ms", 100), ("an athlete's page", "athleteMs", "ms", 100),
            ("an athlete's log", "logMs", "ms", 100), ("the group, all 2,000, beside the window", "groupMs", "ms", None), ("search as typed", "searchMs", "ms", 50), ("all athletes", "allAthletesMs", "ms", 100), ("read and keep a review", "saveMs", "ms", None),
            ("peak memory", "peakMB", "MB", 300)]
    for name, key, unit, wished in rows:
        yield f"| {name} | {m[key]:.1f} {unit} | {f'{wished} {unit}' if wished else 'none'} |"


def window_rows(bin_folder):
    m = json.loads(run(bin_folder / "window_bench").stdout)
    for what, key in (("the back key held over 500 frames", "held"), ("the ribbon scrubbed", "scrubbed")):
        own, idle = m[key]["window"], m[key]["idle"]
        yield f"| {what} | {own['below50'] / idle['below50']:.3f} | {own['worstMs']:.0f} ms | {idle['worstMs']:.0f} ms |"
    yield f"| pictures shown of the 500 | {m['heldShown'] / 500:.2f} | | |"
    e = m["edit"]
    yield ""
    yield "A step of a drag in the window's thread, all stages built: the edit, its assessment, and what is seen of it (wished: 3 ms, no query)."
    yield ""
    yield f"With {e['measures']} measures {e['medianMs']:.1f} ms in the median, {e['p95Ms']:.1f} ms in the 95th part of 100, {e['queries']} queries."


def juxta_rows(bin_folder, library):
    """The demo library's athlete with the most deliveries, three under each other."""
    m = json.loads(run(bin_folder / "juxta_bench", library).stdout)
    yield f"| twelve cells, the first time | {m['twelveCellsColdMs']:.0f} ms | none |"
    yield f"| twelve cells, the slowest of five more | {m['twelveCellsWarmMs']:.0f} ms | 400 ms |"
    yield f"| two films a step back, beside each alone | {m['together']:.2f} | 1.1 |"


def cost_of(*command):
    """Wall and processor seconds of a command."""
    start, before = time.monotonic(), resource.getrusage(resource.RUSAGE_CHILDREN)
    run(*command)
    after = resource.getrusage(resource.RUSAGE_CHILDREN)
    return time.monotonic() - start, after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime


def making_rows(bin_folder, folder, library):
    """The narrated film of each finished review, beside ffmpeg that decodes it and encodes it with the same settings."""
    cli = bin_folder / "juxtagraph-cli"
    for review in json.loads(run(cli, "review", "list", library, "--json").stdout):
        if review["stage"] not in ("send", "sent"):
            continue
        out = folder / review["id"]
        ours = lambda: cost_of(cli, "review", "export", library, review["id"], "--out", out, "--film")
        ours()
        film = next(out.glob("*.mp4"))
        theirs = lambda: cost_of("ffmpeg", "-y", "-v", "error", "-i", film, *SETTINGS, folder / "again.mp4")
        pairs = [(ours(), theirs()) for _ in range(3)]
        best = lambda side, what: min(p[side][what] for p in pairs)
        seconds = float(run("ffprobe", "-v", "error", "-show_entries", "format=duration", "-of", "csv=p=0", film).stdout)
        yield (f"| {review['athlete']}, {review['date']} | {seconds:.0f} s | {seconds / best(0, 0):.1f} "
               f"| {best(0, 1) / best(1, 1):.2f} |")


def colour_rows(bin_folder, folder):
    """A frame's planes to the picture that is shown, beside swscale where it is as exact."""
    for name, options in FILMS:
        film = folder / "film.mp4"
        run("ffmpeg", "-v", "error", "-y", *options.split(), film)
        c = json.loads(run(bin_folder / "film_bench", "colours", film).stdout)
        yield f"| {name} | {c['pictureMs']:.1f} ms | {c['ratio']:.2f} |"


def print_making(bin_folder):
    """The rows of colours, of the sheet and of the narrated film alone, to be set into the page."""
    with tempfile.TemporaryDirectory() as folder:
        library = pathlib.Path(folder) / "demo"
        run(bin_folder / "juxtagraph-cli", "demo", library)
        print(*colour_rows(bin_folder, pathlib.Path(folder)), *juxta_rows(bin_folder, library), *making_rows(bin_folder, pathlib.Path(folder), library), sep="\n")


def main():
    bin_folder = pathlib.Path(sys.argv[1]).resolve()
    if sys.argv[2:] == ["--making"]:
        return print_making(bin_folder)
    with tempfile.TemporaryDirectory() as folder:
        films = list(film_rows(bin_folder, pathlib.Path(folder)))
        colours = list(colour_rows(bin_folder, pathlib.Path(folder)))
        years = list(library_rows(bin_folder, pathlib.Path(folder)))
        library = pathlib.Path(folder) / "demo"
        run(bin_folder / "juxtagraph-cli", "demo", library)
        sheet = list(juxta_rows(bin_folder, library))
        making = list(making_rows(bin_folder, pathlib.Path(folder), library))
    text = [
        "# Performance", "",
        "Made by `./run bench` in one run on two shared cores; only the ratios (in brackets) carry over to other machines.", "",
        "## Film", "",
        "*D* is the time a bare FFmpeg loop in the same process takes for a frame, *G* the frames of the longest group.",
        "Each side of a ratio is the quickest of two to five runs that take turns, as other machines share the cores.", "",
        "- *all*: every frame once through our reader, beside `ffmpeg -benchmark -f null` on the file (wished: at most 1.1)",
        "- *index*: opening, beside `ffprobe -count_packets` (0.6)",
        "- *forward*: mean and 95th part of 100 in D (1.5, 3.5)",
        "- *backward*: flat out, mean in D (1.6) and the worst step in G x D (1.5)",
        "- *calm*: backward at 30 steps a second, 95th part of 100 in D (0.1) and the worst step in G x D (0.3)",
        "- *packets*: decoded a shown frame going backward (1.1 where a group fits the budget)",
        "- *jump*: 95th part of 100 through the scrub copy (40 ms); worst exact jump less 8 D, in frames from the key x D (1.3)",
        "- *over*: peak memory above the budget; below zero when the film did not fill it (100 MB)",
        "- *follow*: six points followed over 240 frames, beside decoding them (3)", "",
        "| film | frames / G | D | all | index | forward | backward | calm | packets | jump | over | follow |",
        "|---|---|---|---|---|---|---|---|---|---|---|---|", *films, "",
        "From a decoded frame to the picture that is shown, by `film_bench colours FILM`, beside swscale in the mode that interpolates",
        "colour (the quickest of twenty, in turn).", "",
        "| film | a picture | beside swscale |", "|---|---|---|", *colours, "",
        "## Library", "",
        "2,000 athletes, 10,000 clips, 10,000 reviews of real size; the slowest of twenty rounds, in a process that has done nothing else.", "",
        "| what | measured | at most |", "|---|---|---|", *years, "",
        "## Window", "",
        "How late a timer of 2 ms comes in the window's thread, beside one in a thread that does nothing else in the same process.", "",
        "| while | turns below 50 ms, beside the idle thread's (at least 0.99) | latest | the idle thread's latest |", "|---|---|---|---|",
        *window_rows(bin_folder), "",
        "## Sheet", "",
        "Of the demo library, from asking it to the stills as the window shows them, and both films of a pair decoded backward in lockstep.", "",
        "| what | measured | at most |", "|---|---|---|", *sheet, "",
        "## The narrated film", "",
        "Of the demo library's finished reviews, by `juxtagraph-cli review export --film`, its start included: seconds of film made in a second",
        "(wished: at least 1), and processor time beside `ffmpeg` that decodes the film and encodes it with the same settings (1). Quickest of three.", "",
        "| review | film | times real time | processor time beside ffmpeg's |", "|---|---|---|---|", *making, "",
        "## Core", "", "| what | time |", "|---|---|", *core_rows(bin_folder), "",
    ]
    pathlib.Path("docs/performance.md").write_text("\n".join(text), encoding="utf-8")
    print("\n".join(text))


if __name__ == "__main__":
    main()
