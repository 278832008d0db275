import { ENDS_LOOP, isBuild, type BookedKind, type JobKind } from '../job-kinds/kinds.js';

/** Small works that go along with a job "while it is open". */
interface BesideFacts {
  readonly label: string;
  /** min of attendance beside a job that has the machine open anyway (workshop practice) */
  readonly minutes: number;
}
export const BESIDE = {
  dust: { label: 'dust off fins and filters', minutes: 15 },
  paste: { label: 'new paste under the blocks', minutes: 20 },
  fans: { label: 'fans turned by hand, worn ones renewed', minutes: 10 },
  plugs: { label: 'a look at every plug, cap and valve', minutes: 5 },
  board: { label: 'board changed', minutes: 75 },
} as const satisfies Record<string, BesideFacts>;
export type BesideWork = keyof typeof BESIDE;
export const BESIDE_KEYS = Object.keys(BESIDE) as BesideWork[];

/** Works that a kind of job does by itself. */
const WITHIN: Readonly<Partial<Record<JobKind, readonly BesideWork[]>>> = {
  'closed-loop': ['dust'],
  'drain-refill': ['dust'],
  'flush-refill': ['dust'],
  'strip-clean': ['dust', 'plugs'],
  'part-replacement': ['dust'],
  'loop-change': ['dust'],
  'part-conversion': ['dust'],
};
export const within = (kind: BookedKind): readonly BesideWork[] => (isBuild(kind) ? [] : (WITHIN[kind] ?? []));

/** Works that may be put beside a kind: a build does them all in its own order, a top-up opens no panel, a loop that is over needs none. */
export function mayGoBeside(kind: BookedKind): readonly BesideWork[] {
  if (isBuild(kind) || ENDS_LOOP.some((each) => each === kind)) return [];
  if (kind === 'top-up') return ['plugs'];
  // a loop that is only drawn down is not lifted out and laid: what stayed inside would run at joints that the sums call dry
  return BESIDE_KEYS.filter((work) => !within(kind).includes(work) && !(work === 'board' && kind === 'partial-drain'));
}

/** What is left of a choice where a job has become another kind: what that one does by itself, or cannot take along, is no work beside it. */
export const besideAs = (kind: BookedKind, chosen: readonly BesideWork[]): BesideWork[] =>
  mayGoBeside(kind).filter((work) => chosen.includes(work));

/** min of attendance of works beside a job */
export const besideMinutes = (works: readonly BesideWork[]): number => works.reduce((sum, work) => sum + BESIDE[work].minutes, 0);
