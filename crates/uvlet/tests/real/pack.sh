#!/usr/bin/env bash
# Builds apps of this folder from their lock files, as people build them with source maps, and packs what
# they emit beside the lock that it was made of. Needs npm, node and zstd.
#
#   ./pack.sh react-kit vue-kit next-shop web-tools
set -euo pipefail
here=$(cd "$(dirname "$0")" && pwd)
for app in "$@"; do
  work=$(mktemp -d)
  cp -r "$here/$app" "$work/"
  cd "$work/$app"
  npm ci --no-audit --no-fund
  case "$app" in
    next-shop) npx next build && mv out dist ;;
    web-tools) npx webpack --mode production -o dist ;;
    *) npx vite build --outDir dist ;;
  esac
  cd "$work"
  tar -c --sort=name --mtime=@0 --owner=0 --group=0 "$app/dist" "$app/package-lock.json" |
    zstd -19 --quiet --force -o "$here/$app.tar.zst"
  rm -rf "$work"
done
