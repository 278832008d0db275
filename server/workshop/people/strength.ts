import { say } from '../../../core/base/words/say.js';
import common from '@zxcvbn-ts/language-common';
import zxcvbn from '@zxcvbn-ts/core';
import { refuse } from '../../../core/base/checking/input.js';

/** Guessed by somebody who knows what people choose: common passwords, rows of keys, dates, names (Wheeler, USENIX Security 2016). */
let meter: InstanceType<typeof zxcvbn.ZxcvbnFactory> | undefined;
/** of 4; below, an attacker who got the hashes has it within days */
const LEAST_SCORE = 3;

/**
 * Refuses what is guessed easily. The message never repeats it.
 * @param about names and addresses that an attacker tries first
 */
export function demandStrength(password: string, about: readonly string[]): void {
  const words = about.flatMap((each) => each.split(/[\s@.,-]+/)).filter((word) => word.length > 2);
  // its dictionaries take a while and megabytes: not before somebody chooses a password
  meter ??= new zxcvbn.ZxcvbnFactory({ dictionary: common.dictionary, graphs: common.adjacencyGraphs });
  if (meter.check(password, words).score < LEAST_SCORE)
    refuse(
      'password',
      say('is guessed too easily: a common password, a row of keys, a date or a name. Take four words that do not belong together'),
    );
}
