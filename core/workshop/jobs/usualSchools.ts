import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { Schools } from '../../physics/leak-testing/schools.js';
import { BOOKED_KIND_KEYS, BOOKED_KINDS, isBuild, type BookedKind } from '../job-kinds/kinds.js';

/** How leaks are looked for after one kind of job. */
export type LeakAndWet = Pick<Schools, 'leak' | 'wet'>;
/** What a workshop does after kinds of jobs; of a kind that it does not name it does what is usual. */
export type JobSchools = Readonly<Partial<Record<BookedKind, LeakAndWet>>>;
/** The workshop's schools, with those of single kinds of jobs. */
export type WorkshopSchools = Schools & {
  readonly byKind?: JobSchools;
  /** kinds in which the lead lets loads stay on the supply behind a passed air test; missing: none */
  readonly loadsMayStay?: readonly BookedKind[];
};

/** How leaks are usually looked for after a job: a drain through the valve opens no joint, a part change its own, a strip all of them. */
export function usualSchools(kind: BookedKind, ours: JobSchools = {}): LeakAndWet {
  const own = ours[kind];
  if (own) return own;
  const { opens } = BOOKED_KINDS[kind];
  // new parts are in: air goes over all of it before any liquid does
  if (kind === 'loop-change') return { leak: 'dry-then-wet', wet: 'hours' };
  if (opens === 'whole') return { leak: 'dry-then-wet', wet: 'day' };
  // a part is swapped in forty minutes: what was opened is watched, and once more warm
  if (kind === 'partial-drain') return { leak: 'opened-joints', wet: 'ten-minutes' };
  return opens === 'part' ? { leak: 'opened-joints', wet: 'hours' } : { leak: 'wet-only', wet: 'ten-minutes' };
}

/** How leaks are looked for after a job here: builds as the workshop says for all of them, services as is usual, unless it says otherwise. */
export const schoolsAfter = (kind: BookedKind, { leak, wet, byKind = {} }: WorkshopSchools): LeakAndWet =>
  byKind[kind] ?? (isBuild(kind) ? { leak, wet } : usualSchools(kind));

/** The same with the workshop's limit and gauge: what a run of this kind begins with. */
export const runSchools = (kind: BookedKind, shop: WorkshopSchools): Schools => ({
  limit: shop.limit,
  gaugeResolutionKpa: shop.gaugeResolutionKpa,
  ...schoolsAfter(kind, shop),
});

/** Kinds after which something has to be tested. */
export const TESTED_KINDS = BOOKED_KIND_KEYS.filter((kind) => BOOKED_KINDS[kind].fill !== 'none');

/** Joints that a job about one part opens: its tubes. */
export const jointsOfPart = ({ tubes }: LoopFile, part: string | null): string[] =>
  tubes.filter(({ from, to }) => from[0] === part || to[0] === part).map(({ id }) => id);
