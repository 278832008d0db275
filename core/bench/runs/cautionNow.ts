import type { FillOrder } from './fillOrder.js';
import { airInsideKpa } from './dryTest.js';
import { stepOf, type Procedure, type StepKind } from './procedure.js';
import type { RunState } from './state.js';

/** What can hurt somebody or something at this very moment, before what a step warns of in general. */
export type CautionFact =
  | { readonly caution: 'leak-open'; readonly place: string }
  | { readonly caution: 'splashed' }
  | { readonly caution: 'air-inside'; readonly mostKpa: number }
  | { readonly caution: 'turned' }
  | { readonly caution: 'pump-runs' }
  | { readonly caution: 'pump-next' }
  | { readonly caution: 'pouring' };

/** steps in which somebody pours and starts the pump, pulse by pulse or cycle by cycle */
const POURED: readonly StepKind[] = ['fill', 'rinse', 'bleed'];

/** The caution of now by what is happening, the gravest first; null: what the step itself says comes first. */
export function cautionNow(procedure: Procedure, state: RunState, order: FillOrder | null): CautionFact | null {
  const leak = state.leaks.find(({ mended }) => mended === null);
  if (leak) return { caution: 'leak-open', place: leak.where };
  if (state.spills.some(({ onElectronics, rinsedAt }) => onElectronics && rinsedAt === null)) return { caution: 'splashed' };
  if (airInsideKpa(procedure, state) !== null) return { caution: 'air-inside', mostKpa: procedure.facts?.mostGaugeKpa ?? 0 };
  if (state.stand.angleDeg > 0) return { caution: 'turned' };
  // nobody stands at the switch for a day: where nothing is poured the step's own words come first
  if (!POURED.includes(stepOf(procedure, state.current)?.kind ?? 'checks')) return null;
  if (state.pump?.on === true) return { caution: 'pump-runs' };
  if (order?.do === 'pump-on') return { caution: 'pump-next' };
  return order?.do === 'pour' || order?.do === 'pour-running' ? { caution: 'pouring' } : null;
}
