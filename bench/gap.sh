#!/usr/bin/env bash
# Makes the tables of docs/diagnosis.md: bench/gap.sh [UNITS] [SEED] ["PROFILE …"]; progress on standard error, Markdown on standard output.
# MENDRO names another command for machines than ./mendro, such as a built one; WORLD is physics or network.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
units=${1:-300} seed=${2:-1} mendro=${MENDRO:-./mendro} world=${WORLD:-network}
run() { $mendro simulate --profile "src/Mendro.Core/Library/Profiles/$1.json" --units "$2" --seed "$seed" --policy "$3" --world "$world" "${@:4}" --json; }
field() { sed -n "s/.*\"$1\": *\([0-9.]*\).*/\1/p"; }
profiles=${3:-$(cd src/Mendro.Core/Library/Profiles && ls *.json | sed 's/\.json$//' | grep -v '^generic-')}

echo "| profile | oracle | checklist | advisor | gap closed |"
echo "|---|---|---|---|---|"
for profile in $profiles; do
  line="| $profile" means=()
  for policy in oracle checklist advisor; do
    out=$(run "$profile" "$units" "$policy")
    mean=$(field meanMinutes <<<"$out")
    means+=("$mean")
    line+=$(awk -v m="$mean" -v p="$(field p90Minutes <<<"$out")" -v c="$(field shareCured <<<"$out")" 'BEGIN {printf " | %.1f / %.0f / %.0f %%", m, p, 100 * c}')
  done
  awk -v l="$line" -v o="${means[0]}" -v c="${means[1]}" -v a="${means[2]}" 'BEGIN {printf "%s | %.0f %% |\n", l, 100 * (c - a) / (c - o)}'
  echo "$profile done" >&2
done

# Learning: worlds of the network in which every fault's odds are a third to three times the library's; the advisor knows the library, or has closed 30 jobs too.
[ "$world" = network ] || exit 0
half=$((units / 2))
echo
echo "| profile | world | gap closed, library alone | after 30 closed jobs | advisor's minutes | after |"
echo "|---|---|---|---|---|---|"
for profile in $profiles; do
  for world in 1 2; do
    o=$(run "$profile" "$half" oracle --shift $world | field meanMinutes)
    c=$(run "$profile" "$half" checklist --shift $world | field meanMinutes)
    a=$(run "$profile" "$half" advisor --shift $world | field meanMinutes)
    l=$(run "$profile" "$half" advisor --shift $world --learn 30 | field meanMinutes)
    awk -v p="$profile" -v w=$world -v o="$o" -v c="$c" -v a="$a" -v l="$l" 'BEGIN {printf "| %s | %d | %.0f %% | %.0f %% | %.1f | %.1f |\n", p, w, 100 * (c - a) / (c - o), 100 * (c - l) / (c - o), a, l}'
  done
  echo "$profile learned" >&2
done
