import { headingsOf } from './columns.js';
import { LOOK_LINES, PREAMBLE_LINES } from './defaults.js';
import { styleOf, type TimeStyle } from './instants.js';

export const LOG_SEPARATORS = ['\t', ';', '|', ','] as const;
export type LogSeparator = (typeof LOG_SEPARATORS)[number];

/** How a log is written: what its first lines show. */
export interface LogLayout {
  /** index of the row that names the columns; a second row of units below it is joined to it */
  readonly headingRow: number;
  readonly firstRow: number;
  readonly headings: readonly string[];
  /** index of the time's column, and of the day's where it has its own */
  readonly time: number;
  readonly date: number | null;
  readonly style: TimeStyle;
  /** days that can be read both ways: somebody says which */
  readonly isUnsure: boolean;
  readonly decimalComma: boolean;
}

/** Fields of a line, as far as counting them needs quotes. */
function fieldsIn(line: string, separator: string): number {
  let [count, quoted] = [1, false];
  for (const letter of line) {
    if (letter === '"') quoted = !quoted;
    else if (letter === separator && !quoted) count += 1;
  }
  return count;
}

/**
 * The sign between the cells: what cuts most of the lines into the same number of cells. A comma comes last, since it also stands inside
 * numbers.
 */
export function separatorOf(text: string): LogSeparator {
  const lines = text.split(/\r?\n|\r/).filter((line) => line.trim() !== '').slice(0, LOOK_LINES); // prettier-ignore
  for (const separator of LOG_SEPARATORS) {
    const counts = new Map<number, number>();
    for (const line of lines) {
      const fields = fieldsIn(line, separator);
      if (fields > 1) counts.set(fields, (counts.get(fields) ?? 0) + 1);
    }
    if (Math.max(0, ...counts.values()) >= 0.6 * lines.length) return separator;
  }
  return ',';
}

const isNumber = (cell: string): boolean => /^[-+]?\d+([.,]\d+)?(e[-+]?\d+)?$/i.test(cell.trim());
const WHOLE_TIME = /time|zeit|stamp/i;
const DAY_ALONE = /date|datum|\bday\b|\btag\b/i;

/** Cells of one column over some rows. */
const column = (rows: readonly (readonly string[])[], index: number): string[] => rows.map((row) => row[index] ?? '');

/** Where a stretch of data tells the time: its own column, or a day beside a time of day. */
function timeIn(
  headings: readonly string[],
  rows: readonly (readonly string[])[],
): Pick<LogLayout, 'time' | 'date' | 'style' | 'isUnsure'> | null {
  const candidates = headings.map((heading, index) => ({ heading, index, found: styleOf(column(rows, index)) })).filter(({ found }) => found !== null); // prettier-ignore
  const named = candidates.filter(({ heading }) => WHOLE_TIME.test(heading) || DAY_ALONE.test(heading));
  const among = named.length > 0 ? named : candidates.filter(({ found }) => !['serial'].includes((found as { style: TimeStyle }).style));
  const whole = among.find(
    ({ found, index }) => found?.style !== 'clock' && column(rows, index).some((cell) => /:|^\d+([.,]\d+)?$/.test(cell.trim())),
  );
  if (whole?.found) return { time: whole.index, date: null, ...whole.found };
  const clock = among.find(({ found }) => found?.style === 'clock');
  const day = among.find(({ found, index }) => found?.style !== 'clock' && index !== clock?.index);
  if (clock && day?.found) return { time: clock.index, date: day.index, ...day.found };
  if (clock?.found) return { time: clock.index, date: null, ...clock.found };
  return day?.found ? { time: day.index, date: null, ...day.found } : null;
}

/** A row of units under the headings: short, no numbers, and at least one sign of a unit. */
const isUnits = (row: readonly string[]): boolean =>
  row.every((cell) => cell.trim().length <= 8 && !isNumber(cell)) && row.some((cell) => /°|%|\bw\b|rpm|l\/|\[|\]|min/i.test(cell));

/**
 * How a log is written, from its first rows: lines above the heading, the heading, a row of units, where the time stands and how, which
 * sign parts a decimal.
 * @returns null where no column tells the time
 */
export function layoutOf(rows: readonly (readonly string[])[]): LogLayout | null {
  for (let headingRow = 0; headingRow < Math.min(PREAMBLE_LINES, rows.length - 1); headingRow += 1) {
    const cells = rows[headingRow] ?? [];
    const filled = cells.filter((cell) => cell.trim() !== '');
    if (filled.length < 2 || filled.some(isNumber)) continue;
    const units = rows[headingRow + 1] ?? [];
    const hasUnits = isUnits(units);
    const firstRow = headingRow + (hasUnits ? 2 : 1);
    // a heading named again after a restart is no line of data
    const data = rows.slice(firstRow, LOOK_LINES).filter((row) => row.length >= filled.length / 2 && row[0] !== cells[0]);
    if (data.length === 0) continue;
    const headings = cells.map((cell, index) => [cell.trim(), hasUnits ? (units[index] ?? '').trim() : ''].filter(Boolean).join(' '));
    const found = timeIn(headings, data);
    if (!found) continue;
    const others = data.flatMap((row) => row.filter((_, index) => index !== found.time && index !== found.date));
    const commas = others.filter((cell) => /^[-+]?\d+,\d+$/.test(cell.trim())).length;
    const points = others.filter((cell) => /^[-+]?\d+\.\d+$/.test(cell.trim())).length;
    return { headingRow, firstRow, headings, ...found, decimalComma: commas > points };
  }
  return null;
}

/** A row that names the columns again, as a program writes it when it is started anew. */
export const isHeadingAgain = (layout: LogLayout, row: readonly string[]): boolean => {
  const heading = layout.headings[layout.time] ?? '';
  const cell = (row[layout.time] ?? '').trim();
  return cell !== '' && !/\d/.test(cell) && heading.startsWith(cell) && headingsOf(row).length > 1;
};
