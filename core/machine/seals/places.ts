import { say } from '../../base/words/say.js';
import { shortName } from '../catalogue/names.js';
import { unusedPorts } from '../loop-file/fittings.js';
import { tubesByHand, type LoopComponent, type LoopFile } from '../loop-file/loopFile.js';

/**
 * Every place of a loop that seals besides the ends of its tubes: what closes a port, and what lies inside a part. A port is called by its
 * place, "component.port"; what lies inside a part by what it is, "component#base".
 */
export const SEAL_KINDS = ['plug', 'cap', 'valve', 'base', 'top', 'gasket', 'end'] as const;
export type SealKind = (typeof SEAL_KINDS)[number];

export interface SealPlace {
  readonly id: string;
  readonly kind: SealKind;
  /** id of the part that it is at */
  readonly part: string;
  readonly name: string;
  /** it has a ring or gasket that ages; the soldered ends of a radiator have none */
  readonly hasRing: boolean;
}

const INSIDE = '#';
/** The part that a place inside one is at; the id itself for any other place. */
export const partOfPlace = (id: string): string => (id.includes(INSIDE) ? (id.split(INSIDE)[0] as string) : id);
export const isInsidePart = (id: string): boolean => id.includes(INSIDE);
/** What closes a port, or lies inside a part: no part, no tube. */
export const isSeal = (id: string): boolean => id.includes('.') || isInsidePart(id);

/** What closes a port, by its part and place. */
export const closureName = (part: LoopComponent, port: string, closure: string): string =>
  say('{closure} of {shortName}, {port}', { closure, shortName: shortName(part), port });

const isClosure = (closure: string): closure is 'plug' | 'cap' | 'valve' => ['plug', 'cap', 'valve'].includes(closure);

/** Whether a pump and a reservoir are one piece: the ring between them is the reservoir's, told of once. */
function isUnderReservoir(loop: LoopFile, pump: LoopComponent): boolean {
  const byHand = new Set(tubesByHand(loop));
  const reservoirs = new Set(loop.components.filter(({ kind }) => kind === 'reservoir').map(({ id }) => id));
  return loop.tubes.some(
    (tube) =>
      !byHand.has(tube) &&
      [tube.from[0], tube.to[0]].includes(pump.id) &&
      [tube.from[0], tube.to[0]].some((end) => end !== pump.id && reservoirs.has(end)),
  );
}

function insideOf(loop: LoopFile, part: LoopComponent): SealPlace[] {
  const inside = (kind: SealKind, name: string, hasRing = true): SealPlace[] => [
    { id: `${part.id}${INSIDE}${kind}`, kind, part: part.id, name, hasRing },
  ];
  const name = shortName(part);
  switch (part.kind) {
    case 'reservoir':
      return inside('base', say('base ring of {name}', { name }));
    case 'pump':
      return isUnderReservoir(loop, part) ? [] : inside('top', say('ring under the top of {name}', { name }));
    case 'block':
      return inside('gasket', say('gasket of {name}', { name }));
    case 'radiator':
      return inside('end', say('end chambers of {name}', { name }), false);
    default:
      return [];
  }
}

/** Part by part, in the drawing's order: what closes its ports, then what lies inside it. */
export const sealPlaces = (loop: LoopFile): SealPlace[] =>
  loop.components.flatMap((part) => [
    ...unusedPorts(loop, part).map((port): SealPlace => {
      const closure = part.closures?.[port] ?? 'plug';
      return {
        id: `${part.id}.${port}`,
        kind: isClosure(closure) ? closure : 'plug',
        part: part.id,
        name: closureName(part, port, closure),
        hasRing: true,
      };
    }),
    ...insideOf(loop, part),
  ]);

const COUNTED: Readonly<Record<SealKind, (count: number) => string>> = {
  plug: (count) => say('{count, plural, one {one plug} other {{count} plugs}}', { count }),
  cap: (count) => say('{count, plural, one {one cap} other {{count} caps}}', { count }),
  valve: (count) => say('{count, plural, one {one valve} other {{count} valves}}', { count }),
  base: (count) => say('{count, plural, one {one reservoir base} other {{count} reservoir bases}}', { count }),
  top: (count) => say('{count, plural, one {one pump top} other {{count} pump tops}}', { count }),
  gasket: (count) => say('{count, plural, one {one block gasket} other {{count} block gaskets}}', { count }),
  end: () => '',
};

/** Rings and gaskets of a loop by what they belong to, for the spares that lie ready. */
export function ringWords(loop: LoopFile): string {
  const rings = sealPlaces(loop).filter(({ hasRing }) => hasRing);
  const ends = tubesByHand(loop).length * 2;
  const words = SEAL_KINDS.flatMap((kind) => {
    const count = rings.filter((each) => each.kind === kind).length;
    return count > 0 ? [COUNTED[kind](count)] : [];
  });
  return [...(ends > 0 ? [say('{ends} tube ends', { ends })] : []), ...words].join(', ');
}
