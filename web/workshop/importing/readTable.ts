import { say } from '@core/base/words/say.js';
import { IMPORT_LIMIT } from '@core/workshop/importing/schema.js';
import { decodeTable } from './decode.js';

/** A table as its file holds it. */
export interface FileTable {
  readonly name: string;
  readonly headings: readonly string[];
  /** all of them, empty ones too: lines are counted as a table program does */
  readonly rows: readonly (readonly string[])[];
  readonly filled: number;
}

/** Reads a file of commas, semicolons or tabs; what is no table is refused with what would be right. */
export async function readTable(file: File): Promise<{ readonly table: FileTable } | { readonly problem: string }> {
  const decoded = decodeTable(new Uint8Array(await file.arrayBuffer()));
  if ('problem' in decoded) return { problem: `${file.name}: ${decoded.problem}` };
  const { default: papa } = await import('papaparse');
  // the separator is found by itself
  const parsed = papa.parse<string[]>(decoded.text.replace(/^\ufeff/u, ''), { skipEmptyLines: false });
  const [headings = [], ...rows] = parsed.data;
  const filled = rows.filter((cells) => cells.some((cell) => cell.trim() !== '')).length;
  if (headings.length < 2 || filled === 0)
    return {
      problem: say(
        '{name} is no table with a heading and rows: save it as text with commas or semicolons (CSV), with one machine or one piece of work a row.',
        { name: file.name },
      ),
    };
  if (rows.length > IMPORT_LIMIT.rows)
    return {
      problem: say('{name} has {length} rows; at most {rows} go in at once. Cut it in two.', {
        name: file.name,
        length: rows.length,
        rows: IMPORT_LIMIT.rows,
      }),
    };
  return { table: { name: file.name, headings, rows, filled } };
}

/** The cells of a column, without the empty ones. */
export const columnOf = ({ rows }: Pick<FileTable, 'rows'>, column: number | null | undefined): string[] =>
  column === null || column === undefined ? [] : rows.map((cells) => cells[column]?.trim() ?? '').filter(Boolean);
