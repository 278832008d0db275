import { eq } from 'drizzle-orm';
import { USUAL_READING } from '../../../core/base/units/reading.js';
import type { Scope } from '../../base/database/client.js';
import { workshop } from '../../base/database/tables/people.js';
import { writtenFor } from '../../base/http/readers.js';

/** Letters and calendars are written the workshop's way, whoever sends them, and by night as well. */
export async function inWorkshopsWay<T>(scope: Scope, workshopId: string, work: () => Promise<T>): Promise<T> {
  const [own] = await scope.select({ reading: workshop.reading }).from(workshop).where(eq(workshop.id, workshopId));
  return writtenFor(own?.reading ?? USUAL_READING, work);
}
