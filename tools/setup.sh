#!/usr/bin/env bash
# Makes .venv with pinned packages. usage: setup.sh run|dev
set -euo pipefail
cd "$(dirname "$0")/.."
want=$1
venv=.venv
lock=requirements.lock
[ "$want" = dev ] && lock=requirements-dev.lock
stamp=$venv/.ready-$want
if [ -f "$stamp" ] && [ "$stamp" -nt "$lock" ] && [ "$stamp" -nt pyproject.toml ]; then exit 0; fi

python=""
for candidate in python3.11 python3.12 python3.13 python3; do
  if command -v "$candidate" >/dev/null && "$candidate" -c 'import sys; sys.exit(sys.version_info < (3, 11))'; then
    python=$candidate
    break
  fi
done
if [ -z "$python" ]; then
  echo "Python 3.11 or newer is missing. Install it, for instance with: apt-get install python3 python3-venv" >&2
  exit 1
fi
if ! "$venv/bin/python" -m pip --version >/dev/null 2>&1; then
  rm -rf "$venv" # Missing, or what an interrupted set-up left.
  if ! "$python" -c 'import ensurepip, venv' 2>/dev/null; then
    if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
      apt-get update -qq && apt-get install -y -qq python3-venv >/dev/null
    else
      echo "Python's venv module is missing. Run as root: apt-get install python3-venv" >&2
      exit 1
    fi
  fi
  "$python" -m venv "$venv"
fi
"$venv/bin/python" -m pip install --quiet --disable-pip-version-check --require-hashes -r "$lock" -r requirements-build.lock
"$venv/bin/python" -m pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
touch "$stamp"
