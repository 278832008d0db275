import { say } from '../../base/words/say.js';
/** What a workshop does to a machine after it was commissioned. Each kind has its own led procedure. */
interface JobKindFacts {
  readonly label: string;
  /** what the owner is told in a word */
  readonly short: string;
  /** how far the loop is opened */
  readonly opens: 'not' | 'top' | 'part' | 'whole';
  /** `anew`: its clocks start again; `same`: what came out goes back in, the old clocks run on */
  readonly fill: 'none' | 'same' | 'anew';
  /** attended hours with soft tube and with rigid tube: estimates until finished runs say otherwise (workshop practice) */
  readonly hours: { readonly soft: number; readonly rigid: number };
  /** the place on the ladder from the lightest to the heaviest; null where it is no cleaning job */
  readonly rung: number | null;
}

export const JOB_KINDS = {
  'closed-loop': {
    label: 'dust, paste, fans; loop stays closed',
    short: 'loop stays closed',
    opens: 'not',
    fill: 'none',
    hours: { soft: 1, rigid: 1.5 },
    rung: 0,
  },
  'top-up': { label: 'top-up', short: 'top-up', opens: 'top', fill: 'same', hours: { soft: 0.3, rigid: 0.3 }, rung: 1 },
  'drain-refill': {
    label: 'drain and refill',
    short: 'drain and refill',
    opens: 'top',
    fill: 'anew',
    hours: { soft: 0.75, rigid: 1 },
    rung: 2,
  },
  'flush-refill': {
    label: 'flush and refill',
    short: 'flush',
    opens: 'top',
    fill: 'anew',
    hours: { soft: 2, rigid: 2.5 },
    rung: 3,
  },
  'strip-clean': {
    label: 'full strip and clean',
    short: 'strip and clean',
    opens: 'whole',
    fill: 'anew',
    hours: { soft: 8, rigid: 12 },
    rung: 4,
  },
  'leak-repair': { label: 'leak repair', short: 'leak repair', opens: 'part', fill: 'same', hours: { soft: 3, rigid: 4 }, rung: null },
  'partial-drain': {
    label: 'partial drain for a part change',
    short: 'part change',
    opens: 'part',
    fill: 'same',
    // about forty minutes at the bench, with the joints watched ten of them
    hours: { soft: 0.75, rigid: 1.5 },
    rung: null,
  },
  'part-replacement': {
    label: 'part replacement, loop drained',
    short: 'part replacement',
    opens: 'part',
    fill: 'anew',
    hours: { soft: 3, rigid: 5 },
    rung: null,
  },
  'loop-change': {
    label: 'loop changed or enlarged',
    short: 'loop change',
    opens: 'part',
    fill: 'anew',
    hours: { soft: 3.5, rigid: 6 },
    rung: null,
  },
  'part-conversion': {
    label: 'one part to a cooler of its own',
    short: 'part conversion',
    opens: 'part',
    fill: 'anew',
    hours: { soft: 3, rigid: 5 },
    rung: null,
  },
  conversion: {
    label: 'conversion to a sealed cooler or to air',
    short: 'conversion',
    opens: 'whole',
    fill: 'none',
    hours: { soft: 3, rigid: 3 },
    rung: null,
  },
  retirement: { label: 'loop retired', short: 'retirement', opens: 'whole', fill: 'none', hours: { soft: 1.5, rigid: 1.5 }, rung: null },
} as const satisfies Record<string, JobKindFacts>;

export type JobKind = keyof typeof JOB_KINDS;

/** What is booked: services, and the build of a loop that was never filled, in a new machine or in one that had another cooler. */
export type BuildKind = 'commissioning' | 'into-loop';
export type BookedKind = JobKind | BuildKind;
export const BOOKED_KINDS: Readonly<Record<BookedKind, JobKindFacts>> = {
  ...JOB_KINDS,
  commissioning: {
    label: 'build and commissioning',
    short: 'build',
    opens: 'whole',
    fill: 'anew',
    hours: { soft: 7, rigid: 12 },
    rung: null,
  },
  'into-loop': {
    label: 'conversion into a loop',
    short: 'conversion into a loop',
    opens: 'whole',
    fill: 'anew',
    // the old cooler measured, off and put away
    hours: { soft: 8, rigid: 13 },
    rung: null,
  },
};
export const buildKinds: BuildKind[] = ['commissioning', 'into-loop'];
export const isBuild = (kind: BookedKind): kind is BuildKind => buildKinds.some((each) => each === kind);
export const BOOKED_KIND_KEYS = Object.keys(BOOKED_KINDS) as BookedKind[];

/** Narrows what a row of booked jobs holds. @throws Error for a visit that nobody booked */
export function asBookedKind(kind: string): BookedKind {
  if (!Object.hasOwn(BOOKED_KINDS, kind)) throw new Error(`${kind} is nothing that is booked`);
  return kind as BookedKind;
}

/** Narrows what a row of all jobs holds. @throws Error for a job that is no service: its row has no service beside it */
export function asJobKind(kind: string): JobKind {
  if (!Object.hasOwn(JOB_KINDS, kind)) throw new Error(`${kind} is no kind of service`);
  return kind as JobKind;
}
export const JOB_KIND_KEYS = Object.keys(JOB_KINDS) as JobKind[];

/** Kinds that are about one part. */
export const ABOUT_A_PART: readonly JobKind[] = ['partial-drain', 'part-replacement', 'part-conversion'];

/** Kinds that go from the loop that is inside to another one. */
const LOOP_CHANGING = ['loop-change', 'part-conversion'] as const;
export type LoopChanging = (typeof LOOP_CHANGING)[number];
export const changesLoop = (kind: BookedKind): kind is LoopChanging => LOOP_CHANGING.some((each) => each === kind);

/** Kinds that take a drawing as wanted: one cannot do without it, one may put the loop together as another where it is apart anyway. */
export const mayWant = (kind: BookedKind): boolean => kind === 'loop-change' || kind === 'strip-clean';

/** Kinds after which nothing is left to fall due on this loop. */
export const ENDS_LOOP: readonly JobKind[] = ['conversion', 'retirement'];
export const refillsAnew = (kind: JobKind): boolean => JOB_KINDS[kind].fill === 'anew';

/** Kinds that may also be entered after they were done, without having been led. */
export type ServiceKind = Exclude<JobKind, 'conversion' | 'retirement' | LoopChanging>;
export const SERVICE_KIND_KEYS = JOB_KIND_KEYS.filter((kind): kind is ServiceKind => !ENDS_LOOP.includes(kind) && !changesLoop(kind));
/** Of those, the ones after which the loop holds new coolant: a repair entered by hand says what was poured. */
export const REFILLING: readonly ServiceKind[] = SERVICE_KIND_KEYS.filter((kind) => refillsAnew(kind) || kind === 'leak-repair');

/** Kinds that always take the dust off, where the work was entered afterwards and nobody ticked a step. */
export const CLEANS_FINS: readonly ServiceKind[] = ['closed-loop', 'strip-clean'];

/** Every kind of job in words, the commissioning and the settling visit included. */
export const JOB_WORDS: Readonly<Record<string, string>> = {
  ...Object.fromEntries(BOOKED_KIND_KEYS.map((kind) => [kind, say(BOOKED_KINDS[kind].label)])),
  commissioning: 'commissioning',
  'settling-check': 'settling check',
  'unit-test': 'test out of the case',
};
