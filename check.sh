#!/usr/bin/env bash
# Everything that must hold before a change is taken: format, lints, all tests.
set -euo pipefail
cd "$(dirname "$0")"
if ! command -v cargo >/dev/null; then
  echo "check.sh: cargo is not installed; install Rust with rustup (https://rustup.rs) first" >&2
  exit 2
fi
if ! cargo fmt --version >/dev/null 2>&1 || ! cargo clippy --version >/dev/null 2>&1; then
  rustup component add rustfmt clippy
fi
# zlib is compiled from C, into the program.
if ! command -v cc >/dev/null; then
  apt-get update -qq && apt-get install -y -qq gcc libc6-dev
fi
cargo fmt --all --check
cargo clippy --workspace --all-targets --locked -- -D warnings
cargo test --workspace --locked
