import { asc, eq } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import type { RunEvent } from '../../../core/bench/runs/log.js';
import { RunFold } from '../../../core/bench/runs/replay.js';
import { BOOK_ENGINE } from '../../../core/physics/live-book/loopContents.js';
import type { Scope } from '../../base/database/client.js';
import { loopContents, run } from '../../base/database/tables/runs.js';
import { loadEvents } from '../../bench/runs/folds.js';

/** What does not hold in a database, and where. */
export interface Finding {
  readonly what: string;
  readonly where: string;
}

export interface Checked {
  /** how many things were looked at, by their kind */
  readonly looked: Readonly<Record<string, number>>;
  readonly findings: readonly Finding[];
}

/** mL, pieces; sums of what was written down may differ from a total by rounding */
const SAME_WITHIN = 1e-6;
/** mL within which a book that was stored is the one that its log makes */
const SAME_BOOK_ML = 0.5;

/** A rule that the database can look at by itself: rows that break it, each with where it is. */
interface Rule {
  readonly looks: string;
  readonly what: string;
  readonly counts: string;
  readonly breaks: string;
}

const RULES: readonly Rule[] = [
  {
    looks: 'revisions',
    what: 'revisions of a loop are not numbered 1, 2, 3 …',
    counts: 'select count(*) as n from loop_revision',
    breaks: `select 'loop ' || loop_id as place from loop_revision group by loop_id having max(number) <> count(*) or min(number) <> 1`,
  },
  {
    looks: 'shelf counts',
    what: 'the count on the shelf is not the sum of its moves',
    counts: 'select count(*) as n from store_item',
    breaks: `select 'item ' || i.id as place from store_item i left join store_move m on m.item_id = i.id group by i.id having abs(i.count - coalesce(sum(m.change), 0)) > ${SAME_WITHIN}`,
  },
  {
    looks: 'waste containers',
    what: 'a container holds less than nothing, or more than fits',
    counts: 'select count(*) as n from waste_container',
    breaks: `select 'container ' || c.id as place from waste_container c left join waste_entry e on e.container_id = c.id group by c.id having coalesce(sum(e.volume_ml), 0) < -${SAME_BOOK_ML}`,
  },
  {
    looks: 'signed records',
    what: 'a signed run without its record, or a record of a run that was not signed',
    counts: 'select count(*) as n from run_record',
    breaks: `select 'run ' || r.id as place from run r left join run_record d on d.run_id = r.id where r.job_id is not null and (r.state = 'signed-off') <> (d.id is not null)`,
  },
  {
    looks: 'due dates',
    what: 'a retired machine still has an open date',
    counts: 'select count(*) as n from due_item',
    breaks: `select 'date ' || d.id as place from due_item d join system s on s.id = d.system_id where d.state = 'open' and s.state = 'retired'`,
  },
  {
    looks: 'references of entries',
    what: 'an entry names a lot, a container or a store item that is not in its workshop',
    counts: `select count(*) as n from run_event where body ?| array['lotId', 'wasteId', 'itemId']`,
    breaks: `select 'entry ' || e.id as place from run_event e
      where (e.body->>'lotId' is not null and not exists (select 1 from coolant_lot t where t.workshop_id = e.workshop_id and t.id::text = e.body->>'lotId'))
         or (e.body->>'wasteId' is not null and not exists (select 1 from waste_container t where t.workshop_id = e.workshop_id and t.id::text = e.body->>'wasteId'))`,
  },
  {
    looks: 'keys between tables',
    what: 'a key between tables is not looked after by the database',
    counts: `select count(*) as n from pg_constraint where contype = 'f' and connamespace = 'public'::regnamespace`,
    breaks: `select conrelid::regclass || ' ' || conname as place from pg_constraint where contype = 'f' and connamespace = 'public'::regnamespace and not convalidated`,
  },
  {
    looks: 'row policies',
    what: 'a table with rows of workshops has no policy that binds everybody',
    counts: `select count(*) as n from pg_policies where schemaname = 'public'`,
    breaks: `select relname::text as place from pg_class where relnamespace = 'public'::regnamespace and relkind = 'r' and relname <> 'session' and not (relrowsecurity and relforcerowsecurity)
      and not (relrowsecurity and not has_table_privilege('lavacrum_app', oid, 'select, insert, update, delete') and not has_table_privilege('lavacrum_server', oid, 'select, insert, update, delete'))`,
  },
  {
    looks: 'lines of the list of machines',
    what: 'a machine has no line in the list, or its words are not searched',
    counts: `select count(*) as n from machine_line`,
    breaks: `select 'machine ' || s.name as place from system s where not s.for_course
      and not exists (select 1 from stale_line m where m.workshop_id = s.workshop_id and m.system_id = s.id)
      and not exists (select 1 from machine_line l join search_text t on t.workshop_id = l.workshop_id and t.kind = 'machine' and t.ref = l.id
        where l.workshop_id = s.workshop_id and l.id = s.id and t.text = fold_text(l.words))`,
  },
];

/**
 * Proves a database: the order of every log, that each can be played again, that the books stored with loops are those that
 * their logs make, that sums are what was written down, that nothing points at what is not there.
 * @param url a login that sees past row policies
 * @throws where it does not
 */
export async function checkDatabase(url: string, tell: (words: string) => void = () => undefined): Promise<Checked> {
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  await client.connect();
  try {
    // one instant of everything, and a refusal where row policies would hide rows
    await client.query('begin isolation level repeatable read read only; set local row_security = off');
    const looked: Record<string, number> = {};
    const findings: Finding[] = [];
    for (const { looks, what, counts, breaks } of RULES) {
      looked[looks] = Number((await client.query<{ n: string }>(counts)).rows[0]?.n);
      for (const { place } of (await client.query<{ place: string }>(breaks)).rows) findings.push({ what, where: place });
    }
    const logs = await checkLogs(client, tell);
    return { looked: { ...logs.looked, ...looked }, findings: [...logs.findings, ...findings] };
  } finally {
    await client.end().catch(() => undefined);
  }
}

async function checkLogs(client: pg.Client, tell: (words: string) => void): Promise<Checked> {
  const scope = drizzle(client) as unknown as Scope;
  const runs = await scope.select({ id: run.id, state: run.state }).from(run).orderBy(asc(run.startedAt));
  const findings: Finding[] = [];
  let entries = 0;
  for (const [nth, { id, state }] of runs.entries()) {
    const events = await loadEvents(scope, id);
    entries += events.length;
    for (const what of await checkLog(scope, id, state, events)) findings.push({ what, where: `run ${id}` });
    if (nth % TELL_EVERY === TELL_EVERY - 1) tell(`${nth + 1} of ${runs.length} logs`);
  }
  return { looked: { logs: runs.length, entries }, findings };
}

const TELL_EVERY = 200;

async function checkLog(scope: Scope, runId: string, state: string, events: readonly RunEvent[]): Promise<string[]> {
  if (events.some(({ seq }, index) => seq !== index + 1)) return ['entries are not numbered 1, 2, 3 …'];
  try {
    const [row] = await scope.select({ procedure: run.procedure }).from(run).where(eq(run.id, runId));
    const fold = new RunFold((row as { procedure: typeof run.$inferSelect.procedure }).procedure).sync(events);
    const signed = fold.state.signedOff !== null;
    return [
      ...(signed === (state === 'signed-off') ? [] : ['its log and its state differ on whether it was signed']),
      ...(await checkBook(scope, runId, state, fold)),
    ];
  } catch (error) {
    return [`its log cannot be played again (${error instanceof Error ? error.name : typeof error})`];
  }
}

/** The book of a run that goes on is the one its log makes. One of an older engine is not compared: it was carried otherwise. */
async function checkBook(scope: Scope, runId: string, state: string, { events, state: { contents } }: RunFold): Promise<string[]> {
  const [kept] = await scope
    .select({ seq: loopContents.seq, contents: loopContents.contents })
    .from(loopContents)
    .where(eq(loopContents.runId, runId));
  if (!kept) return [];
  if (kept.seq > events.length) return ['its book is ahead of its log'];
  if (state !== 'active' || kept.seq !== events.length || kept.contents.engine !== BOOK_ENGINE) return [];
  const [a, b] = [kept.contents.insideMl, contents.insideMl];
  return (a === null) === (b === null) && Math.abs((a ?? 0) - (b ?? 0)) <= SAME_BOOK_ML
    ? []
    : ['the book that is kept with the loop is not the one its log makes'];
}
