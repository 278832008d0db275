import type { LoopComponent, LoopFile, LoopTube } from '../loop-file/loopFile.js';

/** Leaving one part out of a loop: its two tubes become one that passes it by. */

export const BYPASS_HINDRANCES = ['no-such-part', 'reservoir', 'one-piece', 'only-pump', 'not-two-tubes', 'bare-branch'] as const;
export type BypassHindrance = (typeof BYPASS_HINDRANCES)[number];

export interface Bypass {
  readonly loop: LoopFile;
  /** the tube that passes the part by: it keeps the id of the one that led to it */
  readonly tube: string;
  /** the tube that led on from it, and is no more */
  readonly goneTube: string;
}

const ends = ({ from, to }: LoopTube): readonly [string, string] => [from[0], to[0]];
const isMeeting = (loop: LoopFile, id: string): boolean => loop.tubes.filter((tube) => ends(tube).includes(id)).length > 2;

/** Why a part cannot be left out; null where it can. */
export function cannotBypass(loop: LoopFile, id: string): BypassHindrance | null {
  const part = loop.components.find((each) => each.id === id);
  if (!part) return 'no-such-part';
  if (part.kind === 'reservoir') return 'reservoir';
  if (part.unit !== undefined) return 'one-piece';
  if (part.kind === 'pump' && !hasOtherPump(loop, part)) return 'only-pump';
  const [one, other, more] = loop.tubes.filter((tube) => ends(tube).includes(id));
  if (!one || !other || more || one.from[0] === one.to[0]) return 'not-two-tubes';
  const near = [one, other].map((tube) => ends(tube).find((each) => each !== id) as string);
  // nothing is left in the branch: the flow would take it and leave the branches beside it without
  return near.every((each) => isMeeting(loop, each)) ? 'bare-branch' : null;
}

const hasOtherPump = (loop: LoopFile, { id }: LoopComponent): boolean =>
  loop.components.some((each) => each.kind === 'pump' && each.id !== id);

/**
 * The loop without a part. The tube that led to it goes on over the bends of the one that led away, and takes its length from them.
 * Before: `cannotBypass` has nothing against it.
 */
export function bypassPart(loop: LoopFile, id: string): Bypass {
  const [one, other] = loop.tubes.filter((tube) => ends(tube).includes(id)) as [LoopTube, LoopTube];
  // by the direction in which the file leads through the part, where it says one
  const [leads, leaves] = one.to[0] === id ? [one, other] : [other, one];
  const start = leads.to[0] === id ? leads : reversed(leads);
  const end = leaves.from[0] === id ? leaves : reversed(leaves);
  const { length_mm: _measured, ...kept } = leads;
  const through = {
    ...kept,
    from: start.from,
    to: end.to,
    path: [...(start.path ?? []), ...(end.path ?? [])],
    ...(start.fittings || end.fittings ? { fittings: [start.fittings?.[0] ?? 'compression', end.fittings?.at(-1) ?? 'compression'] } : {}),
  } as LoopTube;
  return {
    loop: {
      ...loop,
      components: loop.components.filter((each) => each.id !== id),
      tubes: loop.tubes.filter((tube) => tube !== leaves).map((tube) => (tube === leads ? through : tube)),
    },
    tube: leads.id,
    goneTube: leaves.id,
  };
}

const reversed = (tube: LoopTube): LoopTube => ({
  ...tube,
  from: tube.to,
  to: tube.from,
  ...(tube.path ? { path: [...tube.path].reverse() } : {}),
  ...(tube.fittings ? { fittings: [...tube.fittings].reverse() } : {}),
});
