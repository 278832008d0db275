import { say } from '../../base/words/say.js';
import { formatIn, formatMl, formatMlWithSd } from '../../base/units/display.js';
import { WATER } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { SCRAP_MM, unitsAlone, type UnitAlone } from '../../physics/filling/unitAlone.js';
import type { CheckItem } from '../runs/procedure.js';

/**
 * Each pump with its reservoir out of the case: a small run with its own forecast, power and clock.
 * @param tested pumps whose unit was found tight before the build began
 */
export const aloneChecks = (loop: LoopFile, tested: readonly string[]): CheckItem[] =>
  unitsAlone(loop, WATER)
    .filter(({ pump }) => !tested.includes(pump))
    .flatMap(checksOf);

/** What is seen while it runs. */
export const returnChecks = (loop: LoopFile): CheckItem[] =>
  unitsAlone(loop, WATER).map((unit) => ({ id: `alone:${unit.pump}:return`, text: returnWords(unit), after: 'clock-begins' }));

const returnWords = ({ flowLph, backS }: UnitAlone): string =>
  flowLph === null || backS === null
    ? say('Pump on: liquid comes back at the return, and the level stands')
    : say('Pump on: back at the return in about {seconds} s, by its curve about {flow} once the bubbles are out', { seconds: Math.max(1, Math.ceil(backS)), flow: formatIn('L/h', flowLph) }); // prettier-ignore

function checksOf(unit: UnitAlone): CheckItem[] {
  const { pump, name, total, toMarkMl, fallsMm } = unit;
  const group = say('{name}, out of the case', { name });
  const check = (what: string, text: string, more: Partial<CheckItem> = {}): CheckItem => ({
    id: `alone:${pump}:${what}`,
    text,
    group,
    mayNotApply: true,
    ...more,
  });
  return [
    check(
      'tube',
      say('Scrap of tube, about {length}, from the outlet back to the return; towel under it, beside and below the machine', {
        length: formatIn('mm', SCRAP_MM),
      }),
    ),
    check('power', say('A supply of its own with this pump alone on it; the machine has no power'), { beforePower: true }),
    check(
      'pour',
      fallsMm === null
        ? say('{mark} to the mark, then as the level falls: {total} in all', { mark: formatMl(toMarkMl), total: formatMlWithSd(total.volumeMl, total.sdMl) }) // prettier-ignore
        : say('{mark} to the mark; the pump takes up to {falls} of level with it: {total} in all', { mark: formatMl(toMarkMl), falls: formatIn('mm', fallsMm), total: formatMlWithSd(total.volumeMl, total.sdMl) }), // prettier-ignore
    ),
    check('return', returnWords(unit)),
    check('dry', say('Base ring, ports and both ends of the scrap dry on a fresh towel'), { after: 'clock-ends' }),
    check('out', say('Let out over the jug: what stays inside is written down with the part')),
  ];
}
