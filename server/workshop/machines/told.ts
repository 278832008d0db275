interface Inner {
  readonly forCourse: boolean;
  readonly isSample?: boolean;
  readonly importId: string | null;
  readonly condition?: unknown;
  readonly keptSetting?: unknown;
}

/** A machine or an owner as it is answered: what marks the ones of course and first week, which import brought it and what its readings say of its date and how it is set is nobody’s to send back. */
export function told<Row extends Inner>(row: Row): Omit<Row, keyof Inner> {
  const { forCourse: _, isSample: __, importId: ___, condition: ____, keptSetting: _____, ...rest } = row;
  return rest;
}
