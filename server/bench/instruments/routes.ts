import type { AccessAnswer, InstrumentsAnswer, ReadingsAnswer } from '../../../core/bench/instruments/answers.js';
import { hasOnline, moveHands } from '../commands/commands.js';
import { and, asc, desc, eq, gt, sql } from 'drizzle-orm';
import { readMove } from '../../../core/bench/simulated-bench/hands.js';
import { readInput } from '../../../core/base/checking/input.js';
import Joi from 'joi';
import { bench } from '../../base/database/tables/people.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { renewAccess } from './access.js';
import { benchAccess, instrument, instrumentReading } from '../../base/database/tables/instruments.js';
import type { ReadingRow } from '../../base/push/notices.js';

/** readings in one answer; who asks again with the last number gets the next ones */
const PAGE = 4000;
/** without a number to go on from: as many of the newest */
const RECENT = 6000;

const afterSchema = Joi.object({
  after: Joi.string()
    .pattern(/^\d{1,15}$/, 'a number')
    .optional(),
}).unknown(true);

export function instrumentRoutes(routes: Routes): void {
  routes.get<InstrumentsAnswer>('/instruments', listBenches);
  routes.get<ReadingsAnswer>('/benches/:id/readings', readReadings);
  routes.post<AccessAnswer>(
    '/benches/:id/access',
    async (ask) => {
      const { url, others } = ask.instruments.broker;
      return { ...(await renewAccess(ask.scope, ask.account, idFrom(ask.request, 'id', 'bench'), false)), url, others };
    },
    { secret: true },
  );
  routes.post('/benches/:id/hands', async ({ scope, account, request }) => {
    const benchId = idFrom(request, 'id', 'bench');
    const move = readMove(request.body);
    if (move.do === 'skip') throw new DomainError('refused', 'Time passes by itself here; set a practice run’s own clock ahead.');
    if (!(await hasOnline(scope, benchId, 'simulated')))
      throw new DomainError('refused', 'No simulated bench stands here; real ones have real hands.');
    await moveHands(scope, account.workshopId, benchId, move);
    return { benchId };
  });
}

/** Benches with their instruments, and the newest value of each. */
async function listBenches({ scope, instruments }: Ask) {
  const benches = await scope
    .select({ id: bench.id, name: bench.name, forPractice: bench.forPractice })
    .from(bench)
    .orderBy(asc(bench.position));
  const rows = await scope.select().from(instrument).orderBy(asc(instrument.kind));
  const newest = await scope.execute<{ bench_id: string; kind: string; value: number; at: string }>(
    sql`select i.bench_id, i.kind, r.value, r.at from instrument i cross join lateral (select value, at from instrument_reading r where r.workshop_id = i.workshop_id and r.bench_id = i.bench_id and r.kind = i.kind and r.id > (select coalesce(max(id), 0) - 20000 from instrument_reading) order by r.id desc limit 1) r`,
  );
  const access = await scope.select({ benchId: benchAccess.benchId, createdAt: benchAccess.createdAt }).from(benchAccess).where(eq(benchAccess.simulated, false)); // prettier-ignore
  return {
    broker: instruments.broker,
    benches: benches.map((own) => ({
      ...own,
      hasAccess: access.some(({ benchId }) => benchId === own.id),
      instruments: rows
        .filter(({ benchId }) => benchId === own.id)
        .map(({ kind, online, resolution, simulated, problem, changedAt }) => {
          const last = newest.rows.find((row) => row.bench_id === own.id && row.kind === kind);
          return {
            kind,
            online,
            resolution,
            simulated,
            problem,
            changedAt,
            last: last ? { value: last.value, at: new Date(last.at) } : null,
          };
        }),
    })),
  };
}

async function readReadings({ scope, request }: Ask) {
  const benchId = idFrom(request, 'id', 'bench');
  const [own] = await scope.select({ id: bench.id }).from(bench).where(eq(bench.id, benchId));
  if (!own) throw notFound('bench');
  const { after } = readInput<{ after?: string }>(afterSchema, { ...request.query });
  const columns = { id: instrumentReading.id, kind: instrumentReading.kind, value: instrumentReading.value, at: instrumentReading.at };
  const rows =
    after === undefined
      ? (await scope.select(columns).from(instrumentReading).where(eq(instrumentReading.benchId, benchId)).orderBy(desc(instrumentReading.id)).limit(RECENT)).reverse() // prettier-ignore
      : await scope
          .select(columns)
          .from(instrumentReading)
          .where(and(eq(instrumentReading.benchId, benchId), gt(instrumentReading.id, Number(after))))
          .orderBy(asc(instrumentReading.id))
          .limit(PAGE);
  return {
    readings: rows.map(({ id, kind, value, at }): ReadingRow => [id, kind as ReadingRow[1], value, at.toISOString()]),
    more: after !== undefined && rows.length === PAGE,
  };
}
