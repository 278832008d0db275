import { and, asc, count, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { groupBy } from '../../../core/base/numerics/groupBy.js';
import { dayIn } from '../../../core/base/units/calendar.js';
import { conditionOf, firstCrossing, type ConditionMark, type DatedReading } from '../../../core/physics/condition/series.js';
import type { HeatLimits } from '../../../core/physics/condition/limits.js';
import { baselinesAsReading } from '../../../core/physics/diagnosis/compare.js';
import { breathingOf } from '../../../core/physics/heat/setup.js';
import { fanGroupsOf } from '../../../core/machine/electrical/sheet.js';
import { groupsToRead } from '../../../core/physics/diagnosis/fanGroups.js';
import { asDrawn } from '../../../core/physics/diagnosis/loadReading.js';
import { partName, readParts, type ReadPart } from '../../../core/physics/diagnosis/sensors.js';
import type { ConditionClock } from '../../../core/workshop/due-dates/facts.js';
import type { ConditionPage } from '../../../core/workshop/logs/answers.js';
import type { Scope } from '../../base/database/client.js';
import { coolantProduct } from '../../base/database/tables/coolants.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { confirmedCause, loadReading, logColumns, machineMark } from '../../base/database/tables/logs.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { person, workshop } from '../../base/database/tables/people.js';
import { baseline, fill } from '../../base/database/tables/runs.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { drawnLoops, type DrawnLoop } from '../drawing/drawnLoops.js';
import { levelsOf } from './levels.js';
import { notFound } from '../../base/http/errors.js';

/** Readings under load of a machine, from services, from logs and by hand. */
async function readingsOf(scope: Scope, systemId: string, parts: readonly ReadPart[], zone: string): Promise<DatedReading[]> {
  const served = await scope
    .select({ id: baseline.id, reading: baseline.reading, at: baseline.takenAt, before: baseline.before })
    .from(baseline)
    .innerJoin(loopRevision, eq(loopRevision.id, baseline.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .where(eq(loop.systemId, systemId))
    .orderBy(baseline.takenAt, sql`${baseline.reading} ->> 'sensor'`);
  const between = await scope
    .select({ id: loadReading.id, reading: loadReading.reading, on: loadReading.readOn, logId: loadReading.logId })
    .from(loadReading)
    .where(and(eq(loadReading.systemId, systemId), isNull(loadReading.struckAt)))
    .orderBy(asc(loadReading.readOn));
  return [
    ...[...groupBy(served, ({ at, before }) => `${at.getTime()} ${before}`).values()].flatMap((together): DatedReading[] => {
      const own = baselinesAsReading(
        together.map(({ reading }) => reading),
        parts,
      );
      const [first] = together;
      if (!own || !first) return [];
      return [{ id: first.id, on: dayIn(zone, first.at), source: first.before ? 'before' : 'after', reading: own }];
    }),
    ...between.map(({ id, reading, on, logId }): DatedReading => ({
      id,
      on,
      source: logId === null ? 'hand' : 'log',
      reading: asDrawn(reading, parts),
    })),
  ];
}

/** What was done to a machine that may move its readings: fills, cleanings, paste, parts. */
async function marksOf(scope: Scope, systemId: string): Promise<ConditionMark[]> {
  const fills = await scope
    .select({ on: fill.filledOn, coolant: coolantProduct.name })
    .from(fill)
    .innerJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .where(eq(loop.systemId, systemId));
  const cleaned = await scope
    .select({ on: dueItem.sinceOn })
    .from(dueItem)
    .where(and(eq(dueItem.systemId, systemId), eq(dueItem.kind, 'dust-clean'), isNotNull(dueItem.sinceOn)));
  const byHand = await scope
    .select({ id: machineMark.id, on: machineMark.doneOn, kind: machineMark.kind, part: machineMark.part })
    .from(machineMark)
    .where(and(eq(machineMark.systemId, systemId), isNull(machineMark.struckAt)));
  const filledOn = new Set(fills.map(({ on }) => on));
  return [
    ...fills.map(({ on, coolant }): ConditionMark => ({ on, kind: 'filled', part: null, coolant })),
    ...byHand,
    // fins are clean with every fill: that is said once
    ...cleaned.flatMap(({ on }): ConditionMark[] => (on === null || filledOn.has(on) ? [] : [{ on, kind: 'dusted', part: null }])),
  ];
}

/** Whether a part stands in one of a machine's drawings. */
export async function hasPart(scope: Scope, systemId: string, part: string): Promise<boolean> {
  return (await drawnLoops(scope, systemId)).some(({ file }) => file.components.some(({ id }) => id === part));
}

async function limitsOf(scope: Scope): Promise<{ limits: HeatLimits; zone: string }> {
  const [own] = await scope.select({ limits: workshop.heatLimits, zone: workshop.timeZone }).from(workshop);
  if (!own) throw notFound('workshop');
  return own;
}

interface Known {
  readonly parts: readonly ReadPart[];
  readonly readings: readonly DatedReading[];
  readonly marks: readonly ConditionMark[];
  readonly limits: HeatLimits;
  readonly loops: readonly DrawnLoop[];
  readonly zone: string;
}

async function knownOf(scope: Scope, systemId: string): Promise<Known> {
  const { limits, zone } = await limitsOf(scope);
  const loops = await drawnLoops(scope, systemId);
  const parts = readParts(loops.map(({ file }) => file));
  return { parts, readings: await readingsOf(scope, systemId, parts, zone), marks: await marksOf(scope, systemId), limits, loops, zone };
}

/** When a machine's readings call it in: as its due date takes it. */
function clockOf({ parts, readings, marks, limits }: Known): ConditionClock | null {
  const conditions = conditionOf(parts, readings, marks, limits);
  const newest = (part: string): string => conditions.find((each) => each.part === part)?.counted.at(-1)?.on ?? '';
  const over = conditions.find(({ isOver }) => isOver);
  if (over?.limit) {
    const lastOn = newest(over.part);
    const { limit, trend } = over;
    return { on: lastOn, lastOn, reason: { why: 'condition', part: partName(parts, over.part), perYear: trend?.perYear ?? 0, limit, lowOn: null, highOn: null, isOver: true } }; // prettier-ignore
  }
  const first = firstCrossing(conditions);
  if (!first) return null;
  const { part, limit, on, lowOn, highOn } = first;
  const perYear = conditions.find((each) => each.part === part)?.trend?.perYear ?? 0;
  return {
    on,
    lastOn: newest(part),
    reason: { why: 'condition', part: partName(parts, part), perYear, limit, lowOn, highOn, isOver: false },
  };
}

/** A machine's readings changed, or what they are held against: what they say of its date is worked out anew. Its dates follow with `redate`. */
export async function refreshCondition(scope: Scope, systemId: string): Promise<void> {
  await scope.update(system).set({ condition: clockOf(await knownOf(scope, systemId)) }).where(eq(system.id, systemId)); // prettier-ignore
}

/** The workshop holds its machines against other limits. */
export async function refreshAllConditions(scope: Scope): Promise<void> {
  const read = await scope.selectDistinct({ id: loadReading.systemId }).from(loadReading).where(isNull(loadReading.struckAt));
  // read at services alone, and called in by that
  const called = await scope.select({ id: system.id }).from(system).where(isNotNull(system.condition));
  for (const id of new Set([...read, ...called].map((each) => each.id))) await refreshCondition(scope, id);
}

export async function conditionPage({ scope, request, today }: Ask): Promise<ConditionPage> {
  const systemId = idFrom(request, 'id', 'system');
  const [own] = await scope
    .select({
      id: system.id,
      name: system.name,
      ownerName: owner.name,
      state: system.state,
      keptSetting: system.keptSetting,
      electrical: system.electrical,
    })
    .from(system)
    .innerJoin(owner, eq(owner.id, system.ownerId))
    .where(eq(system.id, systemId));
  if (!own) throw notFound('system');
  const [read] = await scope.select({ columns: logColumns.columns }).from(logColumns).where(eq(logColumns.systemId, systemId));
  const confirmed = await scope
    .select({ id: confirmedCause.id, cause: confirmedCause.cause, part: confirmedCause.part, on: confirmedCause.foundOn, by: person.name })
    .from(confirmedCause)
    .innerJoin(person, eq(person.id, confirmedCause.personId))
    .where(and(eq(confirmedCause.systemId, systemId), isNull(confirmedCause.struckAt)))
    .orderBy(desc(confirmedCause.foundOn), desc(confirmedCause.createdAt));
  const counted = await scope
    .select({ cause: confirmedCause.cause, count: count() })
    .from(confirmedCause)
    .where(isNull(confirmedCause.struckAt))
    .groupBy(confirmedCause.cause);
  const found = Object.fromEntries(counted.map((each) => [each.cause, each.count]));
  const known = await knownOf(scope, systemId);
  const levels = await levelsOf(scope, systemId, known.zone);
  const { state, keptSetting, electrical, ...names } = own;
  return {
    system: { ...names, retired: state === 'retired' },
    columns: read?.columns ?? null,
    fanGroups: groupsToRead(electrical),
    keptSetting,
    levels,
    confirmed,
    found,
    today,
    ...known,
    loops: known.loops.map(({ heatSetup, ...drawn }) => ({
      ...drawn,
      breathing: breathingOf(drawn.file, heatSetup, electrical ? fanGroupsOf(electrical, drawn.id) : []),
    })),
  };
}
