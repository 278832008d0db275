import { tubesByHand, type LoopFile } from '../../machine/loop-file/loopFile.js';
import type { LoopChange } from '../../machine/loop-change/loopChange.js';
import { isOutline } from '../../machine/loop-file/outline.js';
import { findTubeMaterial } from '../../machine/materials/tubes.js';
import { besideMinutes, type BesideWork } from './beside.js';
import { BOOKED_KINDS, isBuild, type BookedKind } from '../job-kinds/kinds.js';

/**
 * Hours of attendance that more in a machine costs than the usual one has: two radiators, a processor and a graphics block, seven tubes
 * (workshop practice, rough). What finished runs took says more as soon as there are some.
 */
const USUAL = { radiators: 2, blocks: 2, tubes: 7 } as const;
const MORE_H = {
  /** each: opened, flushed both ways, soaked, felt */
  whole: { radiator: 1, block: 1.2, tube: 0.25 },
  /** each: more to let out, to rinse and to bleed */
  top: { radiator: 0.15, block: 0.05, tube: 0 },
  part: { radiator: 0.25, block: 0.15, tube: 0.05 },
  not: { radiator: 0.1, block: 0.25, tube: 0 },
  /** each: prepared, screwed in, measured, cut, joined */
  build: { radiator: 0.75, block: 0.75, tube: 0.3 },
} as const;
/** share of the usual hours that even a small machine takes */
const LEAST_SHARE = 0.6;
/** h to which an estimate is rounded */
const ROUND_H = 0.25;

/**
 * Attended hours that a kind of job usually takes with what is in this machine; one that nobody drew is taken for a usual one.
 * @param beside what goes along with it
 * @param work of a job that changes the loop: each part beyond the first, and each tube that is cut, costs what it costs in a build
 */
export function usualHours(
  kind: BookedKind,
  { components, tubes }: Pick<LoopFile, 'components' | 'tubes'>,
  work: Pick<LoopChange, 'in' | 'out' | 'tubes'> | null = null,
  beside: readonly BesideWork[] = [],
): number {
  const along = besideMinutes(beside) / 60;
  const { hours, opens } = BOOKED_KINDS[kind];
  const each = MORE_H[isBuild(kind) ? 'build' : opens];
  const isRigid = tubes.some(({ material }) => findTubeMaterial(material)?.soft === false);
  const usual = hours[isRigid ? 'rigid' : 'soft'];
  if (isOutline({ components })) return usual + along;
  const count = (of: string): number => components.filter((part) => part.kind === of).length;
  const more =
    (count('radiator') - USUAL.radiators) * each.radiator +
    (count('block') - USUAL.blocks) * each.block +
    (tubesByHand({ tubes }).length - USUAL.tubes) * each.tube;
  const changed = work ? Math.max(0, Math.max(work.in.length, work.out.length) - 1) * MORE_H.build.block + work.tubes.filter(({ fate }) => fate === 'new' || fate === 'cut').length * MORE_H.build.tube : 0; // prettier-ignore
  // a top-up looks at one level, whatever is in the machine
  const sum = kind === 'top-up' ? usual : Math.max(LEAST_SHARE * usual, usual + more) + changed;
  return (Math.round(sum / ROUND_H) * ROUND_H || ROUND_H) + along;
}
