import { say } from '../../base/words/say.js';
import { freshId } from '../loop-file/chain.js';
import type { LoopComponent, LoopFile, LoopTube, Point } from '../loop-file/loopFile.js';
import { findCataloguePart, makeComponent, type CataloguePart } from './parts.js';
import type { Place } from './places.js';

/**
 * Pump and reservoir in one piece: to the flow a reservoir with a pump at its outlet, to the hands one part. Between the two there is
 * no tube to cut, no fitting to tighten, and no joint to look at.
 */
export interface CatalogueUnit {
  readonly key: string;
  readonly label: string;
  readonly reservoir: string;
  readonly pump: string;
  readonly places: readonly Place[];
}

export const UNITS: readonly CatalogueUnit[] = [
  { key: 'unit-120', label: '120 mL reservoir and compact pump, one piece', reservoir: 'reservoir-120', pump: 'pump-compact', places: ['tray', 'front', 'floor'] }, // prettier-ignore
  { key: 'unit-200', label: '200 mL reservoir and compact pump, one piece', reservoir: 'reservoir-200', pump: 'pump-compact', places: ['tray', 'front', 'floor'] }, // prettier-ignore
  { key: 'unit-260', label: '260 mL reservoir and large pump, one piece', reservoir: 'reservoir-260', pump: 'pump-top', places: ['tray', 'front', 'floor'] }, // prettier-ignore
];

export const findUnit = (key: string): CatalogueUnit | undefined => UNITS.find((unit) => unit.key === key);

/** mm; the channel between the two, so short that what it holds is no matter */
const CHANNEL = { lengthMm: 1, boreMm: 10, outerMm: 12 } as const;

const stock = (key: string): CataloguePart => {
  const part = findCataloguePart(key);
  if (!part) throw new Error(`no catalogue part ${key}`);
  return part;
};

/** Its two components, the pump right under the reservoir's outlet. `taken`: ids of the loop; the new ones are added. */
export function makeUnit({ key, label, reservoir, pump }: CatalogueUnit, place: Place, taken: Set<string>): LoopComponent[] {
  const unit = freshId(taken, `unit-${place}`);
  const above = makeComponent(stock(reservoir), place, freshId(taken, `reservoir-${place}`));
  const below = makeComponent(stock(pump), place, freshId(taken, `pump-${place}`));
  const outlet = above.ports.out as Point;
  const inlet = below.ports.in as Point;
  const under = (at: Point): Point => [at[0] + outlet[0] - inlet[0], at[1] + outlet[1] - inlet[1], at[2] + outlet[2] - inlet[2]];
  const shared = { unit, catalogue_unit: key };
  return [
    { ...above, ...shared, label: say('{label}: reservoir', { label }) },
    {
      ...below,
      ...shared,
      label: say('{label}: pump', { label }),
      ports: Object.fromEntries(Object.entries(below.ports).map(([port, at]) => [port, under(at)])),
    },
  ];
}

export const unitOf = ({ unit }: LoopComponent): string | null => (typeof unit === 'string' ? unit : null);

/** Whether liquid goes from one to the other inside one piece. */
export const isOnePiece = (from: LoopComponent, to: LoopComponent): boolean =>
  unitOf(from) !== null && unitOf(from) === unitOf(to) && from.kind === 'reservoir' && to.kind === 'pump';

/** The channel inside a unit, as the loop file has it. */
export const channel = (id: string, from: LoopTube['from'], to: LoopTube['to']): LoopTube => ({
  id,
  from,
  to,
  inside: true,
  bore_mm: CHANNEL.boreMm,
  outer_mm: CHANNEL.outerMm,
  length_mm: CHANNEL.lengthMm,
  material: 'acrylic',
  path: [],
  fittings: [],
});

/** What stands together in one piece with a part, itself included. */
export function ofOnePiece({ components }: Pick<LoopFile, 'components'>, id: string): string[] {
  const part = components.find((each) => each.id === id);
  const unit = part ? unitOf(part) : null;
  return unit === null ? [id] : components.filter((each) => unitOf(each) === unit).map((each) => each.id);
}
