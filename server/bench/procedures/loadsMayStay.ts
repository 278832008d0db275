import { eq } from 'drizzle-orm';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import type { BookedKind } from '../../../core/workshop/job-kinds/kinds.js';
import { workshop } from '../../base/database/tables/people.js';
import type { Scope } from '../../base/database/client.js';

/** A procedure in which loads may stay on the supply, where the workshop's lead allows it for this kind of job and air goes first. */
export async function withAllowance(scope: Scope, workshopId: string, kind: BookedKind, procedure: Procedure): Promise<Procedure> {
  if (procedure.dry === null) return procedure;
  const [own] = await scope.select({ schools: workshop.schools }).from(workshop).where(eq(workshop.id, workshopId));
  return own?.schools.loadsMayStay?.includes(kind) ? { ...procedure, loadsMayStay: true } : procedure;
}
