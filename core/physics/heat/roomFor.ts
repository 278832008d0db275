import { exchangePart } from '../../machine/exchange/exchange.js';
import { largestAt, measuredPlaces } from '../../machine/fit/radiatorsAt.js';
import type { CataloguePart } from '../../machine/catalogue/parts.js';
import type { Place } from '../../machine/catalogue/places.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { AirPath, HeatResult } from './steady.js';
import { withRadiator } from './variants.js';

/** A place of the case with the largest radiator that its measured room takes, and the loop with it. */
export interface RoomVariant {
  readonly place: Place;
  /** null: none of those that are known fits */
  readonly largest: Pick<CataloguePart, 'key' | 'label'> | null;
  /** radiator that stands there now */
  readonly now: string | null;
  /** null: nothing would change, or it cannot be joined to this loop */
  readonly loop: LoopFile | null;
}

/** Every place where room was measured, with what could stand there: in place of what stands there now, or as one more. */
export function roomVariants(loop: LoopFile, choices: readonly CataloguePart[]): RoomVariant[] {
  return measuredPlaces(loop).map((place): RoomVariant => {
    const part = largestAt(loop, place, choices);
    const there = loop.components.find((each) => each.kind === 'radiator' && each.place === place);
    const now = there?.id ?? null;
    if (!part || there?.catalogue === part.key) return { place, largest: part && named(part), now, loop: null };
    if (!there) {
      const more = withRadiator(loop, part, place);
      return { place, largest: named(part), now, loop: more === loop ? null : more };
    }
    const other = exchangePart(loop, there.id, part);
    return { place, largest: named(part), now, loop: 'loop' in other ? other.loop : null };
  });
}

const named = ({ key, label }: CataloguePart): Pick<CataloguePart, 'key' | 'label'> => ({ key, label });

/** The air of a loop with another radiator in one place: it comes with fans over its whole face, whatever the old one had. */
export const airWith = (loop: LoopFile, other: LoopFile, air: Readonly<Record<string, AirPath>>): Record<string, AirPath> =>
  Object.fromEntries(
    Object.entries(air).map(([id, path]) => {
      const [old, now] = [loop, other].map(({ components }) => components.find((part) => part.id === id)?.catalogue);
      const { covered: _of, ...whole } = path;
      return [id, old === now ? path : whole];
    }),
  );

/** K by which the part that is warmest now would change; null where one of both cannot be told. */
export function warmestChangeK(now: HeatResult, then: HeatResult): { readonly id: string; readonly byK: number } | null {
  const [warmest] = now.parts.filter(({ partC }) => partC !== null).sort((one, other) => (other.partC ?? 0) - (one.partC ?? 0));
  const after = then.parts.find(({ id }) => id === warmest?.id)?.partC;
  if (now.end !== 'solved' || then.end !== 'solved' || !warmest || after === undefined || after === null) return null;
  return { id: warmest.id, byK: after - (warmest.partC as number) };
}
