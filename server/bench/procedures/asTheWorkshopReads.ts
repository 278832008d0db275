import { USUAL_READING } from '../../../core/base/units/reading.js';
import { buildProcedure, type ProcedureInput } from '../../../core/bench/procedures/buildProcedure.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import type { Scope } from '../../base/database/client.js';
import { workshop } from '../../base/database/tables/people.js';
import { writtenFor } from '../../base/http/readers.js';

/** A led run is written in the workshop's language, whoever starts it: several people read it at one bench, and in years to come. */
export async function asTheWorkshopReads(scope: Scope, input: ProcedureInput): Promise<Procedure> {
  // the scope sees one workshop
  const [own] = await scope.select({ reading: workshop.reading }).from(workshop).limit(1);
  return writtenFor(own?.reading ?? USUAL_READING, () => buildProcedure(input));
}
