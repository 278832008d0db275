import { COOLANT_CLASSES } from '../../machine/liquids/classes.js';
import type { ColourRead } from '../../machine/liquids/colourSchema.js';
import type { MixVerdict } from '../../machine/liquids/mixing.js';
import type { LoopHistory } from './answers.js';
import { adviseScope, type ScopeAdvice, type Sign } from './scope.js';

/** What was said and seen of a machine as it comes in. */
export interface SaidOfIt {
  readonly signs: readonly Sign[];
  readonly flowLph: number | null;
  readonly colour?: ColourRead | null;
  /** coolant that was asked for; null: what is inside is poured again */
  readonly productId: string | null;
}

/** Nobody has said anything yet. */
export const NOTHING_SAID: SaidOfIt = { signs: [], flowLph: null, colour: null, productId: null };

/**
 * The lightest job that is safe, by a loop's history and what was said today.
 * @param meets whether what will be poured may meet what is inside; null: nobody said what will be poured
 */
export const adviseByHistory = (said: SaidOfIt, history: LoopHistory, meets: MixVerdict | null): ScopeAdvice =>
  adviseScope({
    coolantClass: history.coolantClass,
    ageDays: history.ageDays,
    lifeMonths: history.lifeMonths ?? (history.coolantClass ? COOLANT_CLASSES[history.coolantClass].baseLifeMonths : null),
    flowRatio: said.flowLph !== null && history.baselineFlowLph !== null ? said.flowLph / history.baselineFlowLph : null,
    risenK: history.risenK,
    signs: said.signs,
    fallout: history.fallout?.stage ?? null,
    colour: said.colour ?? null,
    dueSoon: history.dueSoon,
    sameCoolantFollows: history.coolantClass !== null && (meets === null || meets === 'fine'),
    otherAsked: said.productId !== null && meets !== null && meets !== 'fine',
  });
