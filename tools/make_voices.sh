#!/usr/bin/env bash
# Speaks the demo coach's sentences with espeak-ng into data/voice (needs espeak-ng and ffmpeg).
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/../data/voice"
say() {
    espeak-ng -v en-gb -p 58 -s 150 -w "$1.wav" "$2"
    ffmpeg -v error -y -i "$1.wav" -ac 1 -ar 48000 -c:a libopus -b:a 28k -fflags +bitexact -map_metadata -1 "$1.opus"
    rm "$1.wav"
}
say ilse-take-1 "Let us begin with what is good. Look at the back knee here. You sit deep, and the heel stays on the ground."
say ilse-take-2 "The glove is out over the front foot, and it stays there. Keep that."
say ilse-take-3 "Now the landing. Between your legs there is less than we want. Watch the line from here, to here. Ride the back leg longer."
say ilse-take-4 "At release the chest could go further forward. The front leg has to hold first, then the chest has something to go over."
say ilse-take-5 "So, once more. Sit, ride, and land on a leg that holds. Do the drills four times a week, and film again in four weeks."
