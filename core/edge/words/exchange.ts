import { say } from '../../base/words/say.js';
import { nameIn } from '../../machine/catalogue/names.js';
import { placesOf, type Procedure } from '../../bench/runs/procedure.js';
import type { RunState } from '../../bench/runs/state.js';

/** What went in anew in a run, as the reason of the revision that it makes: "exchanged: pump (the same, new)". Empty: nothing did. */
export function exchangeWords(procedure: Procedure, { service: { swaps } }: Pick<RunState, 'service'>): string {
  const changed = swaps.filter(({ action }) => action === 'replaced' || action === 'fitted');
  const words = changed.map(({ item, text }) => `${nameIn(placesOf(procedure), item)} (${text})`);
  return words.length === 0 ? '' : say('exchanged: {join}', { join: words.join(', ') });
}
