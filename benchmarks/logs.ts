import { fork } from 'node:child_process';
import { closeSync, createReadStream, mkdtempSync, openSync, rmSync, statSync, writeSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import papa from 'papaparse';
import { lookAtLog, readLogFile, type Bytes } from '../web/workshop/logs/readLogFile.js';

/** How long a log takes, against the CSV library alone on the same file, each in a process of its own, and what it holds of it. */
export interface LogRun {
  readonly libraryS: number;
  readonly readS: number;
  /** bytes of memory above what there was before, at most */
  readonly peakBytes: number;
  readonly days: number;
}
export interface LogFigures {
  readonly lines: number;
  readonly bytes: number;
  /** one of each pair of fresh processes */
  readonly runs: readonly LogRun[];
}
/** first argument of a process that measures one log */
export const MEASURE_LOG = 'measure-log';
const PROCESSES = 5;
const TURNS = 3;

const PARTS = [
  { part: 'cpu', kind: 'processor', name: 'processor' },
  { part: 'gpu', kind: 'graphics', name: 'graphics' },
] as const;
const HEAD = 'Time,CPU Package °C,CPU Package Power W,GPU Temperature °C,GPU Power W,Coolant °C,Ambient °C,Flow L/h,Pump RPM,Fan 1 RPM,Core 0 °C,Core 1 °C,Core 2 °C,Core 3 °C\n'; // prettier-ignore
const DAY_S = 86_400;
const STEP_S = 5;

/** Two hours of load a day, a line every five seconds, as many lines as asked for. */
function writeLog(file: string, lines: number): void {
  const out = openSync(file, 'w');
  writeSync(out, HEAD);
  let text = '';
  const start = Date.parse('2026-01-01T18:00:00Z') / 1000;
  for (let n = 0; n < lines; n += 1) {
    const ofDay = n % 1440;
    const at = start + Math.floor(n / 1440) * DAY_S + ofDay * STEP_S;
    const warm = 1 - Math.exp(-ofDay / 100);
    const c = (base: number, rise: number): string => (base + rise * warm + (n % 7) / 10).toFixed(2);
    text += `${new Date(at * 1000).toISOString().slice(0, 19)},${c(30, 35)},${(180 + (n % 9)).toFixed(2)},${c(32, 31)},${(240 + (n % 11)).toFixed(2)},${c(24, 10)},${c(22, 0)},${(182 + (n % 3)).toFixed(2)},${3200 + (n % 20)},${980 + (n % 10)},${c(28, 30)},${c(28, 31)},${c(28, 32)},${c(28, 33)}\n`;
    if (text.length > 1_000_000) {
      writeSync(out, text);
      text = '';
    }
  }
  writeSync(out, text);
  closeSync(out);
}

/** The library by itself, a piece at a time, with nothing done to its rows. */
const libraryAlone = (file: string): Promise<number> =>
  new Promise((resolve, reject) => {
    let rows = 0;
    papa.parse<string[]>(createReadStream(file, { encoding: 'utf8', highWaterMark: 1 << 19 }), {
      delimiter: ',',
      chunk: ({ data }) => {
        rows += data.length;
      },
      complete: () => resolve(rows),
      error: reject,
    });
  });

/** The file as a browser hands it over, piece by piece while others have their turn, without what the runtime's own blobs cost. */
async function onDisk(file: string): Promise<Bytes> {
  const handle = await open(file);
  const { size } = statSync(file);
  return {
    size,
    slice: (from, to) => ({
      arrayBuffer: async () => {
        const piece = new Uint8Array(Math.min(to, size) - from);
        await handle.read(piece, 0, piece.length, from);
        return piece.buffer;
      },
    }),
  };
}

const seconds = async (work: () => Promise<unknown>): Promise<number> => {
  const start = performance.now();
  await work();
  return (performance.now() - start) / 1000;
};

/** What one process does with the file. */
export type LogWork = 'library' | 'app';
interface Measured {
  readonly bestS: number;
  readonly peakBytes: number;
  readonly days: number;
}

/** One process reads the file in one way alone: neither warms up, or fills the memory, for the other. A browser reads it in a worker of its own as well. */
export async function measureLog(work: LogWork, file: string): Promise<Measured> {
  const before = process.memoryUsage.rss();
  let [peak, days, best] = [before, 0, Infinity];
  const bytes = await onDisk(file);
  const look = await lookAtLog(bytes, PARTS, null);
  if ('problem' in look) throw new Error(look.problem);
  const read = async (): Promise<void> => {
    const report = await readLogFile(bytes, { ...look, zone: 'Europe/Berlin', beginsOn: null }, () => {
      peak = Math.max(peak, process.memoryUsage.rss());
    });
    days = report?.days.length ?? 0;
  };
  for (let n = 0; n < TURNS; n += 1) best = Math.min(best, await seconds(work === 'app' ? read : () => libraryAlone(file)));
  return { bestS: best, peakBytes: peak - before, days };
}

const inItsProcess = (work: LogWork, file: string): Promise<Measured> =>
  new Promise((resolve, reject) => {
    const child = fork(process.argv[1] as string, [MEASURE_LOG, work, file], { stdio: ['ignore', 'ignore', 'inherit', 'ipc'] });
    child.once('message', (figures) => resolve(figures as Measured));
    child.once('error', reject);
    child.once('exit', (code) => reject(new Error(`the log was not measured: ended with ${code}`)));
  });

/** Read by fresh processes, one after the other. */
export async function logFigures(lines: number): Promise<LogFigures> {
  const folder = mkdtempSync(path.join(tmpdir(), 'lavacrum-bench-log-'));
  const file = path.join(folder, 'log.csv');
  try {
    writeLog(file, lines);
    const runs: LogRun[] = [];
    for (let n = 0; n < PROCESSES; n += 1) {
      const { bestS: libraryS } = await inItsProcess('library', file);
      const { bestS: readS, peakBytes, days } = await inItsProcess('app', file);
      runs.push({ libraryS, readS, peakBytes, days });
    }
    return { lines, bytes: statSync(file).size, runs };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
