import { say } from '../../../core/base/words/say.js';
import { eq } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import { loop } from '../../base/database/tables/loops.js';
import { system } from '../../base/database/tables/machines.js';
import { DomainError, notFound } from '../../base/http/errors.js';

/** The loop with its machine, locked against a second start. Retired ones are refused. */
export async function lockLoop(scope: Scope, loopId: string) {
  const [own] = await scope
    .select({ loop, system })
    .from(loop)
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(eq(loop.id, loopId))
    .for('update');
  if (!own) throw notFound('loop');
  if (own.system.state === 'retired') throw new DomainError('refused', say('This system is retired; bring it back into service first.'));
  return own;
}
