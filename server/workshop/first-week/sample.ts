import { say } from '../../../core/base/words/say.js';
import { eq } from 'drizzle-orm';
import { buildLoop, STARTERS, type Starter } from '../../../core/machine/catalogue/starters.js';
import type { FirstWeekAnswer } from '../../../core/workshop/first-week/firstWeek.js';
import { loop } from '../../base/database/tables/loops.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import type { Ask } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { insertRevision } from '../../machine/loops/revisions.js';
import { openBatch } from '../importing/batch.js';
import { readFirstWeek } from './firstWeek.js';

const SAMPLE = { owner: 'Nobody (a sample)', machine: 'Sample tower', loop: 'Main loop', starter: 'processor-graphics' } as const;

/** A machine to try things with: planned, laid out, and taken back like a table that was brought in, as long as nobody led a run on it. */
export async function addSample(ask: Ask): Promise<FirstWeekAnswer> {
  const { scope, account } = ask;
  const [known] = await scope.select({ id: system.id }).from(system).where(eq(system.isSample, true)).limit(1);
  if (known) throw new DomainError('refused', say('{machine} is there already.', { machine: SAMPLE.machine }));
  const { workshopId, personId } = account;
  const batch = await openBatch(ask, { kind: 'machines', fileName: SAMPLE.machine }, { owners: 1, systems: 1, works: 0, coolants: 0 });
  const [madeOwner] = await scope
    .insert(owner)
    .values({ workshopId, name: SAMPLE.owner, channel: 'phone', importId: batch.id })
    .returning({ id: owner.id });
  const [madeSystem] = await scope
    .insert(system)
    .values({
      workshopId,
      ownerId: (madeOwner as { id: string }).id,
      name: SAMPLE.machine,
      state: 'planned',
      isSample: true,
      importId: batch.id,
    })
    .returning({ id: system.id });
  const [coolant] = await scope.select({ id: coolantProduct.id }).from(coolantProduct).limit(1);
  const systemId = (madeSystem as { id: string }).id;
  const [madeLoop] = await scope
    .insert(loop)
    .values({ workshopId, systemId, name: SAMPLE.loop, coolantProductId: coolant?.id ?? null, createdAt: batch.at })
    .returning({ id: loop.id });
  const file = buildLoop(SAMPLE.loop, (STARTERS.find(({ key }) => key === SAMPLE.starter) as Starter).picks);
  await insertRevision(scope, {
    workshopId,
    loopId: (madeLoop as { id: string }).id,
    number: 1,
    kind: 'planned',
    reason: '',
    personId,
    file,
    at: batch.at,
  });
  return readFirstWeek(ask);
}
