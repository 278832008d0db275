import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { removeCluster, startCluster } from '../cluster/cluster.js';
import { endChildrenWithMe, runShown, type LongRun } from '../cluster/processes.js';

interface Totals {
  readonly passed: number;
  readonly failed: number;
  readonly skipped: number;
}

interface Part {
  readonly name: string;
  readonly command: string;
  readonly args: readonly string[];
  /** keeps about one core busy and needs no database: two of these run side by side */
  readonly isNarrow?: true;
  /** waits most of its time and has a database of its own: it runs beside the part before it */
  readonly isBeside?: true;
  /** reads the runner's own totals; a part without one counts as a single check */
  readonly report?: { file: string; read: (json: unknown) => Totals };
}

/** Everything CI checks, in the order in which a mistake is found soonest; of what runs side by side, the longest first. */
function parts(reports: string): Part[] {
  const bin = (name: string): string => path.join('node_modules', '.bin', name);
  const vitest = (project: string): Part => {
    const file = path.join(reports, `${project}.json`);
    return {
      name: project,
      command: bin('vitest'),
      args: ['run', '--project', project, '--reporter=default', '--reporter=json', `--outputFile.json=${file}`],
      report: { file, read: readVitest },
    };
  };
  const check = (name: string, program: string, ...args: string[]): Part => ({ name, command: bin(program), args, isNarrow: true });
  return [
    check('types of the web application', 'tsx', path.join('tests', 'types', 'web.ts')),
    check('lint', 'eslint', '.', '--max-warnings', '0'),
    {
      name: 'types of core, server and tests',
      command: path.join('node_modules', 'typescript-native', 'bin', 'tsc'),
      args: ['-p', 'tsconfig.server.json', '--noEmit', '--singleThreaded'],
      isNarrow: true,
    },
    check('lint by types', 'oxlint', '--type-aware', '--deny-warnings', '.'),
    check('lint of the floors and wings', 'depcruise', '--config', '.dependency-cruiser.json', 'core', 'server', 'web', 'demo'),
    vitest('unit'),
    // what kills and browser stories begin with: written once, brought back wherever it is wanted
    { name: 'demo', command: bin('playwright'), args: ['test', '-c', 'playwright.demo.config.ts'], isBeside: true },
    vitest('screens'),
    vitest('integration'),
    // a few kills at the bench and of a change of tables at every test; `./lavacrum reliability` does hundreds, of everything
    { name: 'kills', command: bin('playwright'), args: ['test', '-c', 'playwright.reliability.config.ts'], isBeside: true },
    {
      name: 'browser',
      command: bin('playwright'),
      args: ['test'],
      report: { file: path.join(reports, 'browser.json'), read: readPlaywright },
    },
  ];
}

function readVitest(json: unknown): Totals {
  const {
    numPassedTests: passed = 0,
    numFailedTests: failed = 0,
    numPendingTests: skipped = 0,
    success,
  } = json as { numPassedTests?: number; numFailedTests?: number; numPendingTests?: number; success?: boolean };
  // a file that does not even load has no failed test in it
  return { passed, failed: success === false && failed === 0 ? 1 : failed, skipped };
}

function readPlaywright(json: unknown): Totals {
  const { stats } = json as { stats?: { expected?: number; unexpected?: number; flaky?: number; skipped?: number } };
  return { passed: (stats?.expected ?? 0) + (stats?.flaky ?? 0), failed: stats?.unexpected ?? 1, skipped: stats?.skipped ?? 0 };
}

function totalsOf(part: Part, code: number): Totals {
  const once: Totals = { passed: code === 0 ? 1 : 0, failed: code === 0 ? 0 : 1, skipped: 0 };
  if (!part.report) return once;
  if (!existsSync(part.report.file)) return { ...once, passed: 0, failed: 1 };
  const totals = part.report.read(JSON.parse(readFileSync(part.report.file, 'utf8')));
  return code !== 0 && totals.failed === 0 ? { ...totals, failed: 1 } : totals;
}

const secondsSince = (ms: number): string => ((Date.now() - ms) / 1000).toFixed(0);

/**
 * Runs lint, type checks and every test against a PostgreSQL of its own, and closes with the plain totals line.
 * Checks that keep one core busy run two at a time.
 * @param only names of parts to run, e.g. `unit`; all when empty
 * @returns exit code
 */
export async function runTests(root: string, only: readonly string[]): Promise<number> {
  const scratch = mkdtempSync(path.join(tmpdir(), 'lavacrum-test-'));
  const dataFolder = path.join(scratch, 'data');
  const chosen = parts(scratch).filter(({ name }) => only.length === 0 || only.some((word) => name.startsWith(word)));
  const sum = { passed: 0, failed: 0, skipped: 0 };
  const lines: string[] = [];
  const needsDatabase = chosen.some(({ name }) => ['integration', 'demo', 'browser'].includes(name));
  const cluster = needsDatabase ? await startCluster({ dataFolder, throwaway: true }) : null;
  const env = {
    ...process.env,
    LAVACRUM_TEST_DATABASE: cluster?.url ?? '',
    LAVACRUM_TEST_SERVER: cluster?.serverUrl ?? '',
    LAVACRUM_TEST_SCRATCH: scratch,
    LAVACRUM_TEST_DEMO_FILE: path.join(scratch, 'demo.tar'),
    NODE_ENV: 'test',
    // what tests make lives briefly: with room for more of it, less is collected (three of a hundred seconds)
    NODE_OPTIONS: `${process.env.NODE_OPTIONS ?? ''} --max-semi-space-size=64`.trim(),
    CI: process.env.CI ?? '',
  };
  endChildrenWithMe();
  const begunMs = Date.now();
  const run = async (part: Part, show: LongRun['show']): Promise<void> => {
    if (show === 'as it comes') process.stdout.write(`\n── ${part.name}\n`);
    const startedMs = Date.now();
    const code = await runShown(part.command, part.args, { cwd: root, env, show });
    const totals = totalsOf(part, code);
    sum.passed += totals.passed;
    sum.failed += totals.failed;
    sum.skipped += totals.skipped;
    const line = `${part.name}: ${totals.passed} passed, ${totals.failed} failed${totals.skipped ? `, ${totals.skipped} skipped` : ''} (${secondsSince(startedMs)} s)`;
    lines.push(line);
    if (show === 'at its end') process.stdout.write(`── ${line}\n`);
  };
  try {
    const narrow = chosen.filter(({ isNarrow }) => isNarrow);
    const lane = async (): Promise<void> => {
      for (let part = narrow.shift(); part; part = narrow.shift()) await run(part, 'at its end');
    };
    const lanes = [lane(), lane()];
    // the longest check goes on beside what comes next: no core waits for it
    await Promise.race(lanes);
    const wide = chosen.filter(({ isNarrow }) => !isNarrow);
    for (let part = wide.shift(); part; part = wide.shift()) {
      const beside = wide[0]?.isBeside ? wide.shift() : undefined;
      await Promise.all([run(part, 'as it comes'), ...(beside ? [run(beside, 'at its end')] : [])]);
    }
    await Promise.all(lanes);
  } finally {
    if (cluster) removeCluster(dataFolder);
  }
  process.stdout.write(
    `\n${lines.join('\n')}\nall of it: ${secondsSince(begunMs)} s\nscreenshots and reports: ${scratch}\n\n${sum.passed} passed, ${sum.failed} failed${sum.skipped ? `, ${sum.skipped} skipped` : ''}\n`,
  );
  return sum.failed === 0 && sum.passed > 0 ? 0 : 1;
}
