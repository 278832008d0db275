import { eq } from 'drizzle-orm';
import { USUAL_READING } from '../../../core/base/units/reading.js';
import { ownWorkshop } from '../../base/database/columns.js';
import type { Scope } from '../../base/database/client.js';
import { workshop } from '../../base/database/tables/people.js';
import { writtenFor } from '../../base/http/readers.js';

/** Letters, calendars and led runs are written the way of the scope's workshop, whoever sends or starts them, and by night as well. */
export async function inWorkshopsWay<T>(scope: Scope, work: () => T | Promise<T>): Promise<T> {
  const own = eq(workshop.id, ownWorkshop);
  const [row] = await scope.select({ reading: workshop.reading }).from(workshop).where(own);
  return writtenFor(row?.reading ?? USUAL_READING, work);
}
