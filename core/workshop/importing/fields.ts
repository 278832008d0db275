import { plainWord } from './words.js';

/** What a row of a table can say. */
export interface ImportField {
  readonly label: string;
  readonly needed: boolean;
  /** words of headings that mean it, lower case */
  readonly headings: readonly string[];
}

export const MACHINE_FIELDS = {
  owner: { label: 'Owner', needed: true, headings: ['owner', 'customer', 'client', 'owner name', 'customer name', 'kunde', 'client name', 'besitzer'] },
  phone: { label: 'Phone', needed: false, headings: ['phone', 'telephone', 'tel', 'mobile', 'phone number', 'telefon', 'handy'] },
  email: { label: 'E-mail', needed: false, headings: ['email', 'e-mail', 'mail', 'e-mail address', 'email address'] },
  channel: { label: 'Preferred channel', needed: false, headings: ['channel', 'preferred channel', 'contact by', 'reach by'] },
  system: { label: 'Machine', needed: true, headings: ['system', 'machine', 'pc', 'computer', 'name', 'system name', 'rechner', 'gerät'] },
  tag: { label: 'Serial or tag', needed: false, headings: ['tag', 'serial', 'serial number', 'serial no', 's/n', 'asset', 'asset tag', 'inventory', 'seriennummer', 'seriennr', 'serien-nr', 'inventarnummer', 'id'] },
  caseText: { label: 'Case', needed: false, headings: ['case', 'chassis', 'housing', 'gehäuse'] },
  builtBy: { label: 'Built by', needed: false, headings: ['built by', 'builder', 'assembled by', 'gebaut von'] },
  lastChange: { label: 'Last change', needed: false, headings: ['last change', 'last coolant change', 'last fill', 'filled on', 'filled', 'last service', 'last refill', 'coolant changed', 'letzter wechsel', 'letzte befüllung', 'gewechselt'] },
  coolant: { label: 'Coolant', needed: false, headings: ['coolant', 'fluid', 'liquid', 'coolant name', 'kühlmittel', 'kühlflüssigkeit'] },
  volume: { label: 'Volume', needed: false, headings: ['volume', 'ml', 'litres', 'liters', 'loop volume', 'fill volume', 'volumen', 'menge', 'füllmenge'] },
  tube: { label: 'Tube', needed: false, headings: ['tube', 'tubing', 'tube size', 'hose', 'schlauch', 'rohr'] },
  promisedOn: { label: 'Next date promised', needed: false, headings: ['next', 'next date', 'next due', 'next service', 'due', 'due on', 'promised', 'next change', 'nächster termin', 'nächster wechsel', 'fällig'] },
  hoursPerDay: { label: 'Hours a day', needed: false, headings: ['hours per day', 'hours a day', 'usage', 'h/day', 'daily hours', 'h/d', 'std/tag', 'stunden am tag'] },
  reading: { label: 'Last meter reading', needed: false, headings: ['reading', 'last reading', 'meter', 'hour meter', 'running hours', 'betriebsstunden', 'zählerstand'] },
  readOn: { label: 'Meter read on', needed: false, headings: ['read on', 'reading date', 'meter date', 'abgelesen am', 'abgelesen'] },
  coolantC: { label: 'Coolant temperature', needed: false, headings: ['coolant temperature', 'coolant temp', 'water temperature', 'coolant °c', 'wassertemperatur', 'temperature', 'temperatur', 'temp', 'temp °c', '°c'] },
  note: { label: 'Note', needed: false, headings: ['note', 'notes', 'remark', 'remarks', 'comment', 'bemerkung', 'notiz'] },
} as const satisfies Record<string, ImportField>; // prettier-ignore

export type MachineKey = keyof typeof MACHINE_FIELDS;
export const MACHINE_KEYS = Object.keys(MACHINE_FIELDS) as MachineKey[];

export const HISTORY_FIELDS = {
  tag: { label: 'Serial or tag', needed: false, headings: MACHINE_FIELDS.tag.headings },
  owner: { label: 'Owner', needed: false, headings: MACHINE_FIELDS.owner.headings },
  system: { label: 'Machine', needed: false, headings: MACHINE_FIELDS.system.headings },
  on: { label: 'Date', needed: true, headings: ['date', 'day', 'done on', 'on', 'when', 'datum', 'tag der arbeit'] },
  what: { label: 'What was done', needed: true, headings: ['what', 'work', 'job', 'service', 'done', 'what was done', 'kind', 'action', 'arbeit', 'tätigkeit', 'was'] },
  coolant: { label: 'Coolant', needed: false, headings: MACHINE_FIELDS.coolant.headings },
  volume: { label: 'mL that went in', needed: false, headings: ['ml', 'volume', 'amount', 'poured', 'went in', 'quantity', 'menge', 'volumen'] },
  by: { label: 'By whom', needed: false, headings: ['by', 'by whom', 'technician', 'who', 'done by', 'von', 'techniker'] },
  note: { label: 'Note', needed: false, headings: MACHINE_FIELDS.note.headings },
} as const satisfies Record<string, ImportField>; // prettier-ignore

export type HistoryKey = keyof typeof HISTORY_FIELDS;
export const HISTORY_KEYS = Object.keys(HISTORY_FIELDS) as HistoryKey[];

/** The two tables that a workshop brings. */
export const IMPORT_TABLES = { machines: MACHINE_FIELDS, history: HISTORY_FIELDS } as const;
export type ImportTableKind = keyof typeof IMPORT_TABLES;
export type ImportKey = MachineKey | HistoryKey;
export const importFields = (kind: ImportTableKind): Readonly<Record<string, ImportField>> => IMPORT_TABLES[kind];
export const importLabel = (kind: ImportTableKind, key: ImportKey): string => importFields(kind)[key]?.label ?? key;

/** For each field the column that holds it, counted from 0; null: none does. */
export type Mapping<Key extends string> = Readonly<Record<Key, number | null>>;

/** A first guess from the headings. A column is used once; exact words go before parts of them. */
export function guessMapping<Kind extends ImportTableKind>(
  kind: Kind,
  headings: readonly string[],
): Record<keyof (typeof IMPORT_TABLES)[Kind] & string, number | null> {
  const fields = Object.entries(importFields(kind));
  const left = new Map(headings.map((heading, index) => [index, plainWord(heading)]));
  const take = (fits: (heading: string) => boolean): number | null => {
    for (const [index, heading] of left)
      if (fits(heading)) {
        left.delete(index);
        return index;
      }
    return null;
  };
  const found: Record<string, number | null> = Object.fromEntries(fields.map(([key]) => [key, null]));
  for (const [key, field] of fields) found[key] = take((heading) => field.headings.includes(heading));
  for (const [key, field] of fields)
    found[key] ??= take((heading) => field.headings.some((word) => word.length > 3 && heading.includes(word)));
  return found as Record<keyof (typeof IMPORT_TABLES)[Kind] & string, number | null>;
}
