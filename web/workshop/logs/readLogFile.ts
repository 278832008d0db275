import { say } from '@core/base/words/say.js';
import { fitsColumns, proposeColumns, type LogColumns } from '@core/workshop/logs/columns.js';
import { LOOK_LINES, MOST_LOG_BYTES, PREAMBLE_LINES } from '@core/workshop/logs/defaults.js';
import type { DayOrder } from '@core/workshop/logs/instants.js';
import { layoutOf, separatorOf, type LogLayout, type LogSeparator } from '@core/workshop/logs/layout.js';
import { LogReader, type LogReport } from '@core/workshop/logs/reader.js';
import type { ReadPart } from '@core/physics/diagnosis/sensors.js';
import papa from 'papaparse';
import { lettersOf, type Letters } from '../importing/decode.js';

/** A file as it is read: by pieces. */
export interface Bytes {
  readonly size: number;
  slice(from: number, to: number): { arrayBuffer(): Promise<ArrayBuffer> };
}

/** What the first lines of a file show, before it is read. */
export interface LogLook {
  readonly letters: Letters;
  readonly separator: LogSeparator;
  readonly layout: LogLayout;
  readonly columns: LogColumns;
  /** its columns were read before */
  readonly isKnown: boolean;
  /** some rows of data, as they stand in the file */
  readonly sample: readonly (readonly string[])[];
}
export type Looked = LogLook | { readonly problem: string };

/** How it is read: what the look proposed, and what somebody said of it. */
export interface LogWay {
  readonly letters: Letters;
  readonly separator: LogSeparator;
  readonly layout: LogLayout;
  readonly columns: LogColumns;
  readonly zone: string;
  readonly beginsOn: string | null;
}

/** bytes that are looked at first, and about as many as are parsed at once */
const LOOK_BYTES = 400_000;
const PIECE = 500_000;
const SAMPLE = 3;

/** The whole lines of a beginning: what is cut is no line. */
function wholeLines(bytes: Uint8Array, isAll: boolean): Uint8Array {
  const end = bytes.lastIndexOf(10);
  return isAll || end < 0 ? bytes : bytes.subarray(0, end);
}

/**
 * How a log is written and what its columns seem to hold.
 * @param known how this machine's log was read before; taken where its headings stand in the file
 */
export async function lookAtLog(file: Bytes, parts: readonly ReadPart[], known: LogColumns | null): Promise<Looked> {
  if (file.size === 0) return { problem: say('This file is empty.') };
  if (file.size > MOST_LOG_BYTES) return { problem: say('This file is larger than 400 MB. Cut it: a year in one file is enough.') };
  const isAll = file.size <= LOOK_BYTES;
  const head = wholeLines(new Uint8Array(await file.slice(0, LOOK_BYTES).arrayBuffer()), isAll);
  const found = lettersOf(head);
  if ('problem' in found) return found;
  const { letters } = found;
  const text = new TextDecoder(letters).decode(head);
  const separator = separatorOf(text);
  const rows = papa.parse<string[]>(text, { delimiter: separator, preview: LOOK_LINES + PREAMBLE_LINES }).data;
  const layout = layoutOf(rows);
  if (!layout)
    return {
      problem: say(
        'No column of this file tells the time. Its heading would say time or date, and below it stand times such as 2026-11-03 18:04:10.',
      ),
    };
  const isKnown = known !== null && fitsColumns(known, layout.headings);
  const columns = isKnown ? known : proposeColumns(layout.headings, layout.time, layout.date, parts);
  const sample = rows.slice(layout.firstRow, layout.firstRow + SAMPLE);
  return { letters, separator, layout, columns, isKnown, sample };
}

/** The other way to read days that can be read both ways. */
export const withOrder = (layout: LogLayout, order: DayOrder): LogLayout => ({ ...layout, style: order });

/** A line may end inside of a quoted cell: such a piece is no whole one, and waits for the next. */
function isWhole(text: string): boolean {
  let quotes = 0;
  for (let at = text.indexOf('"'); at >= 0; at = text.indexOf('"', at + 1)) quotes += 1;
  return quotes % 2 === 0;
}

/**
 * Reads a log from its first byte to its last, a piece at a time: of 100 MB no more than a piece is ever held.
 * @param onProgress share of the file, 0 to 1
 * @returns null for a file with fewer than two lines that tell the time
 */
export async function readLogFile(
  file: Bytes,
  way: LogWay,
  onProgress: (share: number) => void = () => undefined,
): Promise<LogReport | null> {
  const decoder = new TextDecoder(way.letters);
  const reader = new LogReader(way.layout, way.columns, way.zone, way.beginsOn);
  const take = (bytes: Uint8Array): boolean => {
    const text = decoder.decode(bytes);
    if (!isWhole(text)) return false;
    for (const row of papa.parse<string[]>(text, { delimiter: way.separator, newline: newlineOf(text) }).data) reader.take(row);
    return true;
  };
  const lineFeed = way.letters.startsWith('utf-16') ? 2 : 1;
  let waiting: Uint8Array = new Uint8Array(0);
  for (let from = 0; from < file.size; from += PIECE) {
    const bytes = new Uint8Array(await file.slice(from, from + PIECE).arrayBuffer());
    waiting = waiting.length === 0 ? bytes : joined(waiting, bytes);
    onProgress(Math.min(1, (from + PIECE) / file.size));
    // whole lines alone: no letter is cut, and each piece is a text of its own
    const end = lineEnd(waiting, way.letters);
    if (end > 0 && take(waiting.subarray(0, end))) waiting = waiting.subarray(end + lineFeed);
  }
  if (waiting.length > 0) take(waiting);
  return reader.end();
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  const both = new Uint8Array(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  return both;
}

/** Where the last whole line of some bytes ends, before its line feed; 0: nowhere. Letters of two bytes have their line feed in two as well. */
function lineEnd(bytes: Uint8Array, letters: Letters): number {
  if (letters === 'utf-8' || letters === 'windows-1252') return Math.max(0, bytes.lastIndexOf(10));
  const low = letters === 'utf-16le' ? 0 : 1;
  for (let at = bytes.length - (bytes.length % 2) - 2; at >= 0; at -= 2) if (bytes[at + low] === 10 && bytes[at + 1 - low] === 0) return at;
  return 0;
}

const newlineOf = (text: string): '\n' | '\r\n' => (text.slice(0, 4000).includes('\r\n') ? '\r\n' : '\n');
