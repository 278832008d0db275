import type { LoopChange } from '../../machine/loop-change/loopChange.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { LEAK_SCHOOLS, WET_SCHOOLS } from '../../physics/leak-testing/schools.js';
import type { BesideWork } from './beside.js';
import { BOOKED_KINDS, isBuild, type BookedKind } from '../job-kinds/kinds.js';
import { usualHours } from './usualHours.js';
import type { LeakAndWet } from './usualSchools.js';

/** min that a machine stands alone for a look, as a job is told before it is booked; the bench reckons its own (workshop practice) */
const LOOKS_MIN = { airTest: 30, loadTest: 45, shortReading: 15 } as const;

/** What a job gives up that is led in its least time. */
export type GivenUp = 'slow-weep' | 'before-liquid' | 'reading-short';

/** How long a job holds hands and bench. */
export interface JobSpan {
  /** min with somebody at it */
  readonly handsMinutes: number;
  /** min that the machine stands alone: pump under watch, air under test, load warming it */
  readonly aloneMinutes: number;
}
export interface LeastTime {
  /** as the workshop does such jobs */
  readonly usual: JobSpan;
  readonly least: JobSpan;
  /** what the least time leaves out of the usual one; empty: that is the least */
  readonly givenUp: readonly GivenUp[];
}

/** How often such a job is measured under load. */
const readingsOf = (kind: BookedKind): number =>
  kind === 'top-up' || kind === 'retirement' ? 0 : kind === 'leak-repair' || isBuild(kind) ? 1 : 2;

/** The shortest way of looking for leaks: what was opened is watched for ten minutes, and once warm. */
const quickest = (kind: BookedKind): LeakAndWet => ({
  leak: BOOKED_KINDS[kind].opens === 'part' ? 'opened-joints' : 'wet-only',
  wet: 'ten-minutes',
});

/** min that leaks are looked for after a job */
function leakMinutes(kind: BookedKind, { leak, wet }: LeakAndWet): { air: number; pump: number } {
  if (BOOKED_KINDS[kind].fill === 'none' || kind === 'top-up') return { air: 0, pump: 0 };
  const school = LEAK_SCHOOLS[leak];
  const air = school.dry && ['part', 'whole'].includes(BOOKED_KINDS[kind].opens) ? LOOKS_MIN.airTest : 0;
  return { air, pump: school.wet ? WET_SCHOOLS[wet].seconds / 60 : 0 };
}

/**
 * How long a job takes, said before it is booked: as the workshop does it, and at the least. A reading is at the least as short as its
 * curve can be told from.
 * @param ours how the workshop looks for leaks after such a job
 */
export function leastTime(
  kind: BookedKind,
  file: Pick<LoopFile, 'components' | 'tubes'>,
  given: { readonly beside?: readonly BesideWork[]; readonly ours: LeakAndWet; readonly work?: LoopChange | null },
): LeastTime {
  const handsMinutes = usualHours(kind, file, given.work ?? null, given.beside) * 60;
  const [ours, short] = [leakMinutes(kind, given.ours), leakMinutes(kind, quickest(kind))];
  const readings = readingsOf(kind);
  const span = (leaks: number, reading: number): JobSpan => ({ handsMinutes, aloneMinutes: leaks + readings * reading });
  return {
    usual: span(ours.air + ours.pump, LOOKS_MIN.loadTest),
    least: span(Math.min(short.air + short.pump, ours.air + ours.pump), LOOKS_MIN.shortReading),
    givenUp: [
      ...(short.pump < ours.pump ? (['slow-weep'] as const) : []),
      ...(short.air < ours.air ? (['before-liquid'] as const) : []),
      ...(readings > 0 ? (['reading-short'] as const) : []),
    ],
  };
}
