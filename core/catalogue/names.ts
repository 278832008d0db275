import { findComponent, type LoopComponent, type LoopFile, type LoopTube } from '../loops/loopFile.js';
import { findCataloguePart } from './parts.js';

/**
 * What a part is called at the bench and in drawings: the name that somebody gave it, else its id in words
 * ("roof radiator"). A catalogue label ("360 × 30 radiator, copper") is for fetching the part, and may stand twice in a loop.
 */
export function shortName(component: LoopComponent): string {
  const stock = component.catalogue === undefined ? undefined : findCataloguePart(component.catalogue)?.label;
  return component.label !== undefined && component.label !== stock ? component.label : component.id.replaceAll('-', ' ');
}

/** "processor → roof radiator": how a run is named at the bench. */
export function runName(loop: LoopFile, tube: LoopTube): string {
  const ends = [tube.from[0], tube.to[0]].map((id) => {
    const component = findComponent(loop, id);
    return component ? shortName(component) : id;
  });
  return `${ends[0]} → ${ends[1]}`;
}

/** What a part, run or item is called by its id; the id itself where the list does not hold it. */
export const nameIn = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
  list.find((each) => each.id === id)?.name ?? id;
