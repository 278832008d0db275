import { eq, sql } from 'drizzle-orm';
import { addDays, daysBetween } from '../core/base/units/calendar.js';
import type { Random } from '../core/base/random/random.js';
import type { Scope } from '../server/base/database/client.js';
import { dueItem, postponement } from '../server/base/database/tables/due-dates.js';
import type { Account } from '../server/base/http/context.js';
import { system } from '../server/base/database/tables/machines.js';
import { POSTPONE_REASONS } from './people.js';
import type { Story } from './stories.js';

/** What became of a machine's dates: settling checks made, a loop retired, a service put off by its owner. */
interface After {
  readonly scope: Scope;
  readonly random: Random;
  readonly today: string;
  readonly now: Date;
  readonly accounts: readonly Account[];
}

export const earlier = (a: string, b: string): string => (a < b ? a : b);
export const atNoon = (day: string, hour = 9): Date => new Date(`${day}T${String(hour).padStart(2, '0')}:10:00Z`);

/** Old settling checks were made; only machines of the settling story still wait for theirs. */
export async function settle(world: After, systemId: string, story: Story): Promise<void> {
  if (story === 'settling') return;
  const { scope } = world;
  const open = await scope
    .select()
    .from(dueItem)
    .where(sql`${dueItem.systemId} = ${systemId} and ${dueItem.kind} = 'settling-check' and ${dueItem.state} = 'open'`);
  for (const item of open) {
    const at = atNoon(earlier(addDays(item.dueOn, -1), world.today), 16);
    await scope
      .update(dueItem)
      .set({
        state: 'closed',
        outcome: { why: 'settled', levelChangeMm: -2, note: '' },
        closedAt: at,
        closedBy: (world.accounts[3] as Account).personId,
        version: 2,
      })
      .where(eq(dueItem.id, item.id));
  }
}

export async function retire({ scope, now, accounts }: After, systemId: string): Promise<void> {
  await scope.update(system).set({ state: 'retired', note: 'Loop taken out; the owner went over to air.' }).where(eq(system.id, systemId));
  await scope
    .update(dueItem)
    .set({
      state: 'closed',
      outcome: { why: 'loop-ended', kind: 'retirement' },
      closedAt: now,
      closedBy: (accounts[0] as Account).personId,
    })
    .where(sql`${dueItem.systemId} = ${systemId} and ${dueItem.state} = 'open'`);
}

export async function putOff({ scope, random, today, accounts }: After, systemId: string): Promise<void> {
  const [item] = await scope
    .select()
    .from(dueItem)
    .where(sql`${dueItem.systemId} = ${systemId} and ${dueItem.kind} = 'coolant-service' and ${dueItem.state} = 'open'`);
  if (!item || daysBetween(item.dueOn, today) < 10) return;
  const until = addDays(today, -Math.round(random.between(1, 6)));
  const reason = random.pick(POSTPONE_REASONS);
  const desk = accounts[3] as Account;
  await scope.insert(postponement).values({
    workshopId: desk.workshopId,
    dueItemId: item.id,
    from: item.dueOn,
    until,
    reason,
    personId: desk.personId,
    createdAt: atNoon(earlier(addDays(item.dueOn, 1), today)),
  });
  await scope
    .update(dueItem)
    .set({
      dueOn: until,
      postponed: 1,
      reason: { why: 'put-off', until, said: reason, first: item.reason },
      version: 2,
    })
    .where(eq(dueItem.id, item.id));
}
