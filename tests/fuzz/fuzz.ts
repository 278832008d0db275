import Joi from 'joi';
import sharp from 'sharp';
import { ENTRIES } from '../../core/bench/runs/entries/all.js';
import { seededRandom, type Random } from '../../core/base/random/random.js';
import { usualLoop } from '../../core/machine/catalogue/testLoops.js';
import { usualConnectors } from '../../core/machine/electrical/usual.js';
import { DEFAULT_SCHOOLS } from '../../core/physics/leak-testing/schools.js';
import type { Route } from '../../server/base/http/routeList.js';
import type { TestBench, Visitor } from '../integration/bench.js';
import { Instances } from './instances.js';
import { HOSTILE_IDS, mutated, RAW_BODIES } from './mutations.js';

export interface FuzzFigures {
  readonly requests: number;
  /** answers by their first digit */
  readonly answers: Readonly<Record<string, number>>;
  /** routes with a body of which at least one made-up document was taken */
  readonly reached: number;
  readonly withBody: number;
  /** what must not be: an answer of the server's own failing, with what was asked */
  readonly failed: readonly string[];
  /** answers that held a word of another workshop */
  readonly foreign: readonly string[];
  /** ms; longest that an answer took, and the route */
  readonly slowest: { readonly ms: number; readonly route: string };
}

const PROBE = 'the fuzzer asks for a schema';
/** a stream never ends; sessions and the first visit have tests of their own */
const LEFT_OUT = ['GET /stream', 'DELETE /session', 'POST /setup', 'POST /session'];
const name = ({ method, path }: Route): string => `${method} ${path}`;

/** Word that stands in everything of the other workshop, and nowhere else. */
export const FOREIGN = 'zanzibarforeign';

/** The schema that each route checks its body with, as it is seen at work: no list of ours that could be out of date. */
async function learnSchemas(routes: readonly Route[], lead: Visitor, id: string): Promise<ReadonlyMap<string, Joi.Schema>> {
  let prototype = Object.getPrototypeOf(Joi.object()) as { validate: Joi.AnySchema['validate'] };
  while (!Object.hasOwn(prototype, 'validate')) prototype = Object.getPrototypeOf(prototype) as typeof prototype;
  const real = prototype.validate;
  const schemas = new Map<string, Joi.Schema>();
  let asked = '';
  prototype.validate = function validate(this: Joi.Schema, value: unknown, ...more: unknown[]) {
    if ((value as { probe?: unknown } | null)?.probe === PROBE) schemas.set(asked, this);
    return (real as (...given: unknown[]) => never).call(this, value, ...more);
  } as never;
  try {
    for (const route of routes.filter(({ method }) => method === 'POST' || method === 'PUT')) {
      asked = name(route);
      await lead.send(route.method, `/api${route.path.replace(/:[a-z]+/g, id)}`, { probe: PROBE });
    }
  } finally {
    prototype.validate = real;
  }
  return schemas;
}

/** Ids of a workshop that stand in the database, by table. */
type Ids = ReadonlyMap<string, readonly string[]>;

/** Which table a place in an address, or a key of a body, means, where it is not called like it. */
const MEANS: Readonly<Record<string, string>> = {
  photos: 'photo',
  'fallout-looks': 'fallout_look',
  fills: 'fill',
  'due-items': 'due_item',
  'usage-readings': 'usage_reading',
  people: 'person',
  waste: 'waste_container',
  benches: 'bench',
  items: 'store_item',
  layouts: 'loop_layout',
  'kit-learned': 'kit_learned',
  lots: 'fitted_part',
  productId: 'coolant_product',
  coolantProductId: 'coolant_product',
  coolants: 'coolant_product',
  lotId: 'coolant_lot',
  wasteId: 'waste_container',
  itemId: 'store_item',
};

/** An id for a place: mostly of the right kind, sometimes of any. */
function idFor(random: Random, ids: Ids, word: string): string {
  const own = ids.get(
    MEANS[word] ??
      word
        .replace(/Id$|s$/, '')
        .replaceAll('-', '_')
        .replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`),
  );
  return own && own.length > 0 && random.next() < 0.85 ? random.pick(own) : random.pick([...ids.values()].flat());
}

async function idsOf({ pool }: TestBench, workshopId: string): Promise<Ids> {
  const { rows: tables } = await pool.query<{ name: string }>(
    "select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'workshop_id' and table_name in (select table_name from information_schema.columns where table_schema = 'public' and column_name = 'id' and data_type = 'uuid')",
  );
  const found = new Map<string, readonly string[]>([['workshop', [workshopId]]]);
  for (const { name: table } of tables) {
    const { rows } = await pool.query<{ id: string }>(`select id from ${table} where workshop_id = $1 order by created_at desc limit 12`, [
      workshopId,
    ]);
    if (rows.length > 0) found.set(table, rows.map(({ id }) => id)); // prettier-ignore
  }
  return found;
}

/** How a body is made up. */
class Maker {
  private readonly instances: Instances;

  constructor(
    private readonly random: Random,
    ids: Ids,
    picture: string,
  ) {
    const known: Record<string, unknown> = {
      file: usualLoop(),
      sheet: { supply: '', connectors: usualConnectors(usualLoop()) },
      schools: DEFAULT_SCHOOLS,
      image: picture,
      body: () => this.entry(),
      id: () => random.uuid(),
      version: () => (random.next() < 0.7 ? 1 : 2),
      timeZone: 'Europe/Lisbon',
    };
    this.instances = new Instances(random, (key) => idFor(random, ids, key), known);
  }

  private entry(): unknown {
    const type = this.random.pick(Object.keys(ENTRIES) as (keyof typeof ENTRIES)[]);
    return { type, ...(this.instances.of(Joi.object(ENTRIES[type].schema)) as object) };
  }

  of = (schema: Joi.Schema | undefined): unknown => (schema ? this.instances.of(schema) : {});
}

/**
 * Sends so many made-up requests to every route of a server: documents that a route's own schema would take, the same with
 * things wrong, and what is no document at all; with ids of this workshop, of another, and of nothing.
 */
export async function fuzz(
  bench: TestBench,
  { requests, seed, lead, other, tell }: { requests: number; seed: number; lead: Visitor; other: Visitor; tell?: (done: number) => void },
): Promise<FuzzFigures> {
  const random = seededRandom(seed);
  const routes = bench.routes.filter((route) => !LEFT_OUT.includes(name(route)));
  const bytes = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#2277aa' } })
    .png()
    .toBuffer();
  const picture = `data:image/png;base64,${bytes.toString('base64')}`;
  const foreignIds = await idsOf(bench, other.workshopId);
  let ids = await idsOf(bench, lead.workshopId);
  const schemas = await learnSchemas(routes, lead, ids.get('run')?.[0] as string);
  const answers: Record<string, number> = {};
  const reached = new Set<string>();
  const failed: string[] = [];
  const foreign: string[] = [];
  let slowest = { ms: 0, route: '' };
  let done = 0;

  /** A request, as it goes over the wire. */
  const makeUp = (): { route: Route; path: string; sent: string | undefined; headers: Record<string, string>; hasBody: boolean } => {
    const route = random.pick(routes);
    const address = route.path.replace(/([a-z-]+)\/:[a-z]+/g, (_, place: string) => {
      const chance = random.next();
      const id = chance < 0.8 ? idFor(random, ids, place) : chance < 0.9 ? idFor(random, foreignIds, place) : random.pick(HOSTILE_IDS);
      return `${place}/${id}`;
    });
    const query =
      random.next() < 0.1
        ? `?q=${encodeURIComponent(random.pick(['Owl', '%', 'a'.repeat(70), '\ufffd', "'"]))}&after=${random.pick(['1', '99999999999', '-1', 'x'])}`
        : '';
    const path = `/api${address}${query}`;
    const hasBody = route.method === 'POST' || route.method === 'PUT';
    let body: unknown;
    let headers: Record<string, string> = random.next() < 0.1 ? { 'idempotency-key': random.uuid() } : {};
    const kind = random.next();
    if (hasBody && kind < 0.08) {
      const raw = random.pick(RAW_BODIES);
      body = raw.body;
      headers = { ...headers, 'content-type': 'application/json', ...raw.headers };
    } else if (hasBody) {
      const made = new Maker(random, random.next() < 0.85 ? ids : foreignIds, picture).of(schemas.get(name(route)));
      body = kind < 0.45 ? made : mutated(random, made);
    }
    const sent = typeof body === 'string' ? body : body === undefined ? undefined : JSON.stringify(body);
    return { route, path, sent, headers, hasBody };
  };
  const one = async (): Promise<void> => {
    const { route, path, sent, headers, hasBody } = makeUp();
    const startedMs = performance.now();
    const { status, text } = await lead.raw(route.method, path, sent, headers);
    const ms = performance.now() - startedMs;
    if (ms > slowest.ms) slowest = { ms, route: name(route) };
    const group = status === 503 ? 'busy' : `${Math.floor(status / 100)}xx`;
    answers[group] = (answers[group] ?? 0) + 1;
    if (status < 300 && hasBody) reached.add(name(route));
    if (status >= 500 && !(status === 503 && text.includes('"busy"')))
      failed.push(`${status} ${name(route)} ${path.slice(0, 120)} ${sent?.slice(0, 400) ?? ''}`);
    // what somebody sent comes back to them; what they did not send and is another's must not
    if (text.includes(FOREIGN) && !sent?.includes(FOREIGN)) foreign.push(`${name(route)} ${path.slice(0, 120)}`);
    if (status === 401) await lead.signIn(lead.email);
  };
  const hand = async (): Promise<void> => {
    while (done < requests) {
      done += 1;
      if (done % 400 === 0) {
        ids = await idsOf(bench, lead.workshopId);
        tell?.(done);
      }
      await one();
    }
  };
  await Promise.all(Array.from({ length: HANDS }, hand));
  return { requests, answers, reached: reached.size, withBody: schemas.size, failed, foreign, slowest };
}

/** requests under way at once */
const HANDS = 6;
