import type { Moved as MovedAnswer } from '../../../core/workshop/coolants/answers.js';
import { clockInputs } from './clockInputs.js';
import { and, eq, isNotNull, type SQL } from 'drizzle-orm';
import { redateAll, type OpenService, type Redated } from '../../../core/workshop/due-dates/redate.js';
import { fill } from '../../base/database/tables/runs.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import type { Scope } from '../../base/database/client.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { redateStirring } from './stirring.js';
import { hotSeasonOf, redateDust } from './dust.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { tellDates, WRITTEN_AT_ONCE, writeDates } from './writeDates.js';

/** What changed, and so whose dates are computed anew. */
export type RedateCause =
  { readonly productId: string } | { readonly systemId: string } | { readonly ownerId: string } | { readonly everything: true };

/** A machine whose date moved, with whom to tell. */
export type Moved = Redated & MovedAnswer;

function which(cause: RedateCause): SQL | undefined {
  if ('productId' in cause) return eq(fill.productId, cause.productId);
  if ('systemId' in cause) return eq(dueItem.systemId, cause.systemId);
  return 'ownerId' in cause ? eq(system.ownerId, cause.ownerId) : undefined;
}

/**
 * Computes the open coolant services that a change touches anew, and writes those that move.
 * @returns them, the earliest first
 */
export async function redate(scope: Scope, cause: RedateCause): Promise<Moved[]> {
  const rows = await scope
    .select({
      item: {
        id: dueItem.id,
        workshopId: dueItem.workshopId,
        loopId: dueItem.loopId,
        dueOn: dueItem.dueOn,
        reason: dueItem.reason,
        clocks: dueItem.clocks,
        postponed: dueItem.postponed,
      },
      fill: {
        filledOn: fill.filledOn,
        intervalShare: fill.intervalShare,
        intervalReason: fill.intervalReason,
        promisedOn: fill.promisedOn,
      },
      product: {
        id: coolantProduct.id,
        coolantClass: coolantProduct.coolantClass,
        name: coolantProduct.name,
        sheetLifeMonths: coolantProduct.sheetLifeMonths,
        sheetLifeHours: coolantProduct.sheetLifeHours,
      },
      system: {
        id: system.id,
        name: system.name,
        ownerId: system.ownerId,
        hoursPerDay: system.hoursPerDay,
        coolantC: system.coolantC,
        condition: system.condition,
      },
      owner: { name: owner.name, phone: owner.phone, email: owner.email, channel: owner.channel },
    })
    .from(dueItem)
    .innerJoin(fill, eq(fill.id, dueItem.fillId))
    .innerJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .innerJoin(system, eq(system.id, dueItem.systemId))
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(and(eq(dueItem.state, 'open'), eq(dueItem.kind, 'coolant-service'), isNotNull(dueItem.fillId), which(cause)));
  // a product may stand in thousands of machines: their list would be longer than the whole
  const one = 'systemId' in cause || 'ownerId' in cause;
  const inputOf = await clockInputs(
    scope,
    one ? { loopIds: rows.map(({ item }) => item.loopId), systemIds: rows.map(({ system: machine }) => machine.id) } : null,
  );
  const asOpen = ({ item, fill: own, product, system: machine }: (typeof rows)[number]): OpenService => ({
    id: item.id,
    dueOn: item.dueOn,
    reason: item.reason,
    clocks: item.clocks,
    postponed: item.postponed,
    from: inputOf({ loopId: item.loopId, fill: own, product, machine }),
  });
  const { open, moved } = await writeMoved(scope, rows, asOpen);
  if (moved.length > 0) await tellDates(scope);
  if (!('productId' in cause)) await redateDust(scope, which(cause), await hotSeasonOf(scope));
  const stirs = rows.map(({ item, system: machine, fill: own }, index) => {
    const { coolantClass, hoursPerDay } = (open[index] as OpenService).from;
    return { workshopId: item.workshopId, systemId: machine.id, loopId: item.loopId, filledOn: own.filledOn, coolantClass, hoursPerDay };
  });
  await redateStirring(scope, stirs);
  const byItem = new Map(rows.map((row) => [row.item.id, row]));
  return moved
    .map((each): Moved => {
      const { system: machine, owner: owner } = byItem.get(each.id) as (typeof rows)[number];
      return {
        ...each,
        systemId: machine.id,
        systemName: machine.name,
        ownerName: owner.name,
        phone: owner.phone,
        email: owner.email,
        channel: owner.channel,
      };
    })
    .sort((a, b) => a.dueOn.localeCompare(b.dueOn));
}

/** Reckons and writes, piece by piece: the database writes what moved while the next ones are reckoned. */
async function writeMoved<Row>(
  scope: Scope,
  rows: readonly Row[],
  asOpen: (row: Row) => OpenService,
): Promise<{ open: OpenService[]; moved: Redated[] }> {
  const open: OpenService[] = [];
  const moved: Redated[] = [];
  let writing: Promise<void> = Promise.resolve();
  for (let from = 0; from < rows.length; from += WRITTEN_AT_ONCE) {
    const some = rows.slice(from, from + WRITTEN_AT_ONCE).map(asOpen);
    const movedOnes = redateAll(some);
    open.push(...some);
    moved.push(...movedOnes);
    await writing;
    writing = writeDates(scope, movedOnes);
    // it is awaited before anything else happens; were the reckoning to fail meanwhile, nobody would
    void writing.catch(() => undefined);
  }
  await writing;
  return { open, moved };
}
