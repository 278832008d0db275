import { fork } from 'node:child_process';

/** Median µs of one call needs a warm program: half a second of calls before anything counts. */
const WARM_UP_MS = 500;

/** Warms a call up. @returns what times a batch of it, long enough for the clock, in µs a call */
function batchOf(call: () => unknown, batchMs: number): () => number {
  const until = Date.now() + WARM_UP_MS;
  while (Date.now() < until) call();
  let count = 1;
  const timed = (): number => {
    const start = process.hrtime.bigint();
    for (let index = 0; index < count; index += 1) call();
    return Number(process.hrtime.bigint() - start) / 1000;
  };
  while (timed() < batchMs * 1000 && count < 1e7) count *= 2;
  return () => timed() / count;
}

const middleOf = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)] as number;

/** Median µs of one call. */
export function microseconds(call: () => unknown, batches = 15, batchMs = 40): number {
  const batch = batchOf(call, batchMs);
  return middleOf(Array.from({ length: batches }, batch));
}

/**
 * How many times longer one call takes than another: the middle of pairs of batches, one right after the other, so that
 * whatever else the machine does meanwhile happens to both.
 */
export function timesLonger(
  longer: () => unknown,
  shorter: () => unknown,
  pairs = 25,
): { times: number; longerUs: number; shorterUs: number } {
  const [a, b] = [batchOf(longer, 30), batchOf(shorter, 30)];
  const measured = Array.from({ length: pairs }, () => ({ longerUs: a(), shorterUs: b() }));
  return {
    times: middleOf(measured.map(({ longerUs, shorterUs }) => longerUs / shorterUs)),
    longerUs: middleOf(measured.map(({ longerUs }) => longerUs)),
    shorterUs: middleOf(measured.map(({ shorterUs }) => shorterUs)),
  };
}

export const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
export const showUs = (us: number): string => (us < 1000 ? `${us.toFixed(1)} µs` : `${(us / 1000).toFixed(us < 1e6 ? 2 : 0)} ms`);

const SHOWN = {
  times: (value: number) => `${value.toFixed(2)} ×`,
  share: percent,
  us: showUs,
  points: (value: number) => `${(100 * value).toFixed(1)} points`,
  count: (value: number) => String(value),
  MB: (value: number) => `${Math.round(value / 1e6)} MB`,
  kB: (value: number) => `${Math.round(value / 1e3)} kB`,
} as const;

/** One thing that was measured, and what it must not fall below or go above. */
export interface Figure {
  readonly what: string;
  readonly value: number;
  readonly shown: keyof typeof SHOWN;
  readonly least?: number;
  readonly most?: number;
  /** which of several processes counts: the middle one where nothing is said */
  readonly judged?: 'worst';
}

/** What one process measured. */
export interface Section {
  /** what it was measured on, for the reader */
  readonly told: readonly string[];
  readonly figures: readonly Figure[];
}
export interface Measured {
  /** fresh processes that measure it: one warms nothing up for the other, nor fills its memory */
  readonly processes: number;
  readonly measure: () => Section | Promise<Section>;
}

export const SECTION = '--section';
const say = (text: string): void => void process.stdout.write(`${text}\n`);

const inFreshProcess = (name: string): Promise<Section> =>
  new Promise((resolve, reject) => {
    const child = fork(process.argv[1] as string, [SECTION, name], { stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
    child.once('message', (section) => resolve(section as Section));
    child.once('error', reject);
    child.once('exit', (code) => reject(new Error(`${name} was not measured: ended with ${code}`)));
  });

/** Measures one section in its fresh processes, one after the other, and says what came of it. @returns how many figures were met and missed */
export async function measured(name: string, { processes }: Measured): Promise<{ met: number; missed: number }> {
  const runs: Section[] = [];
  for (let nth = 0; nth < processes; nth += 1) runs.push(await inFreshProcess(name));
  const last = runs.at(-1) as Section;
  say('');
  for (const line of last.told) say(line);
  let met = 0;
  last.figures.forEach((figure, index) => {
    const values = runs.map(({ figures }) => (figures[index] as Figure).value).sort((a, b) => a - b);
    const isMet = judge(figure, values);
    if (isMet) met += 1;
    const show = SHOWN[figure.shown];
    const middle = values[Math.floor(values.length / 2)] as number;
    const spread = values.length === 1 ? '' : `${show(values[0] as number)} – ${show(values.at(-1) as number)} in ${values.length}`;
    say(`${isMet ? 'ok  ' : 'MISS'}  ${figure.what.padEnd(66)} ${show(middle).padStart(12)}   ${spread.padEnd(30)} ${boundOf(figure)}`);
  });
  return { met, missed: last.figures.length - met };
}

function judge({ least, most, judged }: Figure, values: readonly number[]): boolean {
  const middle = values[Math.floor(values.length / 2)] as number;
  const low = judged === 'worst' ? (values[0] as number) : middle;
  const high = judged === 'worst' ? (values.at(-1) as number) : middle;
  return (least === undefined || low >= least) && (most === undefined || high <= most);
}

function boundOf({ least, most, shown, judged }: Figure): string {
  const bound = least === undefined ? (most === undefined ? '' : `at most ${SHOWN[shown](most)}`) : `at least ${SHOWN[shown](least)}`;
  return bound && judged === 'worst' ? `${bound}, the worst of them` : bound;
}
