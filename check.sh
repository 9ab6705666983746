#!/usr/bin/env bash
# Everything that must hold before a change is taken: format, lints, all tests.
set -euo pipefail
cd "$(dirname "$0")"

# Debian's packages, where this user may install them.
install() {
  local as_root=()
  if [ "$(id -u)" != 0 ]; then
    if ! command -v sudo >/dev/null || ! sudo -n true 2>/dev/null; then
      echo "check.sh: install $* first; this user may not" >&2
      exit 2
    fi
    as_root=(sudo -n)
  fi
  "${as_root[@]}" apt-get update -qq && "${as_root[@]}" apt-get install -y -qq "$@"
}

if ! command -v cargo >/dev/null; then
  echo "check.sh: cargo is not installed; install Rust 1.95 or newer with rustup (https://rustup.rs) first" >&2
  exit 2
fi
if ! cargo fmt --version >/dev/null 2>&1 || ! cargo clippy --version >/dev/null 2>&1; then
  if command -v rustup >/dev/null; then
    rustup component add rustfmt clippy
  else
    install rustfmt rust-clippy
  fi
fi
# zlib is compiled from C, into the program.
if ! command -v cc >/dev/null; then
  install gcc libc6-dev
fi
# The page is looked at in a real browser.
if [ -n "${UVLET_FRESH:-}" ] && ! command -v chromium >/dev/null; then
  install chromium
fi
cargo fmt --all --check
cargo clippy --workspace --all-targets --locked -- -D warnings
cargo test --workspace --locked
if ! command -v npm >/dev/null && [ -z "${UVLET_FRESH:-}" ]; then
  echo "check.sh: npm is not installed, so the sample builds were not made afresh" >&2
fi
if ! command -v chromium >/dev/null && [ -z "${UVLET_FRESH:-}" ]; then
  echo "check.sh: chromium is not installed, so the page was not opened in a browser" >&2
fi
