import { seededRandom } from '../../base/random/random.js';
import { CATALOGUE, TUBE_KINDS, type TubeKind } from '../../machine/catalogue/parts.js';
import { buildLoop, STARTERS, type PartPick } from '../../machine/catalogue/starters.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { DEFAULT_SCHOOLS, type Schools } from '../../physics/leak-testing/schools.js';
import type { JobKind } from '../../workshop/job-kinds/kinds.js';
import type { Scenario } from '../simulated-bench/truth.js';
import type { Debrief } from '../practice/debrief.js';

/** A small course at the practice table: graded lessons, each on a loop of its own, and what went wrong comes again. */

export interface Lesson {
  readonly key: LessonKey;
  readonly title: string;
  /** what hands and eyes should have learned behind it */
  readonly teaches: string;
  /** 1: one thing at a time on a small loop … 3: anything, on a large one */
  readonly grade: 1 | 2 | 3;
  readonly scenario: Scenario;
  readonly leak: Schools['leak'];
  /** the service that is practised; missing: a commissioning */
  readonly job?: JobKind;
}

const lesson = (
  grade: Lesson['grade'],
  title: string,
  scenario: Scenario,
  leak: Schools['leak'],
  teaches: string,
  job?: JobKind,
): Omit<Lesson, 'key'> => ({ grade, title, scenario, leak, teaches, ...(job ? { job } : {}) });

/** In the order they are taken. */
const BY_KEY = {
  'first-fill': lesson(1, 'A first fill', 'clean', 'wet-only', 'Pour to the mark, pulse, read the level again: the pump never draws air.'), // prettier-ignore
  'air-tells': lesson(1, 'Air tells first', 'leak', 'dry-then-wet', 'A gauge that falls, water on the joints: the leak is found before a drop comes out.'), // prettier-ignore
  'stubborn-air': lesson(1, 'Air that stays', 'pocket', 'wet-only', 'Cycles that stop improving ask for a turn of the case, caps on.'),
  'last-drop': lesson(1, 'Down to the last drop', 'clean', 'wet-only', 'Air in at the top, a jug under the valve, stand by stand; what came out is read and written down.', 'drain-refill'), // prettier-ignore
  'slow-flow': lesson(2, 'Too little flow', 'weak-pump', 'wet-only', 'The flow is held against what this loop should give.'),
  silent: lesson(2, 'A bench that goes quiet', 'dropout', 'dry-then-wet', 'What no instrument reads is read by eye and written down.'),
  ring: lesson(2, 'Every joint is tight', 'ring', 'dry-then-wet', 'Parts leak as well as joints: every seal gets its water.'),
  kink: lesson(2, 'Slow behind the panel', 'kink', 'wet-only', 'Two fingers along every tube before anything is taken apart.'),
  thin: lesson(2, 'Until the water is clear', 'clean', 'wet-only', 'Each rinse is mixed by the pump before it is let out; the book and the water say when it is enough.', 'flush-refill'), // prettier-ignore
  drip: lesson(2, 'A drip that somebody saw', 'leak', 'wet-only', 'Dry everything, look for the next drop, name its cause before the seal is renewed.', 'leak-repair'), // prettier-ignore
  screw: lesson(3, 'Two alike', 'screw', 'dry-then-wet', 'What was wrong at one place may be wrong at its sister.'),
  gasket: lesson(
    3,
    'It holds, and then it does not',
    'gasket',
    'dry-then-wet',
    'A seep comes late: the test is as long as its limit asks for.',
  ),
  choked: lesson(3, 'Sound pump, round tubes', 'choked', 'wet-only', 'Low flow has one more place to be held up: what stands between them.'), // prettier-ignore
  sediment: lesson(3, 'What lies in a part', 'deposit', 'dry-then-wet', 'Every part is looked at once before it is cleaned; it is done when it is smooth to the finger.', 'strip-clean'), // prettier-ignore
  spent: lesson(3, 'What does not go back in', 'spent', 'dry-then-wet', 'Deposit comes off, wear does not: the difference decides what is replaced.', 'strip-clean'), // prettier-ignore
  anything: lesson(3, 'Anything, or nothing', 'surprise', 'dry-then-wet', 'Nobody says what is wrong. Nothing may be.'),
} as const satisfies Record<string, Omit<Lesson, 'key'>>;
export type LessonKey = keyof typeof BY_KEY;
export const LESSON_KEYS = Object.keys(BY_KEY) as LessonKey[];
export const LESSONS: readonly Lesson[] = LESSON_KEYS.map((key) => ({ key, ...BY_KEY[key] }));
export const findLesson = (key: string): Lesson | null => LESSONS.find((each) => each.key === key) ?? null;
export const lessonSchools = ({ leak }: Lesson): Schools => ({ ...DEFAULT_SCHOOLS, leak, wet: 'ten-minutes' });

/** Another part of the same group that may sit in the same place, or the part itself. */
function varied([key, place, id]: PartPick, pick: <T>(of: readonly T[]) => T): PartPick {
  const part = CATALOGUE.find((each) => each.key === key);
  const alike = CATALOGUE.filter(({ group, kind, places }) => group === part?.group && kind === part.kind && places.includes(place));
  const free = part && ['reservoirs', 'radiators', 'pumps'].includes(part.group) ? alike : [];
  return free.length > 0 ? [pick(free).key, place, id] : [key, place, id];
}

/** A loop for a lesson: as large as its grade asks for, with parts and tube that the seed chooses. The same seed, the same loop. */
export function lessonLoop({ grade, title }: Pick<Lesson, 'grade' | 'title'>, seed: number): LoopFile {
  const random = seededRandom(seed);
  const pick = <T>(of: readonly T[]): T => random.pick(of);
  const { picks } = STARTERS[grade - 1] as (typeof STARTERS)[number];
  const soft = TUBE_KINDS.filter(({ rigid }) => !rigid);
  return buildLoop(title, picks.map((each) => varied(each, pick)), pick(soft) as TubeKind); // prettier-ignore
}

/** How one attempt at a lesson went, out of its debrief. */
export interface LessonResult {
  readonly lesson: LessonKey;
  /** ISO instant of its end */
  readonly at: string;
  readonly noticed: number;
  readonly missed: number;
  readonly harmed: number;
  readonly tookS: number;
}

export function resultOf(lesson: LessonKey, at: string, { lines, tookS }: Debrief): LessonResult {
  const count = (kind: Debrief['lines'][number]['kind']): number => lines.filter((line) => line.kind === kind).length;
  return { lesson, at, noticed: count('good'), missed: count('missed'), harmed: count('harm'), tookS };
}

/** Something was done right, and nothing missed or harmed. */
export const wentWell = ({ noticed, missed, harmed }: Pick<LessonResult, 'noticed' | 'missed' | 'harmed'>): boolean =>
  noticed > 0 && missed === 0 && harmed === 0;
/** One that was ended before anything was done is no attempt. */
export const isAttempt = ({ noticed, missed, harmed }: LessonResult): boolean => noticed + missed + harmed > 0;

/** other lessons after which one that went wrong comes again: at once behind the next, then later, then much later */
const COMES_AGAIN_AFTER = [1, 3, 6] as const;

/** Where somebody stands with one lesson. */
export interface LessonStanding {
  readonly lesson: LessonKey;
  readonly attempts: number;
  readonly last: LessonResult | null;
  /** `new`: never tried; `again`: went wrong, and is not settled since; `done` */
  readonly state: 'new' | 'again' | 'done';
  /** other lessons to take before it comes again; 0: it may come now; null: it does not */
  readonly inLessons: number | null;
}

/**
 * What went wrong comes again until it went well as often in a row as it takes: once where nothing went wrong before, three times
 * after something did, each time later.
 * @param results of one person, oldest first
 */
export function standingOf(key: LessonKey, results: readonly LessonResult[]): LessonStanding {
  const own = results.filter(({ lesson: each }) => each === key);
  const last = own.at(-1) ?? null;
  if (!last) return { lesson: key, attempts: 0, last, state: 'new', inLessons: null };
  const wrongAt = own.findLastIndex((each) => !wentWell(each));
  const wellSince = own.length - 1 - wrongAt;
  const isDone = wrongAt < 0 || wellSince >= COMES_AGAIN_AFTER.length;
  if (isDone) return { lesson: key, attempts: own.length, last, state: 'done', inLessons: null };
  const since = results.length - 1 - results.lastIndexOf(last);
  const after = COMES_AGAIN_AFTER[wellSince] as number;
  return { lesson: key, attempts: own.length, last, state: 'again', inLessons: Math.max(0, after - since) };
}

export const standings = (results: readonly LessonResult[]): LessonStanding[] => LESSON_KEYS.map((key) => standingOf(key, results));

/**
 * The lesson to take now: what went wrong and has waited its turn, else the first that is new, else what waits shortest.
 * null: every lesson is done.
 */
export function nextLesson(results: readonly LessonResult[]): LessonKey | null {
  const all = standings(results);
  const due = all.find(({ inLessons }) => inLessons === 0);
  const fresh = all.find(({ state }) => state === 'new');
  const waiting = all.filter(({ state }) => state === 'again').sort((a, b) => (a.inLessons ?? 0) - (b.inLessons ?? 0));
  return (due ?? fresh ?? waiting[0])?.lesson ?? null;
}

/** What the course says of one person: for the person itself, and for a lead who teaches. */
export interface CourseOf {
  readonly personId: string;
  readonly person: string;
  readonly standings: readonly LessonStanding[];
  readonly next: LessonKey | null;
  readonly attempts: number;
  readonly noticed: number;
  readonly missed: number;
  readonly harmed: number;
}
export const courseOf = (personId: string, person: string, results: readonly LessonResult[]): CourseOf => ({
  personId,
  person,
  standings: standings(results),
  next: nextLesson(results),
  attempts: results.length,
  noticed: sum(results, 'noticed'),
  missed: sum(results, 'missed'),
  harmed: sum(results, 'harmed'),
});
const sum = (results: readonly LessonResult[], of: 'noticed' | 'missed' | 'harmed'): number =>
  results.reduce((so, each) => so + each[of], 0);

export interface CourseAnswer {
  readonly lessons: readonly Lesson[];
  /** of who asks */
  readonly own: CourseOf;
  /** of everybody, for a lead; empty for others */
  readonly people: readonly CourseOf[];
}
