#!/usr/bin/env bash
# Holds `uvlet survey --no-cache` against the yardstick on generated builds of 1, 4 and 16 parts (or on
# the build that is named, with its stats), in pairs one after the other. Prints medians.
#   compare.sh [PAIRS]
#   compare.sh PAIRS FOLDER [STATS]
set -euo pipefail
root=$(cd "$(dirname "$0")/../.." && pwd)
pairs=${1:-10}
cargo build --release --quiet --manifest-path "$root/Cargo.toml" -p uvlet -p uvlet-benches --bins
bin=${CARGO_TARGET_DIR:-$root/target}/release
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT

median() { sort -n "$1" | awk '{ v[NR] = $1 } END { print (v[int((NR + 1) / 2)] + v[int(NR / 2) + 1]) / 2 }'; }

# Seconds into one file, peak kilobytes into another.
timed() {
  local name=$1
  shift
  local from=$EPOCHREALTIME
  /usr/bin/time -f %M -a -o "$work/$name.memory" "$@" >"$work/out"
  awk -v from="$from" -v to="$EPOCHREALTIME" 'BEGIN { print to - from }' >>"$work/$name.time"
}

hold() {
  local title=$1 folder=$2 stats=${3:-}
  rm -f "$work"/*.time "$work"/*.memory
  for _ in $(seq "$pairs"); do
    timed uvlet "$bin/uvlet" survey "$folder" --no-cache ${stats:+--description "$stats"}
    timed limit "$bin/limit" "$folder" ${stats:+"$stats"}
  done
  paste "$work/uvlet.time" "$work/limit.time" | awk '{ print $1 / $2 }' >"$work/ratio.time"
  printf '%-6s uvlet %.2f s, %.0f MB; limit %.2f s, %.0f MB; ratio %.2f\n' "$title" \
    "$(median "$work/uvlet.time")" "$(awk -v k="$(median "$work/uvlet.memory")" 'BEGIN { print k / 1000 }')" \
    "$(median "$work/limit.time")" "$(awk -v k="$(median "$work/limit.memory")" 'BEGIN { print k / 1000 }')" \
    "$(median "$work/ratio.time")"
}

if [ $# -gt 1 ]; then
  hold "$(basename "$2")" "$2" "${3:-}"
  exit
fi
for factor in 1 4 16; do
  "$bin/generate" "$work/site" "$factor"
  hold "x$factor" "$work/site/dist" "$work/site/stats.json"
  rm -rf "$work/site"
done
