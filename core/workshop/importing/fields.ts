/** What a row of a table can say of a machine and its owner. */
export interface ImportField {
  readonly label: string;
  readonly needed: boolean;
  /** words of headings that mean it, lower case */
  readonly headings: readonly string[];
}

export const IMPORT_FIELDS = {
  owner: { label: 'Owner', needed: true, headings: ['owner', 'customer', 'client', 'owner name', 'customer name', 'kunde', 'client name'] },
  phone: { label: 'Phone', needed: false, headings: ['phone', 'telephone', 'tel', 'mobile', 'phone number'] },
  email: { label: 'E-mail', needed: false, headings: ['email', 'e-mail', 'mail', 'e-mail address', 'email address'] },
  channel: { label: 'Preferred channel', needed: false, headings: ['channel', 'preferred channel', 'contact by', 'reach by'] },
  system: { label: 'System', needed: true, headings: ['system', 'machine', 'pc', 'computer', 'name', 'system name'] },
  caseText: { label: 'Case', needed: false, headings: ['case', 'chassis', 'housing'] },
  builtBy: { label: 'Built by', needed: false, headings: ['built by', 'builder', 'assembled by'] },
  hoursPerDay: { label: 'Hours a day', needed: false, headings: ['hours per day', 'hours a day', 'usage', 'h/day', 'daily hours'] },
  note: { label: 'Note', needed: false, headings: ['note', 'notes', 'remark', 'remarks', 'comment'] },
} as const satisfies Record<string, ImportField>;

export type ImportKey = keyof typeof IMPORT_FIELDS;
export const IMPORT_KEYS = Object.keys(IMPORT_FIELDS) as ImportKey[];

/** For each field the column that holds it, counted from 0; null: none does. */
export type ImportMapping = Readonly<Record<ImportKey, number | null>>;

const plain = (heading: string): string =>
  heading
    .trim()
    .toLowerCase()
    .replace(/[_\s]+/g, ' ');

/** A first guess from the headings. A column is used once; exact words go before parts of them. */
export function guessMapping(headings: readonly string[]): ImportMapping {
  const left = new Map(headings.map((heading, index) => [index, plain(heading)]));
  const take = (fits: (heading: string) => boolean): number | null => {
    for (const [index, heading] of left)
      if (fits(heading)) {
        left.delete(index);
        return index;
      }
    return null;
  };
  const found = Object.fromEntries(IMPORT_KEYS.map((key) => [key, null])) as Record<ImportKey, number | null>;
  for (const key of IMPORT_KEYS) found[key] = take((heading) => (IMPORT_FIELDS[key].headings as readonly string[]).includes(heading));
  for (const key of IMPORT_KEYS)
    found[key] ??= take((heading) => IMPORT_FIELDS[key].headings.some((word) => word.length > 3 && heading.includes(word)));
  return found;
}
