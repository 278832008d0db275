import { seededRandom } from '../core/base/random/random.js';
import { runTrial, TRIAL_PROCEDURES, type TrialFigures } from '../core/bench/trial/trial.js';
import { demoLoop } from '../demo/loops.js';

/** `./lavacrum trial [RUNS] [SEED] [--json]`: the led technician over every procedure. */

/** What the figures must reach (design, "How it is proven"). */
const GOALS: readonly (readonly [keyof TrialFigures, 'most' | 'least', number, string])[] = [
  ['dead_ends', 'most', 0, 'runs without a way on'],
  ['over_lid_worst_ml', 'most', 10, 'mL over the lid, worst'],
  ['unwarned_ml', 'most', 0.5, 'mL at openings nobody was warned of'],
  ['dry_pump_worst_s', 'most', 0.5, 's of dry pump, worst'],
  ['contradictions', 'most', 0, 'orders that a lock refused'],
  ['book_inside_2sd', 'least', 0.93, 'share of looks with the truth inside 2 sd of the book'],
  ['book_sd_fill_ml', 'most', 15, 'mL, median sd of the book after a fill'],
  ['book_sd_drain_share', 'most', 0.05, 'of the loop, median sd of the book after a drain'],
  ['record_off', 'most', 0.05, 'share of records off by more than 2 sd'],
];

const args = process.argv.slice(2);
const [runs = 60, seed = 1] = args.filter((each) => !each.startsWith('--')).map(Number);
if (!Number.isInteger(runs) || runs < 1 || !Number.isInteger(seed)) {
  process.stderr.write('usage: ./lavacrum trial [RUNS] [SEED] [--json], both whole numbers\n');
  process.exit(2);
}
const result = runTrial(runs, seed, (nth) => demoLoop(seededRandom(seed * 1000 + nth), `trial ${nth}`));
const { procedures, complaints, trace: _trace, ...whole } = result;
const shown = (value: number): string => (Number.isInteger(value) ? String(value) : value.toFixed(3));
process.stdout.write(`${runs} machines, seed ${seed}\n`);
for (const name of TRIAL_PROCEDURES) {
  const { runs: count, ended, over_lid_runs: over } = procedures[name];
  process.stdout.write(
    `  ${name.padEnd(14)} ${ended} of ${count} ended, ${over} ran over, ${GOALS.map(([key]) => `${key} ${shown(procedures[name][key])}`).join(', ')}\n`,
  );
}
for (const [key, side, goal, words] of GOALS) {
  const value = whole[key];
  const met = side === 'most' ? value <= goal : value >= goal;
  process.stdout.write(`${met ? 'met   ' : 'MISSED'} ${words}: ${shown(value)} (${side === 'most' ? 'at most' : 'at least'} ${goal})\n`);
}
const overShare = whole.over_lid_runs / Math.max(1, whole.runs);
process.stdout.write(`${overShare <= 0.01 ? 'met   ' : 'MISSED'} share of runs over the lid: ${shown(overShare)} (at most 0.01)\n`);
for (const { what, times } of complaints.slice(0, 12)) process.stdout.write(`  ${times} × ${what}\n`);
if (args.includes('--trace')) for (const line of result.trace) process.stdout.write(`${line}\n`);
if (args.includes('--json')) process.stdout.write(`${JSON.stringify({ ...whole, procedures })}\n`);
