import { OFF_AFTER_MINUTES, SANE_COOLANT_C } from './defaults.js';

/** One line of a log that the owner's machine kept. */
export interface LogSample {
  /** ms since 1970 */
  readonly atMs: number;
  readonly coolantC: number | null;
}

export interface LogUsage {
  /** h between lines that follow one another while the machine ran */
  readonly hours: number;
  readonly fromMs: number;
  readonly toMs: number;
  /** time-weighted mean over those hours, °C; null where no line states a temperature */
  readonly meanCoolantC: number | null;
  readonly lines: number;
}

const HOUR_MS = 3_600_000;

/**
 * Hours run and mean coolant temperature of a log, trapezoid by trapezoid. Lines may be out of order; a gap longer than
 * `OFF_AFTER_MINUTES` is a machine that was off.
 * @returns null for fewer than two lines
 */
export function readLog(samples: readonly LogSample[]): LogUsage | null {
  if (samples.length < 2) return null;
  const ordered = [...samples].sort((a, b) => a.atMs - b.atMs);
  let runMs = 0;
  let warmMs = 0;
  let warmth = 0;
  ordered.slice(1).forEach((sample, index) => {
    const before = ordered[index] as LogSample;
    const gap = sample.atMs - before.atMs;
    if (gap > OFF_AFTER_MINUTES * 60_000) return;
    runMs += gap;
    if (isSane(sample.coolantC) && isSane(before.coolantC)) {
      warmMs += gap;
      warmth += (gap * (sample.coolantC + before.coolantC)) / 2;
    }
  });
  return {
    hours: runMs / HOUR_MS,
    fromMs: (ordered[0] as LogSample).atMs,
    toMs: (ordered.at(-1) as LogSample).atMs,
    meanCoolantC: warmMs > 0 ? warmth / warmMs : null,
    lines: ordered.length,
  };
}

const isSane = (value: number | null): value is number => value !== null && value >= SANE_COOLANT_C.least && value <= SANE_COOLANT_C.most;

const TIME_HEADINGS = ['time', 'date', 'timestamp', 'zeit', 'datum'];
const COOLANT_HEADINGS = ['coolant', 'liquid', 'water', 'loop temp', 'wasser'];

export interface LogTable {
  readonly samples: readonly LogSample[];
  /** lines without a time that can be read, counted from 1 with the heading */
  readonly refused: readonly number[];
  /** heading that was taken for the coolant's temperature; null: none */
  readonly coolantColumn: string | null;
}

/**
 * Lines of a table with a heading as samples. Times are ISO 8601, "2026-11-03 18:04:10" on the machine's own clock, or
 * seconds since 1970.
 * @returns null where no column is a time
 */
export function samplesOf(rows: readonly (readonly string[])[]): LogTable | null {
  const headings = (rows[0] ?? []).map((heading) => heading.trim().toLowerCase());
  const find = (words: readonly string[]): number => headings.findIndex((heading) => words.some((word) => heading.includes(word)));
  const time = find(TIME_HEADINGS);
  if (time < 0) return null;
  const coolant = find(COOLANT_HEADINGS);
  const refused: number[] = [];
  const samples = rows.slice(1).flatMap((row, index): LogSample[] => {
    const atMs = instantOf((row[time] ?? '').trim());
    if (atMs === null) {
      if (row.some((cell) => cell.trim() !== '')) refused.push(index + 2);
      return [];
    }
    const text = coolant < 0 ? '' : (row[coolant] ?? '').trim().replace(',', '.');
    const value = text === '' ? Number.NaN : Number(text);
    return [{ atMs, coolantC: Number.isFinite(value) ? value : null }];
  });
  return { samples, refused, coolantColumn: coolant < 0 ? null : ((rows[0] ?? [])[coolant] ?? '').trim() };
}

function instantOf(text: string): number | null {
  if (/^\d{9,11}(\.\d+)?$/.test(text)) return Number(text) * 1000;
  if (!/^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}/.test(text)) return null;
  const zoned = /(Z|[+-]\d{2}:?\d{2})$/.test(text) ? text : `${text}Z`;
  const at = Date.parse(zoned.replace(' ', 'T'));
  return Number.isFinite(at) ? at : null;
}
