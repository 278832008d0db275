import { nameIn } from '../../machine/catalogue/names.js';
import { placesOf, type Procedure } from '../../bench/runs/procedure.js';
import type { RunState } from '../../bench/runs/state.js';

/** What was exchanged in a run, as the reason of the revision that it makes: "exchanged: pump (the same, new)". Empty: nothing was. */
export function exchangeWords(procedure: Procedure, { service: { swaps } }: Pick<RunState, 'service'>): string {
  const changed = swaps.filter(({ action }) => action === 'replaced' || action === 'fitted' || action === 'removed');
  if (changed.length === 0) return '';
  const words = changed.map(
    ({ item, action, text }) => `${nameIn(placesOf(procedure), item)} ${action === 'removed' ? 'out' : 'new'} (${text})`,
  );
  return `exchanged: ${words.join(', ')}`;
}
