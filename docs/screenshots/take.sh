#!/usr/bin/env bash
# Takes the pictures of this folder from the demo build, 1280x800, under a virtual display. usage: take.sh BUILD_DIR
set -euo pipefail
build=$(cd "$1" && pwd)
here=$(cd "$(dirname "${BASH_SOURCE[0]}")" && pwd)

take() { # NAME KEYS ARGUMENTS…
    local out=$here/$1.png keys=$2
    shift 2
    rm -rf "${settings:?}"/*
    xvfb-run -a -s "-screen 0 1280x800x24" bash -c '
        out=$1 keys=$2; shift 2
        "$@" & app=$!; sleep "${settle:-8}" # what fouls is worked out beside the window
        window=$(xdotool search --sync --onlyvisible --pid $app | tail -1)
        xdotool windowmove "$window" 0 0 # nobody manages windows here
        xdotool windowfocus --sync "$window" 2>/dev/null || true
        for key in $keys; do xdotool key --window "$window" "$key"; done
        sleep "${calm:-0}" # what is worked out beside the window
        last=
        for _ in $(seq 60); do
            sleep 0.4
            sum=$(import -window root rgb:- | sha256sum)
            [[ $sum == "$last" ]] && break
            last=$sum
        done
        import -window root -strip "$out"
        kill $app; wait $app || true # the next one opens the same build' take "$out" "$keys" "$build/gorvet" "$@" ${shown-"$build/petrel_on_tern.gorvet"}
    echo "$out"
}
# what was left last time must not show
settings=$(mktemp -d)
trap 'rm -rf "$settings"' EXIT
export QT_QPA_PLATFORM=xcb LIBGL_ALWAYS_SOFTWARE=1 XDG_CONFIG_HOME=$settings XDG_CACHE_HOME=$settings HOME=$settings
shown="" calm=2 take sketch-day "ctrl+n Return"
take tape-day "" --bench tape
settle=12 take scan-day "" --bench scan
settle=12 take sit-day "" --bench sit
settle=12 take scan-pairs-day "F5" --bench scan
settle=12 calm=25 take scan-way-day "shift+F5" --bench scan
take stretch-day "" --bench stretch
take make-day "" --bench make
settle=12 calm=25 take fasteners-dye "F5 F5 F5 F5 F5 F5 F5" --bench make --dye
take order-day "F5 F5 F5" --bench make
take work-day "" --bench work
take call-out-dye "F4" --bench tape --dye
# a cab that comes off its frame
cab=$build/drover_long.gorvet
/usr/bin/python3 "$here/../../demo/drover_long.py" --cli "$build/gorvet-cli" --out "$cab" >/dev/null
settle=10 shown=$cab take strength-dye "F5" --bench stretch --dye
shown=$cab take wall-day "F5" --bench work
shown=$cab take drive-day "" --bench drive
shown=$cab take wheels-dye "F5 F5 F5 F5 F5" --bench drive --dye
rm -f "$cab"
# a spine platform, longer and narrower
spine=$build/dulcie.gorvet
/usr/bin/python3 "$here/../../demo/dulcie.py" --cli "$build/gorvet-cli" --out "$spine" >/dev/null
settle=10 shown=$spine take spine-day "" --bench stretch
settle=10 shown=$spine take track-dye "F5 F5 F5 F5 F5 F5" --bench stretch --dye
rm -f "$spine"
# a practice frame half measured, its next reading taken by the simulated tape
frame=$build/screenshot_practice.gorvet
rm -f "$frame"
"$build/gorvet-cli" practice new "$frame" --seed 14 2>/dev/null
for point in Al Ar Bl Br Cl Cr Dl Dr El Er; do "$build/gorvet-cli" practice take "$frame" height "$point" --keep >/dev/null; done
for pair in "Al Ar" "Al Bl" "Al Br" "Ar Bl" "Ar Br" "Bl Br" "Bl Cl" "Bl Cr" "Br Cl" "Br Cr" "Cl Cr" "Cl Dl" "Cl Dr" "Cr Dl" "Cr Dr" "Dl Dr" "Dl El" "Dl Er" "Dr El" "Dr Er" "El Er" "Al Er" "Ar El"; do
    "$build/gorvet-cli" practice take "$frame" tape $pair --keep >/dev/null
done
shown=$frame take practice-dye "F7" --bench tape --dye
rm -f "$frame"
