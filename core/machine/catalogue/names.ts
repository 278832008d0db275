import { findComponent, tubesByHand, type LoopComponent, type LoopFile, type LoopTube } from '../loop-file/loopFile.js';
import { flowOrder } from '../loop-file/chain.js';
import { findCataloguePart } from './parts.js';

/**
 * What a part is called at the bench and in drawings: the name that somebody gave it, else its id in words
 * ("roof radiator"). A catalogue label ("360 × 30 radiator, copper") is for fetching the part, and may stand twice in a loop.
 */
export function shortName(component: LoopComponent): string {
  const stock = component.catalogue === undefined ? undefined : findCataloguePart(component.catalogue)?.label;
  return component.label !== undefined && component.label !== stock ? component.label : component.id.replaceAll('-', ' ');
}

/** "processor → roof radiator": how a tube is named at the bench. */
export function tubeName(loop: LoopFile, tube: LoopTube): string {
  const ends = [tube.from[0], tube.to[0]].map((id) => {
    const component = findComponent(loop, id);
    return component ? shortName(component) : id;
  });
  return `${ends[0]} → ${ends[1]}`;
}

/** Tubes that hands join, in the order the coolant meets them, those off the path last. */
export const tubesInOrder = (loop: LoopFile): { id: string; name: string }[] => {
  const { links, offPath } = flowOrder(loop);
  const tubes = [...links.flatMap(({ tube }) => (tube ? [tube] : [])), ...offPath.tubes];
  return tubesByHand({ tubes }).map((tube) => ({ id: tube.id, name: tubeName(loop, tube) }));
};

/** What a part, tube or item is called by its id; the id itself where the list does not hold it. */
export const nameIn = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
  list.find((each) => each.id === id)?.name ?? id;
