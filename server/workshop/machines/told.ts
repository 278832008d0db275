/** A machine or an owner as it is answered: what marks the one of the course, and which import brought it, is nobody's to send back. */
export function told<Row extends { readonly forCourse: boolean; readonly importId: string | null }>(
  row: Row,
): Omit<Row, 'forCourse' | 'importId'> {
  const { forCourse: _, importId: __, ...rest } = row;
  return rest;
}
