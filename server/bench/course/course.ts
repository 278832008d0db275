import { say } from '../../../core/base/words/say.js';
import { randomInt } from 'node:crypto';
import { and, asc, eq, isNotNull } from 'drizzle-orm';
import { courseOf, isAttempt, lessonLoop, lessonSchools, LESSONS, resultOf, type CourseAnswer, type Lesson, type LessonKey, type LessonResult } from '../../../core/bench/course/course.js'; // prettier-ignore
import { demandSimulation } from '../practice/practice.js';
import { commissioningProcedure } from '../procedures/ofCommissioning.js';
import { serviceProcedure } from '../procedures/ofService.js';
import { insertRun, readRun } from '../runs/runs.js';
import { practiceTable } from '../practice/practice.js';
import type { Scope } from '../../base/database/client.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { loop } from '../../base/database/tables/loops.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { person } from '../../base/database/tables/people.js';
import { practice } from '../../base/database/tables/practice.js';
import type { Ask } from '../../base/http/context.js';
import { insertRevision } from '../../machine/loops/revisions.js';

/** The course as far as somebody is in it. */
export async function readCourse({ scope, account }: Ask): Promise<CourseAnswer> {
  const rows = await scope
    .select({ lesson: practice.lesson, personId: practice.personId, endedAt: practice.endedAt, debrief: practice.debrief })
    .from(practice)
    .where(and(isNotNull(practice.lesson), isNotNull(practice.endedAt), isNotNull(practice.debrief)))
    .orderBy(asc(practice.endedAt));
  const results = new Map<string, LessonResult[]>();
  for (const { lesson, personId, endedAt, debrief } of rows)
    if (lesson && personId && endedAt && debrief) {
      const result = resultOf(lesson, endedAt.toISOString(), debrief);
      if (isAttempt(result)) results.set(personId, [...(results.get(personId) ?? []), result]);
    }
  const people =
    account.role === 'lead' ? await scope.select({ id: person.id, name: person.name }).from(person).orderBy(asc(person.name)) : [];
  return {
    lessons: LESSONS,
    own: courseOf(account.personId, account.personName, results.get(account.personId) ?? []),
    people: people.map(({ id, name }) => courseOf(id, name, results.get(id) ?? [])),
  };
}

/** What the lessons are led on: one that stands in no list, and nobody's. */
async function courseMachine(scope: Scope, workshopId: string): Promise<string> {
  const [known] = await scope.select({ id: system.id }).from(system).where(eq(system.forCourse, true)).limit(1);
  if (known) return known.id;
  const [nobody] = await scope
    .insert(owner)
    .values({ workshopId, name: say('The course'), channel: 'phone', forCourse: true })
    .returning({ id: owner.id });
  const [made] = await scope
    .insert(system)
    .values({ workshopId, ownerId: (nobody as { id: string }).id, name: say('The course'), forCourse: true })
    .returning({ id: system.id });
  return (made as { id: string }).id;
}

/** Begins a lesson: a loop of its own, made by a seed that nobody sees, at a practice table. */
export async function beginLesson(ask: Ask, lesson: Lesson, seed = randomInt(2_147_483_647)) {
  const { scope, account, clock } = ask;
  const systemId = await courseMachine(scope, account.workshopId);
  const file = lessonLoop(lesson, seed);
  demandSimulation(file);
  const [product] = await scope.select({ id: coolantProduct.id }).from(coolantProduct).orderBy(asc(coolantProduct.name)).limit(1);
  const [made] = await scope
    .insert(loop)
    .values({ workshopId: account.workshopId, systemId, name: lesson.title, coolantProductId: product?.id ?? null })
    .returning({ id: loop.id });
  const loopId = (made as { id: string }).id;
  const own = { workshopId: account.workshopId, loopId, number: 1, kind: 'planned' as const, reason: '', personId: account.personId };
  const revision = await insertRevision(scope, { ...own, file, at: clock.now() });
  const of = { loopId, file, schools: lessonSchools(lesson), openedJoints: [], coolantProductId: product?.id ?? null };
  const procedure = lesson.job
    ? await serviceProcedure(scope, { ...of, jobId: '', kind: lesson.job, partId: null, atMark: true })
    : await commissioningProcedure(scope, { ...of, lostMl: null, testedAlone: [], start: null });
  const runId = await insertRun(ask, { jobId: null, loopId, revisionId: revision.id, benchId: await practiceTable(ask), procedure });
  await scope.insert(practice).values({
    workshopId: account.workshopId,
    runId,
    scenario: lesson.scenario,
    seed,
    lesson: lesson.key as LessonKey,
    personId: account.personId,
    createdAt: clock.now(),
  });
  return readRun(ask, runId);
}
