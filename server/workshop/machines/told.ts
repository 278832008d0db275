interface Inner {
  readonly forCourse: boolean;
  readonly isSample?: boolean;
  readonly importId: string | null;
  readonly condition?: unknown;
  readonly keptSetting?: unknown;
  readonly electrical?: unknown;
  readonly electricalVersion?: number;
}

const INNER: readonly (keyof Inner)[] = [
  'forCourse',
  'isSample',
  'importId',
  'condition',
  'keptSetting',
  'electrical',
  'electricalVersion',
];

/**
 * A machine or an owner as it is answered: what marks the ones of course and first week, which import brought it, what its readings say of
 * its date, how it is set and what hangs on what in it is nobody’s to send back with it.
 */
export function told<Row extends Inner>(row: Row): Omit<Row, keyof Inner> {
  const rest: Partial<Row> = { ...row };
  for (const key of INNER) Reflect.deleteProperty(rest, key);
  return rest as Omit<Row, keyof Inner>;
}
