import { say } from '../../base/words/say.js';
import type { LoopFacts } from '../../bench/runs/facts.js';
import { nameIn } from '../../machine/catalogue/names.js';
import { formatDegrees, formatIn } from '../../base/units/display.js';
import { INTAKE, type IntakeHead } from '../../physics/flow/intakeHead.js';

/** A pump whose intake has too little head, in a sentence. */
export function intakeWords({ gaugeKpa, verdict }: Pick<IntakeHead, 'gaugeKpa' | 'verdict'>, name: string): string {
  const kpa = formatIn('kPa', gaugeKpa, 1);
  if (verdict === 'boils')
    return say(
      'At its intake {name} stands at {kpa}: coolant of {hottest} boils in it. Run it slower, and bring the reservoir right before it.',
      { name, kpa, hottest: formatDegrees(INTAKE.hottestC) },
    );
  if (verdict === 'draws-air')
    return say(
      'At its intake {name} stands at {kpa}: every joint before it draws air in and none of them drips. Run it slower, or bring the reservoir right before it.',
      { name, kpa },
    );
  return say('At its intake {name} stands at {kpa}: enough, with coolant of {hottest} as well.', {
    name,
    kpa,
    hottest: formatDegrees(INTAKE.hottestC),
  });
}

/** Every pump of a loop that is short of head at full speed, in sentences. */
export const shortOfHeadWords = ({ shortOfHead = [], parts }: Pick<LoopFacts, 'shortOfHead' | 'parts'>): string[] =>
  shortOfHead.map((each) => say('{intakeWords} (at full speed)', { intakeWords: intakeWords(each, nameIn(parts, each.pump)) }));
