import { and, asc, desc, eq, lt, sql } from 'drizzle-orm';
import { addDays, daysBetween } from '../core/base/units/calendar.js';
import type { CoolantClass } from '../core/machine/liquids/classes.js';
import { waterAt } from '../core/machine/liquids/fluids.js';
import { isOutline } from '../core/machine/loop-file/outline.js';
import type { LoopFile } from '../core/machine/loop-file/loopFile.js';
import type { HeatCause } from '../core/physics/diagnosis/causes.js';
import { readParts } from '../core/physics/diagnosis/sensors.js';
import { proposeColumns } from '../core/workshop/logs/columns.js';
import { layoutOf } from '../core/workshop/logs/layout.js';
import { LogReader } from '../core/workshop/logs/reader.js';
import { simulatedLog } from '../core/workshop/logs/simulatedLogger.js';
import type { Scope } from '../server/base/database/client.js';
import { coolantProduct } from '../server/base/database/tables/coolants.js';
import { loadReading, logColumns } from '../server/base/database/tables/logs.js';
import { loop, loopRevision } from '../server/base/database/tables/loops.js';
import { job, system } from '../server/base/database/tables/machines.js';
import { fill } from '../server/base/database/tables/runs.js';
import { usageReading } from '../server/base/database/tables/usage.js';
import type { Account } from '../server/base/http/context.js';
import { refreshCondition } from '../server/machine/condition/condition.js';
import { restartDust } from '../server/workshop/due-dates/cleaned.js';
import { redate } from '../server/workshop/due-dates/redate.js';
import { atNoon } from './afterwards.js';

/** What owners' logs tell of three machines: dust that was cleaned off, a block that choked and was opened, paste that dries now. */

interface Shop {
  readonly scope: Scope;
  readonly today: string;
  readonly accounts: readonly Account[];
}

interface Machine {
  readonly systemId: string;
  readonly loopId: string;
  readonly filledOn: string;
  /** of the job that filled it */
  readonly kind: string;
  readonly isLed: boolean;
  readonly coolantClass: CoolantClass;
  readonly file: LoopFile;
}

/** days of a story that has its turn in the middle, and of what comes after it */
const STORY = { before: 90, after: 30, open: 110, coolantLasts: 300 } as const;

export async function tellByLogs(shop: Shop): Promise<void> {
  const machines = await drawnMachines(shop);
  // the one that was led, with its findings; its log goes on only for as long as it is home
  const block = machines.find(({ kind, isLed }) => kind === 'strip-clean' && isLed);
  const others = machines.filter((each) => each !== block && daysBetween(each.filledOn, shop.today) >= STORY.before + STORY.after + 8);
  // all the heat goes through one radiator: its dust is seen
  const dusty = others.find(({ file }) => file.components.filter(({ kind }) => kind === 'radiator').length === 1) ?? others[0];
  // its coolant lasts longer than its paste does
  const dry = others.find(
    (each) => each !== dusty && each.coolantClass === 'clear' && daysBetween(each.filledOn, shop.today) < STORY.coolantLasts,
  );
  if (dusty) await dustThatWasCleaned(shop, dusty);
  if (dry) await pasteThatDries(shop, dry);
  if (block) await blockThatWasOpened(shop, block);
}

/** Machines in service with their newest drawing and their last fill, in the order of their names. */
async function drawnMachines({ scope }: Shop): Promise<Machine[]> {
  const rows = await scope
    .selectDistinctOn([system.name, system.id], {
      systemId: system.id,
      loopId: loop.id,
      filledOn: fill.filledOn,
      kind: job.kind,
      isLed: sql<boolean>`${fill.runId} is not null`,
      coolantClass: coolantProduct.coolantClass,
      file: loopRevision.file,
    })
    .from(fill)
    .innerJoin(job, eq(job.id, fill.jobId))
    .innerJoin(coolantProduct, eq(coolantProduct.id, fill.productId))
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .innerJoin(system, eq(system.id, loop.systemId))
    .where(and(eq(system.state, 'in-service'), eq(system.forCourse, false)))
    .orderBy(asc(system.name), asc(system.id), desc(fill.filledOn));
  return rows.filter(({ file }) => !isOutline(file) && file.components.some(({ kind }) => kind === 'block'));
}

const placeOf = (file: LoopFile, kind: 'block' | 'radiator'): string | null =>
  file.components.find((each) => each.kind === kind)?.id ?? null;

async function dustThatWasCleaned(shop: Shop, machine: Machine): Promise<void> {
  const { systemId, loopId, filledOn, file } = machine;
  const cleanedOn = addDays(filledOn, STORY.before + 3);
  const fault = { cause: 'dust', part: placeOf(file, 'radiator') } as const;
  await keepLog(shop, machine, { fromOn: addDays(filledOn, 2), days: STORY.before, fault, reaches: 1, seed: 11 });
  const { workshopId, personId } = shop.accounts[1] as Account;
  await restartDust(shop.scope, { workshopId, systemId, loopId, on: cleanedOn, personId, at: atNoon(cleanedOn, 14) });
  await keepLog(shop, machine, { fromOn: addDays(cleanedOn, 1), days: STORY.after, fault: SOUND, seed: 11 });
}

async function pasteThatDries(shop: Shop, machine: Machine): Promise<void> {
  const fault = { cause: 'paste', part: placeOf(machine.file, 'block') } as const;
  await keepLog(shop, machine, { fromOn: addDays(shop.today, -STORY.open), days: STORY.open - 1, fault, reaches: 0.1, seed: 23 });
}

/** It ran hotter and slower until it was stripped; its log goes on behind that. */
async function blockThatWasOpened(shop: Shop, machine: Machine): Promise<void> {
  const { systemId, filledOn, file } = machine;
  const [before] = await shop.scope
    .select({ on: sql<string>`max(${fill.filledOn})::text` })
    .from(fill)
    .innerJoin(loopRevision, eq(loopRevision.id, fill.revisionId))
    .innerJoin(loop, eq(loop.id, loopRevision.loopId))
    .where(and(eq(loop.systemId, systemId), lt(fill.filledOn, filledOn)));
  const days = before?.on ? Math.min(STORY.before, daysBetween(before.on, filledOn) - 4) : 0;
  const fault = { cause: 'block', part: placeOf(file, 'block') } as const;
  if (days > STORY.after) await keepLog(shop, machine, { fromOn: addDays(filledOn, -days - 1), days, fault, seed: 37 });
  const home = Math.min(STORY.after, daysBetween(filledOn, shop.today) - 3);
  if (home <= 0) return;
  await keepLog(shop, machine, { fromOn: addDays(filledOn, 2), days: home, fault: SOUND, seed: 37 });
  await readQuietly(shop, machine);
}

interface Logged {
  readonly fromOn: string;
  readonly days: number;
  readonly fault: { readonly cause: HeatCause; readonly part: string | null };
  readonly reaches?: number;
  /** the same for the logs of one machine */
  readonly seed: number;
}
const SOUND = { cause: 'nothing', part: null } as const;

/** What the logger stand-in writes, read as an owner's log is read, and kept. */
async function keepLog({ scope, today, accounts }: Shop, { systemId, file }: Machine, { fromOn, days, ...how }: Logged): Promise<void> {
  const parts = readParts([file]);
  const text = [...simulatedLog({ loop: file, fluid: waterAt(35), parts, fromOn, days, ...how })].join('');
  const rows = text.split('\n').map((line) => line.split(','));
  const layout = layoutOf(rows);
  if (!layout) return;
  const columns = proposeColumns(layout.headings, layout.time, layout.date, parts);
  const reader = new LogReader(layout, columns, 'UTC');
  for (const row of rows) reader.take(row);
  const report = reader.end();
  if (!report || report.days.length === 0) return;
  const untilOn = addDays(fromOn, days - 1);
  if (untilOn >= today) return;
  const { workshopId, personId } = accounts[3] as Account;
  const own = { workshopId, systemId, personId, createdAt: atNoon(addDays(untilOn, 1), 10) };
  const [log] = await scope
    .insert(usageReading)
    .values({
      ...own,
      source: 'log',
      fromOn,
      readOn: untilOn,
      hours: report.hours,
      meanCoolantC: report.meanCoolantC,
      note: 'monitor.csv from its owner',
    })
    .returning({ id: usageReading.id });
  await scope
    .insert(loadReading)
    .values(report.days.map(({ on, at, reading }) => ({ ...own, logId: log?.id ?? null, readOn: on, takenAt: new Date(at), reading })));
  const known = { ...columns, fullPumpRpm: report.fullPumpRpm, fullFanRpm: report.fullFanRpm };
  await scope
    .insert(logColumns)
    .values({ workshopId, systemId, columns: known, name: 'monitor.csv' })
    .onConflictDoUpdate({ target: [logColumns.workshopId, logColumns.systemId], set: { columns: known } });
  await refreshCondition(scope, systemId);
  await redate(scope, { systemId });
}

/** how much more a part stands above its room with the fans turned down (a story; the loop's own twin would say so too) */
const QUIET = { fanSpeed: 0.3, rise: 1.16, noiseDba: 29 } as const;

/** Its owner tried it quieter, and read what that costs. */
async function readQuietly({ scope, today, accounts }: Shop, { systemId }: Machine): Promise<void> {
  const [last] = await scope
    .select({ reading: loadReading.reading })
    .from(loadReading)
    .where(eq(loadReading.systemId, systemId))
    .orderBy(desc(loadReading.readOn))
    .limit(1);
  if (!last) return;
  const { workshopId, personId } = accounts[3] as Account;
  const { roomC, partsC, coolantC, ...own } = last.reading;
  const quieter = (celsius: number): number => Math.round(10 * (roomC + QUIET.rise * (celsius - roomC))) / 10;
  const on = addDays(today, -1);
  await scope.insert(loadReading).values({
    ...{ workshopId, personId, systemId, logId: null, readOn: on, takenAt: atNoon(on, 19), createdAt: atNoon(on, 19) },
    reading: {
      ...own,
      roomC,
      partsC: Object.fromEntries(Object.entries(partsC).map(([part, celsius]) => [part, quieter(celsius)])),
      ...(coolantC === undefined ? {} : { coolantC: quieter(coolantC) }),
      fanSpeed: QUIET.fanSpeed,
      noiseDba: QUIET.noiseDba,
      fanGroups: [
        { name: 'roof', speed: QUIET.fanSpeed, by: 'hub' },
        { name: 'front', speed: QUIET.fanSpeed, by: 'hub' },
      ],
    },
  });
  await refreshCondition(scope, systemId);
}
