#!/usr/bin/env bash
# Makes sure that a Chromium is there for the browser tests, or says how to get one.
set -euo pipefail
for name in chromium chromium-browser google-chrome; do
  command -v "$name" >/dev/null && exit 0
done
if ! command -v apt-get >/dev/null; then
  echo "The browser tests need Chromium: install it with your system's package manager." >&2
  exit 1
fi
if [ "$(id -u)" = 0 ]; then
  apt-get update -qq && apt-get install -y -qq chromium >/dev/null
elif command -v sudo >/dev/null && sudo -n true 2>/dev/null; then
  sudo apt-get update -qq && sudo apt-get install -y -qq chromium >/dev/null
else
  echo "The browser tests need Chromium. Run as root: apt-get install chromium" >&2
  exit 1
fi
