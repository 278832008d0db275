import { say } from '../../base/words/say.js';
import Joi from 'joi';
import { id } from '../../base/checking/fields.js';
import { COOLANT_CLASS_KEYS } from '../../machine/liquids/classes.js';
import type { DayOrder } from './days.js';
import { IMPORT_TABLES, importFields, importLabel, type HistoryKey, type ImportKey, type ImportTableKind, type MachineKey, type Mapping } from './fields.js'; // prettier-ignore
import { HISTORY_KINDS, type CoolantWord, type KindWord } from './words.js';

/** A table as it is sent: its rows as text, and what the person said of its columns and words. */
export interface ImportInput {
  readonly kind: ImportTableKind;
  readonly fileName: string;
  /** rows below the heading */
  readonly rows: readonly (readonly string[])[];
  readonly mapping: Mapping<MachineKey> | Mapping<HistoryKey>;
  readonly dayOrder: DayOrder;
  readonly coolants: readonly CoolantWord[];
  readonly kinds: readonly KindWord[];
  /** machines without a last change and without a promise: due at once, or no date until somebody asks */
  readonly undated: 'due-now' | 'no-date';
  readonly dryRun: boolean;
}

export const IMPORT_LIMIT = { rows: 5000, columns: 60, cell: 4000, words: 300 } as const;

/** One pass over plain arrays: a check of every cell by itself would hold the server up at 300 000 of them. */
const rows = Joi.any().custom((value: unknown, helpers) => {
  const say = (custom: string): Joi.ErrorReport => helpers.message({ custom });
  if (!Array.isArray(value) || value.length === 0) return say('rows must be a list of rows, each a list of texts');
  if (value.length > IMPORT_LIMIT.rows)
    return say(`rows: at most ${IMPORT_LIMIT.rows} go in at once (got ${value.length}); cut the table in two`);
  for (const [index, cells] of value.entries()) {
    if (!Array.isArray(cells) || cells.length > IMPORT_LIMIT.columns)
      return say(`rows[${index}] must be a list of at most ${IMPORT_LIMIT.columns} texts`);
    for (const cell of cells)
      if (typeof cell !== 'string' || cell.length > IMPORT_LIMIT.cell)
        return say(`rows[${index}] holds something else than texts of at most ${IMPORT_LIMIT.cell} characters`);
  }
  return value as unknown;
});

const word = Joi.string().min(1).max(200).required();
const coolantUse = Joi.alternatives(
  Joi.object({ use: Joi.valid('known').required(), productId: id().required() }),
  Joi.object({ use: Joi.valid('make').required(), coolantClass: Joi.valid(...COOLANT_CLASS_KEYS).required() }),
  Joi.object({ use: Joi.valid('unknown').required() }),
);
const column = Joi.number().integer().min(0).max(IMPORT_LIMIT.columns).allow(null).required();
const mappingOf = (kind: ImportTableKind): Joi.ObjectSchema =>
  Joi.object(Object.fromEntries(Object.keys(IMPORT_TABLES[kind]).map((key) => [key, column])));

export const importSchema = Joi.object({
  kind: Joi.valid(...Object.keys(IMPORT_TABLES)).required(),
  fileName: Joi.string().trim().allow('').max(200).required(),
  rows: rows.required(),
  mapping: Joi.when('kind', { is: 'machines', then: mappingOf('machines').required(), otherwise: mappingOf('history').required() }),
  dayOrder: Joi.valid('day-first', 'month-first').required(),
  coolants: Joi.array()
    .items(Joi.object({ name: word, as: coolantUse.required() }))
    .max(IMPORT_LIMIT.words)
    .required(),
  kinds: Joi.array()
    .items(Joi.object({ word, kind: Joi.valid(...HISTORY_KINDS).required() }))
    .max(IMPORT_LIMIT.words)
    .required(),
  undated: Joi.valid('due-now', 'no-date').required(),
  dryRun: Joi.boolean().required(),
}).custom((value: ImportInput, helpers) => {
  const missing = missingColumn(value.kind, value.mapping);
  return missing === null ? value : helpers.message({ custom: say('Say which column holds: {missing}.', { missing }) });
});

/** The first column that a table cannot do without and nobody named; null: none is missing. */
export function missingColumn(kind: ImportTableKind, mapping: Readonly<Record<string, number | null>>): string | null {
  const missing = Object.entries(importFields(kind)).find(([key, { needed }]) => needed && mapping[key] === null);
  if (missing) return importLabel(kind, missing[0] as ImportKey);
  return kind === 'history' && mapping.tag === null && mapping.system === null ? say('Machine, or its tag') : null;
}
