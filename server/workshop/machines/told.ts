/** A machine or an owner as it is answered: what marks the ones of course and first week, and which import brought it, is nobody's to send back. */
export function told<Row extends { readonly forCourse: boolean; readonly isSample?: boolean; readonly importId: string | null }>(
  row: Row,
): Omit<Row, 'forCourse' | 'isSample' | 'importId'> {
  const { forCourse: _, isSample: __, importId: ___, ...rest } = row;
  return rest;
}
