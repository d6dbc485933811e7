#!/usr/bin/env bash
# Writes the lock files anew from pyproject.toml, with hashes and without the name of any host.
# Needs uv; versions that are locked stay unless pyproject.toml or --upgrade says otherwise.
set -euo pipefail
cd "$(dirname "$0")/.."
upgrade=("$@")
lock() {
  uv pip compile --quiet --universal --python-version 3.11 --generate-hashes --no-emit-index-url \
    --no-annotate --no-header "$@"
}
lock pyproject.toml --output-file requirements.lock "${upgrade[@]}"
lock pyproject.toml --extra dev --output-file requirements-dev.lock "${upgrade[@]}"
# What builds the package is not part of what runs.
trap 'rm -f build.in' EXIT
grep -oP '(?<=^requires = \[")[^"]+' pyproject.toml > build.in
lock build.in --output-file requirements-build.lock "${upgrade[@]}"
