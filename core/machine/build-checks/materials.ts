import { formatIn } from '../../base/units/display.js';
import { say } from '../../base/words/say.js';
import { findCircuits } from '../loop-file/circuits.js';
import { partName, type LoopFile } from '../loop-file/loopFile.js';
import { judgeMetals } from '../materials/metals.js';
import type { LoopFinding } from './finding.js';

/** Metals that do not go together in one circuit, and parts whose pressure rating nobody wrote down. */
export function materialFindings(loop: LoopFile): LoopFinding[] {
  const metals = findCircuits(loop).flatMap(({ components }) =>
    judgeMetals(components.flatMap(({ materials }) => materials ?? []))
      .filter(({ verdict }) => verdict === 'warn' || verdict === 'refuse')
      .map(({ baser, nobler, verdict, why }): LoopFinding => {
        const owner = components.find(({ materials }) => materials?.includes(baser));
        return {
          code: 'mixed-metals',
          weight: verdict === 'refuse' ? 'stop' : 'look',
          part: owner?.id ?? null,
          text: say('{baser} beside {nobler}: {why}.', { baser, nobler, why }),
          todo: owner
            ? say('Exchange {partName}, or take a coolant whose sheet allows both.', { partName: partName(owner) })
            : say('Take a coolant whose sheet allows both.'),
        };
      }),
  );
  const unrated = loop.components.filter(({ pressure_rating_kpa: rating }) => rating === undefined);
  if (unrated.length === 0) return metals;
  return [
    ...metals,
    {
      code: 'no-pressure-rating',
      weight: 'note',
      part: null,
      text: say('{length} of {length2} parts carry no pressure rating.', { length: unrated.length, length2: loop.components.length }),
      todo: say('Stay at or below {usual} in the air test until their sheets say more.', { usual: formatIn('kPa', 50) }),
    },
  ];
}
