import type { DueInput } from '../../../core/workshop/due-dates/due.js';
import type { coolantProduct } from '../../base/database/tables/coolants.js';
import type { fill } from '../../base/database/tables/runs.js';
import type { system } from '../../base/database/tables/machines.js';
import type { Scope } from '../../base/database/client.js';
import { falloutByLoop } from './falloutSeen.js';
import { hotSeasonOf } from './dust.js';
import { policyResolver } from './policies.js';
import { learnedMonths } from './learnedMonths.js';
import { figuresOf, readingsBySystem } from './usageFigures.js';
import { wearByLoop } from './wear.js';

/** One fill, in what, of which liquid: what its clocks are counted from. */
export interface ClockFacts {
  readonly loopId: string;
  readonly fill: Pick<typeof fill.$inferSelect, 'filledOn' | 'intervalShare' | 'intervalReason' | 'promisedOn'>;
  readonly product: Pick<typeof coolantProduct.$inferSelect, 'id' | 'coolantClass' | 'name' | 'sheetLifeMonths' | 'sheetLifeHours'>;
  readonly machine: Pick<typeof system.$inferSelect, 'id' | 'ownerId' | 'hoursPerDay' | 'coolantC' | 'condition'>;
}

/**
 * The one place where the inputs of a coolant's clocks are put together: what the policy, the sheet, the machine's use,
 * its wear and the season say.
 * @param some loops and machines that it will be asked about; null: any of the workshop's, which are too many to list
 */
export async function clockInputs(
  scope: Scope,
  some: { readonly loopIds: readonly string[]; readonly systemIds: readonly string[] } | null,
): Promise<(facts: ClockFacts) => DueInput> {
  const policyOf = await policyResolver(scope);
  const wear = await wearByLoop(scope, some?.loopIds ?? null);
  const readings = await readingsBySystem(scope, some?.systemIds ?? null);
  const season = await hotSeasonOf(scope);
  const learnedOf = await learnedMonths(scope);
  const falloutOf = await falloutByLoop(scope, some?.loopIds ?? null);
  return ({ loopId, fill: { filledOn, intervalShare, intervalReason, promisedOn }, product, machine }) => ({
    filledOn,
    coolantClass: product.coolantClass,
    productName: product.name,
    sheetLifeMonths: product.sheetLifeMonths,
    sheetLifeHours: product.sheetLifeHours,
    ...policyOf(machine.id, machine.ownerId),
    ...figuresOf(readings.get(machine.id), machine, filledOn),
    season,
    condition: machine.condition,
    learned: learnedOf(product),
    fallout: falloutOf(loopId, filledOn),
    ...wear.get(loopId),
    intervalShare,
    intervalReason,
    promisedOn,
  });
}
