#!/usr/bin/env bash
# Kills the server in the midst of eight hands that write, and looks what is there: bench/kill.sh [TIMES]. The suite does it four times.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
dotnet build tests/Mendro.Web.Tests -c Release --nologo -v quiet
MENDRO_KILLS=${1:-200} tests/Mendro.Web.Tests/bin/Release/net10.0/Mendro.Web.Tests -class Mendro.Web.Tests.KillTests
