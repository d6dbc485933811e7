#!/usr/bin/env bash
# Writes the lock files anew from pyproject.toml, with hashes and without the name of any host.
# Needs uv; versions that are locked stay unless pyproject.toml or --upgrade says otherwise.
set -euo pipefail
cd "$(dirname "$0")/.."
trap 'rm -f build.in' EXIT
grep -oP '(?<=^requires = \[")[^"]+' pyproject.toml > build.in
upgrade=("$@")
lock() {
  uv pip compile --quiet --universal --python-version 3.11 --generate-hashes --no-emit-index-url \
    --no-annotate --no-header pyproject.toml build.in "$@"
}
lock --output-file requirements.lock "${upgrade[@]}"
lock --extra dev --output-file requirements-dev.lock "${upgrade[@]}"
