#!/usr/bin/env bash
# Fills shops of many jobs and times their pages: bench/scale.sh [JOBS …]; Markdown on standard output. Without numbers: 1,000, 20,000
# and 100,000 jobs, and the demo shop to compare with. Wants a quiet machine; 100,000 jobs take some minutes to fill.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
root=$PWD port=${PORT:-5097}
dotnet build src/Mendro.Web -c Release --nologo -v quiet
dotnet build bench/Mendro.Scale -c Release --nologo -v quiet
scale="dotnet bench/Mendro.Scale/bin/Release/net10.0/Mendro.Scale.dll"
work=$(mktemp -d)
trap 'kill "${server:-}" 2>/dev/null || true; rm -rf "$work"' EXIT

measure() { # folder, label, demo
  ASPNETCORE_ENVIRONMENT=Production dotnet src/Mendro.Web/bin/Release/net10.0/Mendro.Web.dll --contentRoot "$root/src/Mendro.Web" \
    --data "$1" --port "$port" --demo "$3" >"$work/log" 2>&1 &
  server=$!
  until curl -sf "http://127.0.0.1:$port/health" >/dev/null; do sleep 0.2; done
  sleep 8 # what is worked out after a start
  $scale measure "http://127.0.0.1:$port" "$1" "$2"
  kill "$server"
  wait "$server" 2>/dev/null || true
  echo
}

if [ $# -eq 0 ]; then
  measure "$work/demo" demo true
  set -- 1000 20000 100000
fi
for jobs in "$@"; do
  $scale fill "$work/$jobs" "$jobs"
  measure "$work/$jobs" "$jobs jobs" false
  rm -rf "$work/$jobs"
done
