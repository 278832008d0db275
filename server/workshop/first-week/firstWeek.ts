import { say } from '../../../core/base/words/say.js';
import { and, asc, count, countDistinct, eq, isNull, ne } from 'drizzle-orm';
import { firstWeek, type FirstStep, type FirstWeekAnswer, type FirstWeekPassed } from '../../../core/workshop/first-week/firstWeek.js';
import { hourOf } from '../../../core/workshop/prices/rates.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { importBatch } from '../../base/database/tables/importing.js';
import { system } from '../../base/database/tables/machines.js';
import { bench, isRealBench, person, workshop } from '../../base/database/tables/people.js';
import { shift } from '../../base/database/tables/planning.js';
import type { Ask } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';

/** What this workshop has so far, and what is still missing. */
export async function readFirstWeek({ scope, account }: Ask): Promise<FirstWeekAnswer> {
  const [own] = await scope
    .select({ contact: workshop.contact, rates: workshop.rates, passed: workshop.passedSteps })
    .from(workshop)
    .where(eq(workshop.id, account.workshopId));
  if (!own) throw new DomainError('signed-out', say('This workshop is gone.'));
  const benches = await scope.select({ name: bench.name }).from(bench).where(isRealBench).orderBy(asc(bench.position));
  const [people] = await scope.select({ n: count() }).from(person).where(eq(person.active, true));
  const handsOnly = and(eq(person.active, true), ne(person.role, 'front-desk'));
  const [hands] = await scope.select({ n: count() }).from(person).where(handsOnly);
  const [withHours] = await scope
    .select({ n: countDistinct(shift.personId) })
    .from(shift)
    .innerJoin(person, eq(person.id, shift.personId))
    .where(handsOnly);
  const [coolants] = await scope.select({ n: count() }).from(coolantProduct);
  const [machines] = await scope
    .select({ n: count() })
    .from(system)
    .where(and(eq(system.forCourse, false), eq(system.isSample, false)));
  const [sample] = await scope
    .select({ systemId: system.id, importId: importBatch.id })
    .from(system)
    .innerJoin(importBatch, eq(importBatch.id, system.importId))
    .where(and(eq(system.isSample, true), isNull(importBatch.undoneAt)))
    .limit(1);
  const so = {
    benches: benches.map(({ name }) => name),
    people: people?.n ?? 0,
    hands: hands?.n ?? 0,
    withHours: withHours?.n ?? 0,
    coolants: coolants?.n ?? 0,
    machines: machines?.n ?? 0,
    hasAddress: own.contact.address !== '' || own.contact.phone !== '',
    reckonsPrices: hourOf(own.rates, '') !== null,
  };
  return { steps: firstWeek(so, own.passed), so, sample: sample ?? null };
}

/** Says which steps need nothing here. */
export async function setPassed(ask: Ask, { passed }: FirstWeekPassed): Promise<FirstWeekAnswer> {
  const steps: FirstStep[] = [...passed];
  await ask.scope.update(workshop).set({ passedSteps: steps }).where(eq(workshop.id, ask.account.workshopId));
  return readFirstWeek(ask);
}
