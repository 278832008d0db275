import { closeChain, type ChainEntry } from '../loop-file/chain.js';
import { LOOP_FORMAT, LOOP_VERSION, type LoopComponent, type LoopFile } from '../loop-file/loopFile.js';
import { findCataloguePart, makeComponent, suggestLengthMm, TUBE_KINDS, type TubeKind } from './parts.js';
import type { Place } from './places.js';

export const emptyLoop = (name: string): LoopFile => ({ format: LOOP_FORMAT, version: LOOP_VERSION, name, components: [], tubes: [] });

/** [catalogue key, place, id] in flow order */
export type PartPick = readonly [string, Place, string];

export interface Starter {
  readonly key: string;
  readonly label: string;
  readonly picks: readonly PartPick[];
}

export const STARTERS: readonly Starter[] = [
  {
    key: 'processor',
    label: 'Processor, one radiator',
    picks: [
      ['reservoir-200', 'tray', 'reservoir'],
      ['pump-top', 'tray', 'pump'],
      ['block-processor', 'board', 'processor'],
      ['radiator-240-30', 'roof', 'roof-radiator'],
      ['tee-drain', 'floor', 'drain'],
    ],
  },
  {
    key: 'processor-graphics',
    label: 'Processor and graphics card, two radiators',
    picks: [
      ['reservoir-260', 'tray', 'reservoir'],
      ['pump-large', 'tray', 'pump'],
      ['tee-drain', 'floor', 'drain'],
      ['block-graphics', 'card', 'graphics'],
      ['block-processor', 'board', 'processor'],
      ['radiator-360-30', 'roof', 'roof-radiator'],
      ['radiator-360-30', 'front', 'front-radiator'],
    ],
  },
  {
    key: 'large',
    label: 'Large tower, three radiators',
    picks: [
      ['reservoir-400', 'tray', 'reservoir'],
      ['pump-large', 'tray', 'pump'],
      ['tee-drain', 'floor', 'drain'],
      ['radiator-360-30', 'floor', 'floor-radiator'],
      ['block-graphics', 'card', 'graphics'],
      ['flow-meter', 'tray', 'meter'],
      ['block-processor', 'board', 'processor'],
      ['radiator-360-45', 'roof', 'roof-radiator'],
      ['radiator-360-45', 'front', 'front-radiator'],
    ],
  },
];

const defaultTube = TUBE_KINDS[0] as TubeKind;

/** The tube after `from` towards `to`, with an estimated length. `ports`: where it leaves and enters; missing: by their direction. */
export function suggestCut(
  from: LoopComponent,
  to: LoopComponent,
  kind: TubeKind = defaultTube,
  [outPort, inPort]: readonly [string, string] = [
    from.flow?.[1] ?? Object.keys(from.ports)[0] ?? '',
    to.flow?.[0] ?? Object.keys(to.ports)[0] ?? '',
  ],
): ChainEntry['cut'] {
  return {
    id: `${from.id}--${to.id}`,
    bore_mm: kind.boreMm,
    outer_mm: kind.outerMm,
    material: kind.material,
    length_mm: suggestLengthMm([from, to], [from.id, outPort], [to.id, inPort]),
    fittings: ['compression', 'compression'],
  };
}

/** A whole series loop from picks, every tube estimated. */
export function buildLoop(name: string, picks: readonly PartPick[], kind: TubeKind = defaultTube): LoopFile {
  const components = picks.map(([key, place, id]) => {
    const part = findCataloguePart(key);
    if (!part) throw new Error(`no catalogue part ${key}`);
    return makeComponent(part, place, id);
  });
  const entries = components.map((component, index): ChainEntry => ({
    component,
    cut: suggestCut(component, components[(index + 1) % components.length] as LoopComponent, kind),
  }));
  return closeChain(emptyLoop(name), entries);
}
