import type Joi from 'joi';
import { MOST } from '../../base/checking/fields.js';
import { readInput, InputProblem } from '../../base/checking/input.js';
import type { Outline } from '../../machine/loop-file/outline.js';
import { ownerSchema, systemSchema, type OwnerInput, type SystemInput } from '../machines/schema.js';
import { addTo, isEmptyRow, RowCells, type LeftOut, type RefusedRow } from './cells.js';
import { dayIn, type DayOrder } from './days.js';
import type { MachineKey, Mapping } from './fields.js';
import { coolantC, hoursADay, meterHours, tubeIn, volumeMlIn, type Read } from './figures.js';
import type { CellProblem } from './problems.js';
import { plainWord, type CoolantUse } from './words.js';

/** What the workshop has already. */
export interface KnownOwner {
  readonly id: string;
  readonly name: string;
  readonly phone: string | null;
  readonly email: string | null;
  readonly systems: readonly string[];
}

/** A machine that comes in, with what the table says of its loop. */
export interface NewMachine {
  readonly line: number;
  readonly machine: Omit<SystemInput, 'ownerId'>;
  readonly outline: Outline;
  readonly lastChange: string | null;
  /** the coolant's name as it stands, for a finding; null: none stands */
  readonly coolantName: string | null;
  /** null: no name stands, or nobody knows what it is */
  readonly coolant: Exclude<CoolantUse, { use: 'unknown' }> | null;
  readonly promisedOn: string | null;
  readonly reading: { readonly hours: number; readonly on: string } | null;
}

export interface NewOwner {
  /** of an owner who is there already; null: to be made */
  readonly knownId: string | null;
  readonly input: OwnerInput;
  readonly machines: readonly NewMachine[];
}

export interface MachineTable {
  readonly owners: readonly NewOwner[];
  readonly refused: readonly RefusedRow[];
  readonly leftOut: readonly LeftOut[];
}

export interface MachineTableOptions {
  readonly mapping: Mapping<MachineKey>;
  readonly dayOrder: DayOrder;
  readonly today: string;
  /** what names of coolants mean, by `plainWord` of the name */
  readonly coolants: ReadonlyMap<string, CoolantUse>;
  readonly known: readonly KnownOwner[];
  /** tags of machines that are there */
  readonly tags: readonly string[];
}

const CHANNELS: Readonly<Record<string, OwnerInput['channel']>> = { phone: 'phone', call: 'phone', telephone: 'phone', telefon: 'phone', email: 'email', 'e-mail': 'email', mail: 'email', text: 'text', sms: 'text', message: 'text' }; // prettier-ignore
const channelIn = (text: string): Read<OwnerInput['channel']> => {
  const channel = CHANNELS[text.toLowerCase()];
  return channel ? { value: channel } : { problem: { why: 'no-channel' } };
};

const NO_OWNER_ID = '00000000-0000-4000-8000-000000000000';
const OWNER = ownerSchema.required();
const MACHINE = systemSchema.required();

/** Checks what the row makes; fields that the check refuses are named. */
function problemsOf<T>(schema: Joi.Schema, input: object): { value: T } | { fields: readonly string[] } {
  try {
    return { value: readInput<T>(schema, input) };
  } catch (error) {
    if (!(error instanceof InputProblem)) throw error;
    return { fields: error.fields.map(({ path }) => path) };
  }
}

type OwnerDraft = { input: OwnerInput; knownId: string | null; machines: NewMachine[]; names: Set<string> };

const digitsOf = (phone: string | null): string | null => phone?.replace(/\D/gu, '') ?? null;
/** No contact says that they are two people. */
function mayBeSame(a: { phone: string | null; email: string | null }, b: { phone: string | null; email: string | null }): boolean {
  const differ = (one: string | null, other: string | null): boolean => one !== null && other !== null && one !== other;
  return !differ(digitsOf(a.phone), digitsOf(b.phone)) && !differ(a.email?.toLowerCase() ?? null, b.email?.toLowerCase() ?? null);
}

/**
 * Reads a table of machines row by row, so that a long one can be read in pieces. A row without owner or machine is refused with all
 * its reasons; a cell that cannot be read is left out and told. Rows of one owner come together; a machine that is there is refused.
 */
export class MachineTableReader {
  private readonly drafts: OwnerDraft[] = [];
  private readonly byName = new Map<string, OwnerDraft[]>();
  private readonly known = new Map<string, KnownOwner[]>();
  private readonly tags: Set<string>;
  private readonly refused: RefusedRow[] = [];
  private readonly leftOut: LeftOut[] = [];
  /** owners who were checked: their rows come together */
  private readonly checked = new Map<string, OwnerInput>();

  constructor(private readonly options: MachineTableOptions) {
    for (const owner of options.known) addTo(this.known, owner.name.toLowerCase(), owner);
    this.tags = new Set(options.tags.map(plainWord));
  }

  /** @param line as a table program counts */
  row(line: number, cells: readonly string[]): void {
    if (isEmptyRow(cells)) return;
    const row = new RowCells<MachineKey>(cells, this.options.mapping);
    const owner = this.ownerOf(row);
    const machine = this.machineOf(row, line);
    const draft = owner && machine && row.refused.length === 0 ? this.draftFor(owner) : null;
    if (draft && machine) this.demandNew(row, draft, machine);
    if (row.refused.length > 0 || !draft || !machine) {
      this.refused.push({ line, problems: row.refused, cells });
      return;
    }
    draft.names.add(machine.machine.name.toLowerCase());
    if (machine.machine.tag !== '') this.tags.add(plainWord(machine.machine.tag));
    draft.machines.push(machine);
    this.leftOut.push(...row.leftOut.map((each) => ({ ...each, line })));
  }

  result(): MachineTable {
    const owners = this.drafts.filter(({ machines }) => machines.length > 0).map(({ names: _, ...owner }) => owner);
    return { owners, refused: this.refused, leftOut: this.leftOut };
  }

  private ownerOf(row: RowCells<MachineKey>): OwnerInput | null {
    const name = row.needed('owner', 120);
    const given = { phone: row.text('phone') || null, email: row.text('email') || null };
    const said = row.read('channel', channelIn);
    for (;;) {
      const channel = said ?? (given.phone === null ? 'email' : 'phone');
      const key = JSON.stringify([name, given, channel]);
      const before = this.checked.get(key);
      if (before) return before;
      const checked = problemsOf<OwnerInput>(OWNER, { name: name || '-', ...given, channel, note: '', policy: null });
      if ('value' in checked && name !== '') this.checked.set(key, checked.value);
      if ('value' in checked) return name === '' ? null : checked.value;
      const bad = (['phone', 'email'] as const).filter((key) => given[key] !== null && checked.fields.includes(key));
      for (const key of bad) {
        row.leave(key, { why: key === 'phone' ? 'not-a-phone' : 'not-an-email' });
        given[key] = null;
      }
      if (bad.length === 0) {
        if (row.refused.length === 0) row.refuse('owner', { why: 'missing' });
        return null;
      }
    }
  }

  private machineOf(row: RowCells<MachineKey>, line: number): NewMachine | null {
    const { dayOrder, today } = this.options;
    const past = (text: string): Read<string> => {
      const day = dayIn(text, dayOrder);
      return 'value' in day && day.value > today ? { problem: { why: 'in-the-future' } } : day;
    };
    const name = row.needed('system', 120);
    const machine = {
      name,
      tag: row.short('tag', 60),
      caseText: row.short('caseText', 200),
      builtBy: row.short('builtBy', 120),
      hoursPerDay: row.read('hoursPerDay', hoursADay),
      coolantC: row.read('coolantC', coolantC),
      note: row.short('note', MOST.noteLength),
    };
    const lastChange = row.read('lastChange', past);
    const readOn = row.read('readOn', past);
    const hours = row.read('reading', meterHours);
    const parts = {
      line,
      outline: { volumeMl: row.read('volume', volumeMlIn), tube: row.read('tube', tubeIn) },
      lastChange,
      ...this.coolantOf(row),
      promisedOn: row.read('promisedOn', (text) => dayIn(text, dayOrder)),
      // a meter without a day was read when the table was written: today at the latest
      reading: hours === null ? null : { hours, on: readOn ?? today },
    };
    const checked = problemsOf<SystemInput>(MACHINE, { ...machine, name: name || '-', ownerId: NO_OWNER_ID, policy: null });
    if (!('value' in checked)) {
      if (row.refused.length === 0) row.refuse('system', { why: 'missing' });
      return null;
    }
    const { ownerId: _, ...value } = checked.value;
    return { ...parts, machine: value };
  }

  private coolantOf(row: RowCells<MachineKey>): Pick<NewMachine, 'coolant' | 'coolantName'> {
    const coolantName = row.short('coolant', 120) || null;
    if (coolantName === null) return { coolantName: null, coolant: null };
    const use = this.options.coolants.get(plainWord(coolantName));
    if (use && use.use !== 'unknown') return { coolantName, coolant: use };
    if (!use) row.leave('coolant', { why: 'coolant-not-known' });
    return { coolantName, coolant: null };
  }

  private draftFor(input: OwnerInput): OwnerDraft {
    const name = input.name.toLowerCase();
    const there = this.byName.get(name)?.find((each) => mayBeSame(each.input, input));
    if (there) return there;
    const known = this.known.get(name)?.find((each) => mayBeSame(each, input));
    const draft: OwnerDraft = {
      knownId: known?.id ?? null,
      input,
      machines: [],
      names: new Set(known?.systems.map((each) => each.toLowerCase())),
    };
    this.drafts.push(draft);
    addTo(this.byName, name, draft);
    return draft;
  }

  private demandNew(row: RowCells<MachineKey>, { names, input }: OwnerDraft, { machine }: NewMachine): void {
    const there: [MachineKey, CellProblem][] = [];
    if (names.has(machine.name.toLowerCase()))
      there.push(['system', { why: 'machine-there-already', machine: machine.name, owner: input.name }]);
    if (machine.tag !== '' && this.tags.has(plainWord(machine.tag))) there.push(['tag', { why: 'tag-there-already', tag: machine.tag }]);
    for (const [key, problem] of there) row.refuse(key, problem);
  }
}
