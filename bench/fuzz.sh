#!/usr/bin/env bash
# Sends what nobody should send to every page, for long: bench/fuzz.sh [REQUESTS] [SEED]. The suite sends 700.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
dotnet build tests/Mendro.Web.Tests -c Release --nologo -v quiet
MENDRO_FUZZ_REQUESTS=${1:-100000} MENDRO_FUZZ_SEED=${2:-1} \
  tests/Mendro.Web.Tests/bin/Release/net10.0/Mendro.Web.Tests -class Mendro.Web.Tests.FuzzTests
