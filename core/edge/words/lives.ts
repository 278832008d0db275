import { grouped, groupedUpTo } from '../../base/units/display.js';
import { say, sayWord } from '../../base/words/say.js';
import { COOLANT_CLASSES, type CoolantClass } from '../../machine/liquids/classes.js';
import { findTubeMaterial } from '../../machine/materials/tubes.js';
import type { EarlyLot, NamedGroup } from '../../workshop/learned-lives/answers.js';
import type { LifeGroupBy } from '../../workshop/learned-lives/lifeGroups.js';

/** What fills are put together by. */
export const LIFE_BY_WORDS: Readonly<Record<LifeGroupBy, string>> = {
  class: 'Class',
  product: 'Coolant',
  lot: 'Lot',
  tube: 'Tube',
  metals: 'Metals',
};

export const classWords = (coolantClass: CoolantClass): string => say(COOLANT_CLASSES[coolantClass].label);

const materialWords = (material: string): string => sayWord(findTubeMaterial(material)?.label ?? material);

/** What a group of fills is called. */
export function groupName({ by, key, name, coolantClass }: Pick<NamedGroup, 'by' | 'key' | 'name' | 'coolantClass'>): string {
  if (by === 'class') return classWords(coolantClass);
  if (name !== null) return name;
  return say('{materials}, {coolantClass}', {
    materials: key.split(' + ').map(materialWords).join(' + '),
    coolantClass: classWords(coolantClass),
  });
}

/** What so many fills say, and what they cannot. */
export function lifeWords({ fills, failed, oldestMonths, learned, policyMonths }: NamedGroup): string {
  const oldest = grouped(oldestMonths, 1);
  if (failed === 0)
    return say('{fills, plural, one {# fill, it has} other {# fills, none of them}} failed, the oldest {oldest} months: cannot tell yet', {
      fills,
      oldest,
    });
  if (!learned) return say('{failed} of {fills} failed, the oldest of all among them: cannot tell yet', { failed, fills });
  return say('{failed} of {fills} failed; {share} % of this is what fills said, the rest the {policy} months of its sheet or class', {
    failed,
    fills,
    share: Math.round(100 * learned.weight),
    policy: groupedUpTo(policyMonths, 1),
  });
}

/** How far a lot stands from all others, as chance sees it. */
export const earlyWords = ({ machines, observed, expected, p }: EarlyLot): string =>
  say('{observed} of {machines} machines, {expected} would be usual; by chance once in {times} workshops', {
    observed,
    machines,
    expected: grouped(expected, 1),
    times: Math.round(1 / p),
  });
