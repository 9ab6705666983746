#!/usr/bin/env bash
# Takes the pictures of this folder: each main command on the sample builds, in a terminal window
# of about 1280x800. Needs Xvfb, xterm, ImageMagick's `import`, Chromium and the DejaVu fonts.
#   docs/screenshots/take.sh [NAME...]
set -euo pipefail
here=$(cd "$(dirname "$0")" && pwd)
cargo build --release --quiet --manifest-path "$here/../../Cargo.toml"
uvlet=$(cd "$here/../.." && pwd)/target/release/uvlet
work=$(mktemp -d)
trap 'rm -rf "$work"; kill "${server:-}" 2>/dev/null || true' EXIT
"$uvlet" demo --into "$work/kelpwick" >/dev/null
display=:$((90 + RANDOM % 100))
Xvfb "$display" -screen 0 1280x800x24 >/dev/null 2>&1 &
server=$!
sleep 1

light=(-bg '#fbfaf6' -fg '#1c2227' -xrm 'XTerm*color6: #0d7377' -xrm 'XTerm*color3: #9a6700' -xrm 'XTerm*color8: #6b6f76')
dark=(-bg '#16191d' -fg '#d7dade' -xrm 'XTerm*color6: #4cc2c4' -xrm 'XTerm*color3: #e0b050' -xrm 'XTerm*color1: #ff7b72' -xrm 'XTerm*color8: #8b929b')

lines=46 columns=140 size=11
shoot() { # palette, name, then the words of the command
  local -n palette=$1
  local name=$2
  shift 2
  local words='' word
  for word in "$@"; do
    [[ $word == *[\ \(]* ]] && word="'$word'"
    words+=" $word"
  done
  # Once unseen: what takes long is kept.
  (cd "$work/kelpwick" && "$uvlet" "$@" >/dev/null) || true
  cat >"$work/run" <<RUN
cd "$work/kelpwick"
printf '\033[1m\$ uvlet%s\033[0m\n\n' "$words"
"$uvlet" "\$@"
sleep 30
RUN
  DISPLAY=$display xterm -geometry "${columns}x$lines+0+0" -fa 'DejaVu Sans Mono' -fs "$size" "${palette[@]}" +sb -e bash "$work/run" "$@" &
  local terminal=$!
  sleep 2
  DISPLAY=$display import -window root png:- | convert png:- -bordercolor black -border 1 -trim +repage "$here/$name.png"
  kill "$terminal"
  wait "$terminal" 2>/dev/null || true
}

# The page in a browser window of the same size.
open_page() { # name, a part of the page, then the words of the command
  local name=$1 part=$2
  shift 2
  (cd "$work/kelpwick" && "$uvlet" report "$@" -o page.html >/dev/null)
  chromium --headless --no-sandbox --disable-gpu --hide-scrollbars --window-size=1280,800 \
    --screenshot="$here/$name.png" "file://$work/kelpwick/page.html$part" >/dev/null 2>&1
}

wanted=" ${*:-survey attribute measures why waste what-if compare gate routes coverage requests page} "
[[ $wanted == *" survey "* ]] && lines=56 columns=158 size=9 shoot light survey survey esbuild-after
[[ $wanted == *" attribute "* ]] && shoot light attribute attribute esbuild-before --in 'startup(booking) and third-party'
[[ $wanted == *" measures "* ]] && shoot light measures attribute esbuild-before --measure br,gzip --if-removed --top 8
[[ $wanted == *" why "* ]] && shoot light why why esbuild-before burgee-plot
[[ $wanted == *" waste "* ]] && shoot light waste waste esbuild-before --top 5
[[ $wanted == *" what-if "* ]] && shoot light what-if what-if vite-before --suggest
[[ $wanted == *" coverage "* ]] && shoot light coverage coverage esbuild-before load=recordings/load.json click=recordings/click.json
[[ $wanted == *" requests "* ]] && shoot light requests requests vite-after recordings/visit.har
[[ $wanted == *" compare "* ]] && shoot light compare compare esbuild-before esbuild-after --top 12
[[ $wanted == *" routes "* ]] && lines=46 columns=140 size=11 shoot light routes survey sveltekit-after --entry /booking
[[ $wanted == *" gate "* ]] && shoot dark gate gate esbuild-before
[[ $wanted == *" page "* ]] && open_page page '#in=startup(booking)' esbuild-before
true
