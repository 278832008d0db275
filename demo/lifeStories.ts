import { eq, sql } from 'drizzle-orm';
import { addDays, daysBetween } from '../core/base/units/calendar.js';
import { findingWords } from '../core/edge/words/dates.js';
import type { CauseKey, Finding } from '../core/workshop/due-dates/facts.js';
import type { Scope } from '../server/base/database/client.js';
import { coolantLot } from '../server/base/database/tables/coolants.js';
import { finding, job } from '../server/base/database/tables/machines.js';
import { fill } from '../server/base/database/tables/runs.js';
import type { Account } from '../server/base/http/context.js';
import { refreshLives } from '../server/workshop/learned-lives/refresh.js';
import { atNoon } from './afterwards.js';
import type { DemoCoolant } from './technician.js';

/** How coolants ended in the demo's machines: some as usual, and one lot of the white pastel that falls out early. */

interface Shop {
  readonly scope: Scope;
  readonly today: string;
  readonly now: Date;
  readonly accounts: readonly Account[];
}

/** days within which the bad lot was poured, between which ages its machines were filled again, and after how many it fell out */
const BAD = { pouredWithin: 420, least: 25, most: 240, machines: 7, fellOutAfter: 27, apart: 5 } as const;
/** one in so many other fills had ended before it came out */
const USUAL_ENDS: Readonly<Record<string, { every: number; cause: CauseKey; text: string }>> = {
  opaque: { every: 9, cause: 'fallout', text: 'a pale layer at the foot of the reservoir' },
  biocide: { every: 6, cause: 'growth', text: 'slimy tube, a green shimmer at the outlet' },
  clear: { every: 8, cause: 'corrosion', text: 'green in the plate of the graphics block' },
};

/** The lot that falls out early: its bottle was opened when the first of these machines got it. */
export async function badLot(scope: Scope, today: string, white: DemoCoolant): Promise<DemoCoolant> {
  const [made] = await scope
    .insert(coolantLot)
    .values({
      workshopId: sql`(select workshop_id from coolant_product where id = ${white.productId})`,
      productId: white.productId,
      lot: 'L448',
      openedOn: addDays(today, -BAD.pouredWithin),
    })
    .returning({ id: coolantLot.id, lot: coolantLot.lot });
  const own = made as { id: string; lot: string };
  return { ...white, lotId: own.id, lot: own.lot };
}

interface Ended extends Record<string, unknown> {
  fill_id: string;
  job_id: string;
  system_id: string;
  coolant_class: string;
  product_id: string;
  is_recorded: boolean;
  filled_on: string;
  /** day and job of the next fill; null: it is still in */
  next_on: string | null;
  next_job: string | null;
}

/** Fills of machines in use that no led run followed, with what took them out; the newest first. */
async function knownFills(scope: Scope): Promise<Ended[]> {
  const { rows } = await scope.execute<Ended>(sql`
    select f.id as fill_id, f.job_id, l.system_id, p.coolant_class, f.product_id, f.run_id is null as is_recorded, f.filled_on::text,
      lead(f.filled_on) over own::text as next_on, lead(f.job_id) over own as next_job
    from fill f join loop_revision r on r.id = f.revision_id join loop l on l.id = r.loop_id join coolant_product p on p.id = f.product_id
      join system s on s.id = l.system_id
    where s.state = 'in-service'
    window own as (partition by l.id order by f.filled_on, f.created_at)
    -- by what the demo made, never by the ids that chance gave it: the same day tells the same lives
    order by f.filled_on desc, s.name, l.name, f.poured_ml`);
  return rows;
}

export async function tellByLives({ scope, today, now, accounts }: Shop, bad: DemoCoolant): Promise<void> {
  const { workshopId } = accounts[0] as Account;
  const ends = async ({ system_id: systemId, next_on, next_job }: Ended, cause: CauseKey, text: string): Promise<void> => {
    if (next_on === null || next_job === null) return;
    const fact: Finding = { why: 'cause', cause, name: null, text };
    const at = atNoon(next_on, 15);
    await scope
      .insert(finding)
      .values({ workshopId, systemId, jobId: next_job, fact, text: findingWords(fact), severity: 'watch', foundAt: at, createdAt: at });
  };
  const fills = await knownFills(scope);
  const early = fills.filter(
    ({ product_id, is_recorded, filled_on, next_on }) =>
      product_id === bad.productId &&
      is_recorded &&
      next_on !== null &&
      daysBetween(filled_on, today) <= BAD.pouredWithin &&
      daysBetween(filled_on, next_on) >= BAD.least &&
      daysBetween(filled_on, next_on) <= BAD.most,
  );
  // those that came out soonest: what falls out early is told from what was merely changed early
  const age = ({ filled_on, next_on }: Ended): number => daysBetween(filled_on, next_on ?? today);
  const told = [...early].sort((a, b) => age(a) - age(b)).slice(0, BAD.machines);
  for (const [index, each] of told.entries()) {
    // it fell out weeks after it was poured, whatever day of the year the demo begins on
    const latest = addDays(each.next_on ?? today, -(BAD.fellOutAfter + BAD.apart * index));
    const filledOn = latest > each.filled_on ? latest : each.filled_on;
    await scope.update(fill).set({ lotId: bad.lotId, filledOn }).where(eq(fill.id, each.fill_id));
    await scope.update(job).set({ doneOn: filledOn }).where(eq(job.id, each.job_id));
    await ends(each, 'fallout', 'white flakes in the reservoir, weeks after the fill');
  }
  const others = fills.filter((each) => !told.includes(each) && each.next_on !== null && each.is_recorded);
  for (const [coolantClass, { every, cause, text }] of Object.entries(USUAL_ENDS)) {
    const own = others.filter((each) => each.coolant_class === coolantClass);
    for (const [index, each] of own.entries()) if (index % every === every - 1) await ends(each, cause, text);
  }
  await refreshLives(scope, { workshopId, today, at: now });
}
