#!/usr/bin/env python3
"""Measures the film room beside ffmpeg in one run and writes docs/performance.md: make_performance_table.py BIN_FOLDER."""
import json
import pathlib
import re
import subprocess
import sys
import tempfile
import time

FILMS = [
    ("1080p H.264, groups of 250, B pictures", "-f lavfi -i testsrc2=s=1920x1080:r=60:d=5 -c:v libx264 -preset veryfast -g 250 -bf 3"),
    ("720p H.264, groups of 60", "-f lavfi -i testsrc2=s=1280x720:r=120:d=3 -c:v libx264 -preset veryfast -g 60"),
]


def run(*command):
    return subprocess.run([str(c) for c in command], capture_output=True, text=True, check=True)


def ffmpeg_decode_ms(film, frames):
    start = time.monotonic()
    run("ffmpeg", "-v", "error", "-i", film, "-map", "0:v", "-f", "null", "-")
    return (time.monotonic() - start) * 1000 / frames


def ffprobe_count_ms(film):
    start = time.monotonic()
    run("ffprobe", "-v", "error", "-count_packets", "-show_entries", "stream=nb_read_packets", film)
    return (time.monotonic() - start) * 1000


def film_rows(cli, folder):
    for name, options in FILMS:
        film = folder / "film.mp4"
        run("ffmpeg", "-v", "error", "-y", *options.split(), film)
        frames = json.loads(run(cli, "film", "probe", film, "--json").stdout)["frames"]
        bench = json.loads(run(cli, "film", "bench", film, "--json").stdout)
        decode = ffmpeg_decode_ms(film, frames)
        yield (f"| {name} | {frames} | {decode:.2f} | {bench['forward']['mean']:.2f} ({bench['forward']['mean'] / decode:.2f}) "
               f"| {bench['backward']['mean']:.2f} ({bench['backward']['mean'] / decode:.2f}) | {bench['backward']['max']:.0f} "
               f"| {bench['random']['mean']:.1f} | {bench['indexMs']:.0f} ({bench['indexMs'] / ffprobe_count_ms(film):.2f}) |")


def core_rows(bin_folder):
    out = run(bin_folder / "core_bench", "--benchmark_format=json").stdout
    for row in json.loads(out)["benchmarks"]:
        words = re.sub("([A-Z])", r" \1", row["name"]).lower()
        yield f"| {words} | {row['real_time']:.1f} {row['time_unit']} |"


def main():
    bin_folder = pathlib.Path(sys.argv[1]).resolve()
    with tempfile.TemporaryDirectory() as folder:
        films = list(film_rows(bin_folder / "juxtagraph-cli", pathlib.Path(folder)))
    text = [
        "# Performance", "",
        "Made by `./run bench` in one run on two shared cores; only the ratios (in brackets) carry over to other machines.", "",
        "## Film", "",
        "Milliseconds a frame. *ffmpeg* is `ffmpeg -f null` on the same file, the whole process over its frames; *index* is opening, beside `ffprobe -count_packets`.", "",
        "| film | frames | ffmpeg | forward (ratio) | backward (ratio) | worst step back | random | index (ratio) |",
        "|---|---|---|---|---|---|---|---|", *films, "",
        "## Core", "", "| what | time |", "|---|---|", *core_rows(bin_folder), "",
    ]
    pathlib.Path("docs/performance.md").write_text("\n".join(text), encoding="utf-8")
    print("\n".join(text))


if __name__ == "__main__":
    main()
