import Joi from 'joi';
import { readInput, InputProblem } from '../../base/checking/input.js';
import { ownerSchema, systemSchema, type OwnerInput, type SystemInput } from '../machines/schema.js';
import { IMPORT_FIELDS, IMPORT_KEYS, type ImportKey, type ImportMapping } from './fields.js';

export interface ImportTable {
  /** rows below the heading, as text */
  readonly rows: readonly (readonly string[])[];
  readonly mapping: ImportMapping;
}

/** What the workshop has already. */
export interface KnownOwner {
  readonly id: string;
  readonly name: string;
  readonly phone: string | null;
  readonly email: string | null;
  readonly systems: readonly string[];
}

export interface NewOwner {
  /** of an owner who is there already; null: to be made */
  readonly knownId: string | null;
  readonly input: OwnerInput;
  readonly systems: readonly Omit<SystemInput, 'ownerId'>[];
}

export interface RefusedRow {
  /** as a table program counts: the heading is line 1 */
  readonly line: number;
  readonly field: string;
  readonly message: string;
  readonly cells: readonly string[];
}

export interface ReadImport {
  readonly owners: readonly NewOwner[];
  readonly refused: readonly RefusedRow[];
}

export const IMPORT_LIMIT = { rows: 5000, columns: 60, cell: 4000 } as const;

const mapped = Joi.number().integer().min(0).max(IMPORT_LIMIT.columns).allow(null).required();
export const importSchema = Joi.object({
  rows: Joi.array()
    .items(Joi.array().items(Joi.string().allow('').max(IMPORT_LIMIT.cell)).max(IMPORT_LIMIT.columns))
    .min(1)
    .max(IMPORT_LIMIT.rows)
    .required(),
  mapping: Joi.object(Object.fromEntries(IMPORT_KEYS.map((key) => [key, mapped]))).required(),
  dryRun: Joi.boolean().required(),
}).custom((value: ImportTable, helpers) => {
  const missing = IMPORT_KEYS.find((key) => IMPORT_FIELDS[key].needed && value.mapping[key] === null);
  return missing ? helpers.message({ custom: `Say which column holds: ${IMPORT_FIELDS[missing].label}.` }) : value;
});

const FIELD_OF: Readonly<Record<string, ImportKey>> = { name: 'system', caseText: 'caseText', builtBy: 'builtBy', hoursPerDay: 'hoursPerDay', note: 'note', phone: 'phone', email: 'email', channel: 'channel' }; // prettier-ignore

class RowProblem extends Error {
  constructor(
    readonly field: ImportKey,
    message: string,
  ) {
    super(message);
  }
}

/** "5,5" and "5.5" are the same; "five" is none. */
function hoursOf(text: string): number | null {
  if (text === '') return null;
  const hours = Number(text.replace(',', '.').replace(/\s*h$/i, ''));
  if (!Number.isFinite(hours)) throw new RowProblem('hoursPerDay', `"${text}" is not a number of hours`);
  return hours;
}

const CHANNELS: Readonly<Record<string, OwnerInput['channel']>> = { phone: 'phone', call: 'phone', telephone: 'phone', email: 'email', 'e-mail': 'email', mail: 'email', text: 'text', sms: 'text', message: 'text' }; // prettier-ignore

function channelOf(text: string, phone: string | null): OwnerInput['channel'] {
  if (text === '') return phone === null ? 'email' : 'phone';
  const channel = CHANNELS[text.toLowerCase()];
  if (!channel) throw new RowProblem('channel', `"${text}" is no channel; use phone, email or text`);
  return channel;
}

/** Calls a check and says which column its refusal is about. */
function within<T>(schema: Joi.Schema, input: object, owner: boolean): T {
  try {
    return readInput<T>(schema, input);
  } catch (error) {
    if (!(error instanceof InputProblem)) throw error;
    const field = error.path === 'name' && owner ? 'owner' : (FIELD_OF[error.path] ?? 'system');
    throw new RowProblem(field, error.message.replace(/^\w+ /, ''));
  }
}

/** Same name, and no contact that says otherwise. */
function isSame(
  a: { name: string; phone: string | null; email: string | null },
  b: { name: string; phone: string | null; email: string | null },
): boolean {
  const digits = (phone: string | null): string | null => phone?.replace(/\D/g, '') ?? null;
  const differ = (one: string | null, other: string | null): boolean => one !== null && other !== null && one !== other;
  return (
    a.name.toLowerCase() === b.name.toLowerCase() &&
    !differ(digits(a.phone), digits(b.phone)) &&
    !differ(a.email?.toLowerCase() ?? null, b.email?.toLowerCase() ?? null)
  );
}

const NO_OWNER_ID = '00000000-0000-4000-8000-000000000000';

/**
 * Reads a table of machines: each row is taken whole or refused with its line, its column and what is wrong. Rows of one
 * owner come together; an owner who is there already gets the machine; a machine that is there already is refused.
 */
export function readImport({ rows, mapping }: ImportTable, known: readonly KnownOwner[]): ReadImport {
  const owners: { knownId: string | null; input: OwnerInput; systems: Omit<SystemInput, 'ownerId'>[]; names: Set<string> }[] = [];
  const refused: RefusedRow[] = [];
  rows.forEach((cells, index) => {
    if (cells.every((cell) => cell.trim() === '')) return;
    const cell = (key: ImportKey): string => (mapping[key] === null ? '' : (cells[mapping[key]] ?? '').trim());
    try {
      const phone = cell('phone') || null;
      const input = within<OwnerInput>(
        ownerSchema,
        { name: cell('owner'), phone, email: cell('email') || null, channel: channelOf(cell('channel'), phone), note: '', policy: null },
        true,
      );
      const { ownerId: _, ...machine } = within<SystemInput>(
        systemSchema,
        {
          ownerId: NO_OWNER_ID,
          name: cell('system'),
          caseText: cell('caseText'),
          builtBy: cell('builtBy'),
          hoursPerDay: hoursOf(cell('hoursPerDay')),
          note: cell('note'),
          policy: null,
        },
        false,
      );
      let owner = owners.find((each) => isSame(each.input, input));
      if (!owner) {
        const there = known.find((each) => isSame(each, input));
        owner = { knownId: there?.id ?? null, input, systems: [], names: new Set(there?.systems.map((each) => each.toLowerCase())) };
        owners.push(owner);
      }
      if (owner.names.has(machine.name.toLowerCase()))
        throw new RowProblem('system', `"${machine.name}" of ${owner.input.name} is there already`);
      owner.names.add(machine.name.toLowerCase());
      owner.systems.push(machine);
    } catch (error) {
      if (!(error instanceof RowProblem)) throw error;
      refused.push({ line: index + 2, field: IMPORT_FIELDS[error.field].label, message: error.message, cells });
    }
  });
  return { owners: owners.filter(({ systems }) => systems.length > 0).map(({ names: _, ...owner }) => owner), refused };
}
