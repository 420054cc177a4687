#!/usr/bin/env bash
# Counts units in which the advice breaks a law of the bench: bench/laws.sh [UNITS A LINE] [SEED] ["PROFILE …"]; Markdown on standard
# output, progress on standard error. All models and builds, both worlds; 170 units a line are more than 10,000. MENDRO names another command than ./mendro.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
units=${1:-170} seed=${2:-77} mendro=${MENDRO:-./mendro}
library=src/Mendro.Core/Library
profiles=${3:-$(cd $library && ls Profiles/*.json Archetypes/*.json | grep -v /generic-)}
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
for profile in $profiles; do
  for world in physics network; do
    $mendro simulate --profile "$library/$profile" --units "$units" --seed "$seed" --policy "${POLICY:-advisor}" --world "$world" \
      --dialogues "$work/dialogues" --json >"$work/$(basename "$profile" .json)-$world.json"
  done
  echo "$profile done" >&2
done
node -e '
  const fs = require("fs"), [folder, units] = process.argv.slice(1), sums = {};
  const files = fs.readdirSync(folder).filter((f) => f.endsWith(".json"));
  let minutes = 0, cured = 0;
  for (const f of files) {
    const told = JSON.parse(fs.readFileSync(`${folder}/${f}`));
    minutes += told.meanMinutes / files.length; cured += told.shareCured / files.length;
    for (const [law, n] of Object.entries(told.breaches)) (sums[law] ??= { n: 0, worst: ["", 0] }).n += n,
      n > sums[law].worst[1] && (sums[law].worst = [f.slice(0, -5), n]);
  }
  const all = files.length * units;
  console.log(`${all} units, ${minutes.toFixed(1)} min, ${(100 * cured).toFixed(0)} % cured\n\n| law | units with a breach | share | most in |\n|---|---|---|---|`);
  for (const [law, s] of Object.entries(sums)) console.log(`| ${law} | ${s.n} | ${(100 * s.n / all).toFixed(2)} % | ${s.worst[1] ? `${s.worst[0]}, ${s.worst[1]}` : "–"} |`);
' "$work" "$units"
