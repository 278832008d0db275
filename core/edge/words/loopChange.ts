import { say } from '../../base/words/say.js';
import { formatIn } from '../../base/units/display.js';
import { groupBy } from '../../base/numerics/groupBy.js';
import { tubeToHave, type ChangedPart, type LoopChange, type TubeChange } from '../../machine/loop-change/loopChange.js';
import type { StoreUnit } from '../../workshop/store/schema.js';
import { fittingWords } from './fittings.js';

/** The work between two drawings of a loop, as it is told before it is booked and bought. */

/** What a line of it is: out of the loop, into it, or done to what stays. */
export interface ChangeGroup {
  readonly key: 'out' | 'in' | 'stays';
  readonly lines: readonly string[];
}

const tubeLine = ({ name, fate, lengthMm, cutFrom }: TubeChange): string => {
  const long = formatIn('mm', lengthMm ?? 0);
  switch (fate) {
    case 'new':
      return say('new piece of {long}: {name}', { long, name });
    case 'cut':
      return cutFrom === null
        ? say('cut back to {long}: {name}', { long, name })
        : say('{long}, cut from a tube that comes out: {name}', { long, name });
    case 'out':
      return say('tube {name}', { name });
    default:
      return say('seated at another port: {name}', { name });
  }
};

/** As it stands in the drawing, with what it is fetched by. */
const partLine = ({ name, label }: ChangedPart): string => (label === name ? name : `${name} (${label})`);

export function changeGroups({ out, in: into, moved, tubes, ports }: LoopChange): ChangeGroup[] {
  const of = (...fates: TubeChange['fate'][]): string[] => tubes.filter(({ fate }) => fates.includes(fate)).map(tubeLine);
  const groups: ChangeGroup[] = [
    {
      key: 'out',
      lines: [...out.map(partLine), ...of('out'), ...ports.filter(({ does }) => does === 'opens').map(({ name }) => say('what closes {name}', { name }))], // prettier-ignore
    },
    {
      key: 'in',
      lines: [...into.map(partLine), ...of('new'), ...ports.filter(({ does }) => does === 'closes').map(({ name }) => say('a plug at {name}', { name }))], // prettier-ignore
    },
    { key: 'stays', lines: [...moved.map(({ name }) => say('{name} mounted elsewhere', { name })), ...of('cut', 'reseated')] },
  ];
  return groups.filter(({ lines }) => lines.length > 0);
}

/** What has to be bought or taken from the shelf for it: parts, tube, fittings, a ring for each joint that is made. */
export interface ToHave {
  readonly what: string;
  readonly amount: number;
  readonly unit: StoreUnit;
}

export function toHave(change: LoopChange): ToHave[] {
  const tube = tubeToHave(change).map(({ boreMm, outerMm, piecesMm, material }): ToHave => {
    const mm = piecesMm.reduce((sum, each) => sum + each, 0);
    return {
      what: say('tube {boreMm}/{outerMm} mm, {material}', { boreMm, outerMm, material }),
      amount: Math.ceil(mm / 100) / 10,
      unit: 'm',
    };
  });
  const fittings = change.fittings
    .filter(({ count }) => count > 0)
    .map(({ kind, count }): ToHave => ({ what: fittingWords(kind, 2), amount: count, unit: 'pcs' }));
  const rings = 2 * change.made.length;
  return [
    // what does not fit is not bought before its drawing is put right
    ...[
      ...groupBy(
        change.in.filter(({ fit }) => fit?.state !== 'does-not'),
        ({ label }) => label,
      ),
    ].map(([what, own]): ToHave => ({ what, amount: own.length, unit: 'pcs' })),
    ...tube,
    ...fittings,
    ...(rings > 0 ? [{ what: say('rings for joints that are made'), amount: rings, unit: 'pcs' } as const] : []),
  ];
}
