import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { outlineLoop } from '../../../core/machine/loop-file/outline.js';
import { loopVolume } from '../../../core/machine/loop-file/volume.js';
import { cameFilledDue } from '../../../core/workshop/due-dates/cameFilled.js';
import { nextService, type DueClock } from '../../../core/workshop/due-dates/due.js';
import type { DateReason } from '../../../core/workshop/due-dates/facts.js';
import type { ImportAnswer } from '../../../core/workshop/importing/answers.js';
import type { MachineKey, Mapping } from '../../../core/workshop/importing/fields.js';
import { MachineTableReader, type KnownOwner, type NewMachine, type NewOwner } from '../../../core/workshop/importing/machineTable.js';
import type { ImportInput } from '../../../core/workshop/importing/schema.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { job, owner, system } from '../../base/database/tables/machines.js';
import { fill } from '../../base/database/tables/runs.js';
import { usageReading } from '../../base/database/tables/usage.js';
import type { Ask } from '../../base/http/context.js';
import { clockInputs } from '../due-dates/clockInputs.js';
import { dustItems, hotSeasonOf } from '../due-dates/dust.js';
import { policyResolver } from '../due-dates/policies.js';
import { tellDates } from '../due-dates/writeDates.js';
import { countDates, inTurn, openBatch, readRows, TableWriter } from './batch.js';
import { namedCoolants, writeCoolants, type NamedCoolants, type Product } from './coolants.js';

async function known({ scope }: Ask): Promise<{ owners: KnownOwner[]; tags: string[] }> {
  const owners = await scope
    .select({ id: owner.id, name: owner.name, phone: owner.phone, email: owner.email })
    .from(owner)
    .where(eq(owner.forCourse, false));
  const systems = await scope
    .select({ ownerId: system.ownerId, name: system.name, tag: system.tag })
    .from(system)
    .where(eq(system.forCourse, false));
  const names = new Map<string, string[]>();
  for (const { ownerId, name } of systems) {
    const own = names.get(ownerId);
    if (own) own.push(name);
    else names.set(ownerId, [name]);
  }
  return {
    owners: owners.map((each) => ({ ...each, systems: names.get(each.id) ?? [] })),
    tags: systems.map(({ tag }) => tag).filter((tag) => tag !== ''),
  };
}

/** A machine with the ids of all that is made for it. */
interface Placed {
  readonly ids: { readonly owner: string; readonly system: string; readonly loop: string; readonly revision: string; readonly fill: string; readonly job: string }; // prettier-ignore
  readonly row: NewMachine;
  readonly product: Product | null;
  readonly due: Due | null;
  /** last change and coolant are known: a fill stands in the book */
  readonly isFilled: boolean;
}

interface Due {
  readonly dueOn: string;
  readonly reason: DateReason;
  readonly estimated: boolean;
  readonly clocks: readonly DueClock[];
}

/** The day of each machine that comes in: the same clocks that count for every other. */
async function dating(ask: Ask, undated: ImportInput['undated']) {
  const inputOf = await clockInputs(ask.scope, { loopIds: [], systemIds: [] });
  const policyOf = await policyResolver(ask.scope);
  const { today } = ask;
  return (ids: Placed['ids'], { machine, lastChange, promisedOn }: NewMachine, product: Product | null): Due | null => {
    if (lastChange !== null && product !== null) {
      const own = { filledOn: lastChange, intervalShare: 1, intervalReason: [], promisedOn };
      const holder = { id: ids.system, ownerId: ids.owner, hoursPerDay: machine.hoursPerDay, coolantC: machine.coolantC, condition: null };
      // nothing says that seals and tube were in use before that change
      return nextService({
        ...inputOf({ loopId: ids.loop, fill: own, product, machine: holder }),
        sealsOn: lastChange,
        tubeOn: lastChange,
      });
    }
    if (promisedOn !== null)
      return { dueOn: promisedOn, reason: { why: 'promised', on: promisedOn, sooner: null }, estimated: false, clocks: [] };
    if (lastChange === null && undated === 'no-date') return null;
    const { policy } = policyOf(ids.system, ids.owner);
    return { ...cameFilledDue({ product, since: lastChange, policy, today }), estimated: true, clocks: [] };
  };
}

async function place(ask: Ask, input: ImportInput, owners: readonly NewOwner[], coolants: NamedCoolants): Promise<Placed[]> {
  const dueOf = await dating(ask, input.undated);
  const placed: Placed[] = [];
  for (const each of owners) {
    const ownerId = each.knownId ?? randomUUID();
    for (const row of each.machines) {
      const [systemId, loopId, revision, fillId, jobId] = [randomUUID(), randomUUID(), randomUUID(), randomUUID(), randomUUID()];
      const ids = { owner: ownerId, system: systemId, loop: loopId, revision, fill: fillId, job: jobId };
      const product = row.coolant === null ? null : coolants.productOf(row.coolantName as string, row.coolant);
      placed.push({ ids, row, product, due: dueOf(ids, row, product), isFilled: product !== null && row.lastChange !== null });
      await inTurn(placed.length);
    }
  }
  return placed;
}

/** Reads a table of machines, and unless it is a trial, writes all of it that can be taken in one transaction. */
export async function importMachines(ask: Ask, input: ImportInput): Promise<ImportAnswer> {
  const coolants = await namedCoolants(ask, input.coolants);
  const { owners: knownOwners, tags } = await known(ask);
  const reader = new MachineTableReader({
    mapping: input.mapping as Mapping<MachineKey>,
    dayOrder: input.dayOrder,
    today: ask.today,
    coolants: coolants.uses,
    known: knownOwners,
    tags,
  });
  await readRows(input.rows, (line, cells) => reader.row(line, cells));
  const { owners, refused, leftOut } = reader.result();
  const placed = await place(ask, input, owners, coolants);
  const counts = {
    owners: owners.filter(({ knownId }) => knownId === null).length,
    systems: placed.length,
    works: 0,
    coolants: coolants.made.size,
  };
  const dates = countDates(placed.map(({ due }) => due?.dueOn ?? null), ask.today); // prettier-ignore
  const answer = { ...counts, dates, refused, leftOut };
  if (input.dryRun || placed.length === 0) return { importId: null, ...answer };
  const batch = await openBatch(ask, input, counts);
  await writeCoolants(ask, batch.id, coolants);
  await writeMachines(ask, batch, owners, placed);
  await tellDates(ask.scope);
  return { importId: batch.id, ...answer };
}

async function writeMachines(
  { scope, account, today }: Ask,
  { id: importId, at }: { id: string; at: Date },
  owners: readonly NewOwner[],
  placed: readonly Placed[],
): Promise<void> {
  const { workshopId, personId } = account;
  const own = { workshopId, createdAt: at };
  const season = await hotSeasonOf(scope);
  const writer = new TableWriter(scope);
  const idOf = new Map(placed.map(({ row, ids }) => [row, ids.owner]));
  await writer.add(owner, { ...own, importId }, owners, ({ knownId, input: { policy: _, ...values }, machines }) =>
    knownId === null ? { ...values, id: idOf.get(machines[0] as NewMachine) as string } : null,
  );
  await writer.add(
    system,
    { ...own, importId, state: 'in-service' },
    placed,
    ({
      ids,
      row: {
        machine: { policy: _, ...values },
      },
    }) => ({
      ...values,
      id: ids.system,
      ownerId: ids.owner,
    }),
  );
  await writer.add(loop, { ...own, name: 'Loop' }, placed, ({ ids, row, product, isFilled }) => ({
    id: ids.loop,
    systemId: ids.system,
    coolantProductId: product?.id ?? null,
    cameFilled: isFilled ? null : { productId: product?.id ?? null, since: row.lastChange, notedOn: today },
  }));
  await writer.add(loopRevision, { ...own, number: 1, kind: 'stated', personId }, placed, ({ ids, row }) => {
    const file = outlineLoop(row.machine.name, row.outline);
    const { volumeMl, sdMl } = loopVolume(file);
    return { id: ids.revision, loopId: ids.loop, file, volumeMl, volumeSdMl: sdMl };
  });
  await writeFills(writer, { ...own, personId, importId }, placed);
  await writeDates(writer, own, placed, season);
  await writer.end();
}

interface Imported {
  readonly workshopId: string;
  readonly createdAt: Date;
  readonly personId: string;
  readonly importId: string;
}

/** What the table knows of each machine's past: its last change and its meter. */
async function writeFills(writer: TableWriter, { personId, importId, ...own }: Imported, placed: readonly Placed[]): Promise<void> {
  const filled = placed.filter(({ isFilled }) => isFilled);
  await writer.add(job, { ...own, personId, importId, kind: 'drain-refill', state: 'done' }, filled, ({ ids, row }) => ({
    id: ids.job,
    systemId: ids.system,
    doneOn: row.lastChange,
  }));
  await writer.add(fill, own, filled, ({ ids, row, product }) => ({
    id: ids.fill,
    revisionId: ids.revision,
    jobId: ids.job,
    productId: (product as Product).id,
    filledOn: row.lastChange as string,
    promisedOn: row.promisedOn,
  }));
  await writer.add(
    usageReading,
    { ...own, personId, importId, source: 'meter' },
    placed,
    ({ ids, row: { reading } }) => reading && { systemId: ids.system, readOn: reading.on, hours: reading.hours },
  );
}

async function writeDates(
  writer: TableWriter,
  own: Pick<Imported, 'workshopId' | 'createdAt'>,
  placed: readonly Placed[],
  season: Awaited<ReturnType<typeof hotSeasonOf>>,
): Promise<void> {
  await writer.add(
    dueItem,
    { ...own, kind: 'coolant-service' },
    placed,
    ({ ids, due, isFilled }) =>
      due && {
        systemId: ids.system,
        loopId: ids.loop,
        fillId: isFilled ? ids.fill : null,
        dueOn: due.dueOn,
        reason: due.reason,
        estimated: due.estimated,
        clocks: [...due.clocks],
      },
  );
  const cleaned = placed
    .filter(({ isFilled }) => isFilled)
    .map(({ ids, row }) => ({ workshopId: own.workshopId, systemId: ids.system, loopId: ids.loop, place: row.machine.dustPlace, on: row.lastChange as string })); // prettier-ignore
  await writer.add(dueItem, {}, dustItems(cleaned, season), (item) => item);
}
