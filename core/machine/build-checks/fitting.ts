import { say } from '../../base/words/say.js';
import { tubeName } from '../catalogue/names.js';
import { pieceMm, standsMm } from '../fit/bodies.js';
import { fitOf, weightOf } from '../fit/verdict.js';
import { fitWords } from '../fit/words.js';
import { partFinder, partName, tubesByHand, type LoopFile } from '../loop-file/loopFile.js';
import type { LoopFinding } from './finding.js';

/** mm of tube that two fittings must hold between them */
const LEAST_TUBE_MM = 10;

/** What does not go where it is drawn. What was not measured is no finding: it stands with the part, as "not known yet". */
export const fitFindings = (loop: LoopFile): LoopFinding[] => [...parts(loop), ...betweenPorts(loop)];

const findingWeight = { against: 'stop', look: 'look', note: 'note' } as const;

const parts = (loop: LoopFile): LoopFinding[] =>
  loop.components.flatMap((part) =>
    (fitOf(loop, part)?.reasons ?? []).flatMap((reason): LoopFinding[] => {
      const weight = weightOf(reason);
      if (weight === 'open') return [];
      return [
        {
          code: weight === 'against' ? 'does-not-fit' : 'fit-to-look-at',
          weight: findingWeight[weight],
          part: part.id,
          text: `${partName(part)}: ${fitWords(loop, reason)}`,
          todo:
            weight === 'against'
              ? say('Draw it where it fits, or take another one before it is ordered.')
              : say('Measure the part in hand, or its sheet, before it is ordered.'),
        },
      ];
    }),
  );

function betweenPorts(loop: LoopFile): LoopFinding[] {
  const find = partFinder(loop);
  return tubesByHand(loop)
    .filter((tube) => standsMm(tube) > 0 && pieceMm(loop, tube, find) < LEAST_TUBE_MM)
    .map((tube) => ({
      code: 'does-not-fit',
      weight: 'stop',
      part: tube.id,
      text: say('{tubeName}: no tube is left between what is screwed into its two ports.', { tubeName: tubeName(loop, tube) }),
      todo: say('Take shorter bodies, or join the two ports by one piece.'),
    }));
}
