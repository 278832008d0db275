import type { Random } from '../../base/random/random.js';
import { LEAK_AMOUNT, LEAK_CAUSE_KEYS, LEAK_CAUSES, LEAK_WHEN, type LeakCause, type LeakPlace, type LeakSymptoms } from './causes.js';

/** What an eye close by finds at a joint that leaks, by its cause: what the ranking of causes is to be held against. */
const SEEN_AT_JOINT = {
  'tube-not-seated': 'The mark on the tube stands off the nut.',
  'cut-not-square': 'The gap round the tube is wider on one side.',
  'fitting-ring': 'They come from under the base of the fitting.',
  'strained-joint': 'They stop while the tube is lifted by hand.',
} as const satisfies Partial<Record<LeakCause, string>>;
export type JointCause = keyof typeof SEEN_AT_JOINT;

/** The same at a joint or at a part. */
export const SEEN_AT = {
  ...SEEN_AT_JOINT,
  'base-seal': 'They come from under its base, all round.',
  'screw-through-tube': 'They come out of the core beside a fan screw.',
  'uneven-gasket': 'They come from one edge of the plate, where its screws sit looser.',
} as const satisfies Partial<Record<LeakCause, string>>;
export type HiddenCause = keyof typeof SEEN_AT;

const JOINT_CAUSES = Object.keys(SEEN_AT_JOINT) as JointCause[];

/** One of several by its weight. */
function drawn<T>(random: Random, of: readonly T[], weight: (each: T) => number): T {
  let left = random.between(
    0,
    of.reduce((sum, each) => sum + weight(each), 0),
  );
  for (const each of of) {
    left -= weight(each);
    if (left <= 0) return each;
  }
  return of.at(-1) as T;
}

type Weights = Partial<Readonly<Record<string, number>>>;

/** The cause of a hidden leak at a joint, as often as benches meet it. */
export const drawJointCause = (random: Random): JointCause =>
  drawn(random, JOINT_CAUSES, (cause) => (LEAK_CAUSES[cause].at as Weights).joint ?? 0);

/** A leak as it may be met at a kind of place: its cause, and how it shows. */
export function drawLeak(random: Random, place: LeakPlace): { readonly cause: LeakCause; readonly signs: LeakSymptoms } {
  const cause = drawn(random, LEAK_CAUSE_KEYS, (each) => (LEAK_CAUSES[each].at as Weights)[place] ?? 0);
  const { when, amount } = LEAK_CAUSES[cause] as { readonly when: Weights; readonly amount: Weights };
  return {
    cause,
    signs: {
      place,
      when: drawn(random, LEAK_WHEN, (each) => when[each] ?? 0),
      amount: drawn(random, LEAK_AMOUNT, (each) => amount[each] ?? 0),
    },
  };
}
