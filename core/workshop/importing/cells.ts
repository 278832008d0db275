import type { Read } from './figures.js';
import type { ImportKey, Mapping } from './fields.js';
import type { CellProblem } from './problems.js';

/** Something about one cell that the person who brings the table is told. */
export interface CellRemark {
  readonly key: ImportKey;
  readonly value: string;
  readonly problem: CellProblem;
}

/** A row that was not taken, with every reason. */
export interface RefusedRow {
  /** as a table program counts: the heading is line 1 */
  readonly line: number;
  readonly problems: readonly CellRemark[];
  readonly cells: readonly string[];
}

/** A cell that was left out of a row that came in. */
export interface LeftOut extends CellRemark {
  readonly line: number;
}

/** The cells of one row by field, and what is wrong with them. */
export class RowCells<Key extends ImportKey> {
  /** stop the row */
  readonly refused: CellRemark[] = [];
  /** are left out of it */
  readonly leftOut: CellRemark[] = [];

  constructor(
    private readonly cells: readonly string[],
    private readonly mapping: Mapping<Key>,
  ) {}

  text(key: Key): string {
    const column = this.mapping[key];
    return column === null ? '' : (this.cells[column] ?? '').trim();
  }

  /** A text that must be there. */
  needed(key: Key, most: number): string {
    const text = this.text(key);
    if (text === '') this.refuse(key, { why: 'missing' });
    else if (text.length > most) this.refuse(key, { why: 'too-long', most });
    return text;
  }

  /** A text that may be missing; one that is too long is left out. */
  short(key: Key, most: number): string {
    const text = this.text(key);
    if (text.length <= most) return text;
    this.leave(key, { why: 'too-long', most });
    return '';
  }

  /** null where nothing stands, or nothing that can be read. */
  read<T>(key: Key, reader: (text: string) => Read<T>): T | null {
    const text = this.text(key);
    if (text === '') return null;
    const found = reader(text);
    if ('value' in found) return found.value;
    this.leave(key, found.problem);
    return null;
  }

  leave(key: Key, problem: CellProblem): void {
    this.leftOut.push({ key, value: this.text(key), problem });
  }

  refuse(key: Key, problem: CellProblem): void {
    this.refused.push({ key, value: this.text(key), problem });
  }
}

export const isEmptyRow = (cells: readonly string[]): boolean => cells.every((cell) => cell.trim() === '');

/** Puts a value among those of its key. */
export function addTo<T>(map: Map<string, T[]>, key: string, value: T): void {
  const own = map.get(key);
  if (own) own.push(value);
  else map.set(key, [value]);
}
