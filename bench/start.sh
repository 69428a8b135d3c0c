#!/usr/bin/env bash
# How long from starting the program to a window that can be used, with the demo build. usage: start.sh BUILD_DIR [TIMES]
# "cold" drops the system's file cache before each start (needs root); "warm" does not.
set -euo pipefail
build=$(cd "$1" && pwd)
times=${2:-10}

if [[ -z ${GORVET_START_DEMO:-} ]]; then
    work=$(mktemp -d)
    trap 'rm -rf "$work"' EXIT
    export XDG_CONFIG_HOME=$work QT_QPA_PLATFORM=xcb LIBGL_ALWAYS_SOFTWARE=1 GORVET_START_DEMO=$work/demo.gorvet
    /usr/bin/python3 "$(dirname "${BASH_SOURCE[0]}")/../demo/petrel_on_tern.py" --cli "$build/gorvet-cli" --out "$GORVET_START_DEMO" >/dev/null 2>&1
    # the display server stands before the first start, and is not part of it
    xvfb-run -a -s "-screen 0 1280x800x24" bash "${BASH_SOURCE[0]}" "$build" "$times"
    exit
fi

measure() { # cold|warm
    for _ in $(seq "$times"); do
        if [[ $1 == cold ]]; then sync && echo 3 >/proc/sys/vm/drop_caches; fi
        "$build/gorvet" --time-start "$GORVET_START_DEMO" 2>/dev/null
    done | sort -n | awk -v what="$1" '{ v[NR] = $1 } END { printf "%s: least %d, median %d, most %d ms of %d starts\n", what, v[1], v[int((NR + 1) / 2)], v[NR], NR }'
}
if [[ $(id -u) == 0 && -w /proc/sys/vm/drop_caches ]]; then measure cold; else echo "cold: not measured, the file cache can't be dropped here"; fi
measure warm
