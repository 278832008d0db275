import { placesOf, type Procedure } from '../../../core/bench/runs/procedure.js';
import { liesOutside, type RunState } from '../../../core/bench/runs/state.js';
import { nameIn } from '../../../core/machine/catalogue/names.js';
import type { PasteLayer } from '../../../core/workshop/due-dates/facts.js';

/** What a run put under its blocks, and which of them it took out. */
export function pastedIn(
  { service }: Pick<RunState, 'service'>,
  procedure: Procedure,
): { layers: Omit<PasteLayer, 'since'>[]; gone: string[] } {
  const names = placesOf(procedure);
  const last = new Map(
    service.pastes.flatMap(({ items, medium, product }) =>
      items.map((item) => [item, { item, name: nameIn(names, item), medium, product }] as const),
    ),
  );
  return { layers: [...last.values()], gone: service.swaps.filter(liesOutside).map(({ item }) => item) };
}
