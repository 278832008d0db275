import { REFILLING } from '../job-kinds/kinds.js';
import { addTo, isEmptyRow, RowCells, type LeftOut, type RefusedRow } from './cells.js';
import { dayIn, type DayOrder } from './days.js';
import type { HistoryKey, Mapping } from './fields.js';
import { volumeMlIn } from './figures.js';
import { guessKind, plainWord, type CoolantUse, type HistoryKind } from './words.js';

/** A machine of the workshop that a row of a history may be about. */
export interface KnownMachine {
  readonly systemId: string;
  readonly name: string;
  readonly tag: string;
  readonly owner: string;
  /** days on which it was filled, as the book has them */
  readonly filledOn: readonly string[];
  /** a run is in progress on it: its log says what happens now */
  readonly inRun: boolean;
}

/** Work that was done before this book was kept. */
export interface PastWork {
  readonly line: number;
  readonly systemId: string;
  readonly kind: HistoryKind;
  readonly on: string;
  /** what went in, where the loop held new coolant afterwards and its product is known */
  readonly fill: {
    readonly coolantName: string;
    readonly coolant: Exclude<CoolantUse, { use: 'unknown' }>;
    readonly pouredMl: number | null;
  } | null;
  readonly by: string;
  readonly note: string;
}

export interface HistoryTable {
  readonly works: readonly PastWork[];
  readonly refused: readonly RefusedRow[];
  readonly leftOut: readonly LeftOut[];
}

export interface HistoryTableOptions {
  readonly mapping: Mapping<HistoryKey>;
  readonly dayOrder: DayOrder;
  readonly today: string;
  readonly coolants: ReadonlyMap<string, CoolantUse>;
  /** what words mean, by `plainWord`; a word that is missing is guessed */
  readonly kinds: ReadonlyMap<string, HistoryKind>;
  readonly machines: readonly KnownMachine[];
}

/** The loop holds new coolant afterwards. */
export const historyFills = (kind: HistoryKind): boolean => kind === 'commissioning' || REFILLING.includes(kind);

/** Reads a history row by row: each belongs to one machine, by its tag, its owner and name, or a name that only one has. */
export class HistoryTableReader {
  private readonly works: PastWork[] = [];
  private readonly refused: RefusedRow[] = [];
  private readonly leftOut: LeftOut[] = [];
  private readonly byTag = new Map<string, KnownMachine[]>();
  private readonly byName = new Map<string, KnownMachine[]>();
  /** machine and day of every fill, those of this table too */
  private readonly filled = new Set<string>();

  constructor(private readonly options: HistoryTableOptions) {
    for (const machine of options.machines) {
      if (machine.tag !== '') addTo(this.byTag, plainWord(machine.tag), machine);
      addTo(this.byName, plainWord(machine.name), machine);
      for (const day of machine.filledOn) this.filled.add(`${machine.systemId} ${day}`);
    }
  }

  row(line: number, cells: readonly string[]): void {
    if (isEmptyRow(cells)) return;
    const row = new RowCells<HistoryKey>(cells, this.options.mapping);
    const machine = this.machineOf(row);
    const on = this.dayOf(row);
    const what = row.needed('what', 200);
    const work = machine && on !== null && row.refused.length === 0 ? this.workOf(row, { line, machine, on, what }) : null;
    if (!work || row.refused.length > 0) {
      this.refused.push({ line, problems: row.refused, cells });
      return;
    }
    if (work.fill) this.filled.add(`${work.systemId} ${work.on}`);
    this.works.push(work);
    this.leftOut.push(...row.leftOut.map((each) => ({ ...each, line })));
  }

  result(): HistoryTable {
    return { works: this.works, refused: this.refused, leftOut: this.leftOut };
  }

  private machineOf(row: RowCells<HistoryKey>): KnownMachine | null {
    const [tag, name, owner] = (['tag', 'system', 'owner'] as const).map((key) => row.text(key));
    const key: HistoryKey = tag && !name ? 'tag' : 'system';
    if (!tag && !name) {
      row.refuse('system', { why: 'missing' });
      return null;
    }
    const tagged = tag ? (this.byTag.get(plainWord(tag)) ?? []) : [];
    const named = name ? (this.byName.get(plainWord(name)) ?? []) : [];
    const owned = owner ? named.filter((each) => plainWord(each.owner) === plainWord(owner)) : named;
    const found = tagged.length > 0 ? tagged : owned;
    const shown = name || tag || '';
    if (found.length === 0) row.refuse(key, { why: 'no-such-machine', machine: shown });
    else if (found.length > 1) row.refuse(key, { why: 'which-machine', machine: shown, count: found.length });
    else if (found[0]?.inRun) row.refuse(key, { why: 'in-a-run', machine: shown });
    return found[0] ?? null;
  }

  private dayOf(row: RowCells<HistoryKey>): string | null {
    const text = row.needed('on', 60);
    if (text === '') return null;
    const day = dayIn(text, this.options.dayOrder);
    if ('problem' in day) row.refuse('on', day.problem);
    else if (day.value > this.options.today) row.refuse('on', { why: 'in-the-future' });
    else return day.value;
    return null;
  }

  private workOf(
    row: RowCells<HistoryKey>,
    { line, machine, on, what }: { line: number; machine: KnownMachine; on: string; what: string },
  ): PastWork {
    const name = row.text('coolant');
    const kind = this.options.kinds.get(plainWord(what)) ?? guessKind(what, name !== '');
    const pouredMl = row.read('volume', volumeMlIn);
    const use = name === '' ? undefined : this.options.coolants.get(plainWord(name));
    const coolant = use && use.use !== 'unknown' ? use : null;
    if (historyFills(kind) && !coolant && kind !== 'leak-repair') row.leave('coolant', { why: 'no-clock-without-coolant' });
    const fills = historyFills(kind) && coolant !== null;
    if (fills && this.filled.has(`${machine.systemId} ${on}`)) row.refuse('on', { why: 'filled-that-day', on });
    // what is no fill keeps its own words, with what the table says went in
    const more = fills ? '' : [name, row.text('volume')].filter(Boolean).join(', ');
    return {
      line,
      systemId: machine.systemId,
      kind,
      on,
      fill: fills ? { coolantName: name, coolant, pouredMl } : null,
      by: row.short('by', 120),
      note: [what, row.short('note', 1000), more].filter(Boolean).join(' · '),
    };
  }
}
