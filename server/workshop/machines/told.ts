/** A machine or an owner as it is answered: what marks the one of the course is nobody's to read or to send back. */
export function told<Row extends { readonly forCourse: boolean }>(row: Row): Omit<Row, 'forCourse'> {
  const { forCourse: _, ...rest } = row;
  return rest;
}
