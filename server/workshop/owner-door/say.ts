import { and, count, eq, inArray, sql } from 'drizzle-orm';
import { dayIn } from '../../../core/base/units/calendar.js';
import { refuse } from '../../../core/base/checking/input.js';
import { say } from '../../../core/base/words/say.js';
import { LINK } from '../../../core/workshop/owner-door/address.js';
import { WITH_FILE, type Said, type SaidInput, type SaidKind } from '../../../core/workshop/owner-door/said.js';
import { mayAtDoor, type DoorAct } from '../../../core/workshop/people/doorSettings.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import { consent } from '../../base/database/tables/jobs.js';
import { doorEntry, doorFile, slotOffer } from '../../base/database/tables/owner-door.js';
import { DomainError } from '../../base/http/errors.js';
import { pushNotice } from '../../base/push/notices.js';
import type { OpenLink } from './enter.js';
import { doorShop, jobAtDoor, type JobAtDoor } from './page.js';

const ACT_OF: Readonly<Record<SaidKind, DoorAct>> = {
  agreed: 'agree',
  declined: 'agree',
  slot: 'slots',
  days: 'slots',
  'put-off': 'put-off',
  photo: 'photo',
  meter: 'meter',
  log: 'log',
  line: 'line',
};

/** A picture or table as it is kept. */
export interface DoorFileKept {
  readonly mediaType: 'image/jpeg' | 'text/csv';
  readonly content: Buffer;
}

const notNow = (words: string): DomainError => new DomainError('refused', words);

/** Writes down what an owner said, once. What decides anything is answered by the desk; an agreement stands as it is given. */
export async function sayAtDoor(
  scope: Scope,
  link: OpenLink,
  now: Date,
  { id, said }: SaidInput,
  file: DoorFileKept | null,
): Promise<void> {
  // one after the other: of two who agree at the same moment the second finds it agreed
  await scope.execute(sql`select pg_advisory_xact_lock(hashtext(${`door ${link.systemId}`}))`);
  const known = await scope.select({ id: doorEntry.id }).from(doorEntry).where(eq(doorEntry.id, id));
  if (known.length > 0) return;
  const shop = await doorShop(scope);
  if (!mayAtDoor(shop.door, ACT_OF[said.kind])) throw notNow(say('This workshop asks you to call for that.'));
  const own = await jobAtDoor(scope);
  const today = dayIn(shop.timeZone, now);
  if ((await CHECKS[said.kind]({ scope, said, own, today, now })) === 'known') return;
  await demandRoom(scope, said.kind);
  if (WITH_FILE.includes(said.kind) !== (file !== null))
    refuse('file', say('a photograph or a log comes with its file, and nothing else does'));
  if (said.kind === 'agreed' && own)
    await scope.insert(consent).values({
      workshopId: link.workshopId,
      jobId: own.id,
      kind: own.asked?.kind ?? own.kind,
      estimate: own.estimate,
      estimateNumber: own.estimateNumber,
      how: 'page',
      words: '',
      name: said.name,
      createdAt: now,
    });
  await scope
    .insert(doorEntry)
    .values({ id, workshopId: link.workshopId, linkId: link.id, systemId: link.systemId, jobId: own?.id ?? null, said, createdAt: now });
  if (file) await scope.insert(doorFile).values({ workshopId: link.workshopId, entryId: id, ...file, createdAt: now });
  await pushNotice(scope, link.workshopId, { kind: 'owners' });
}

async function demandRoom(scope: Scope, kind: SaidKind): Promise<void> {
  const [{ entries, files } = { entries: 0, files: 0 }] = await scope
    .select({
      entries: count(),
      files: sql<number>`count(*) filter (where ${doorEntry.said} ->> 'kind' in ('photo', 'log'))`.mapWith(Number),
    })
    .from(doorEntry);
  if (entries >= LINK.mostEntries || (WITH_FILE.includes(kind) && files >= LINK.mostFiles))
    throw new DomainError('too-many', say('Enough came through this link. Call the workshop, or ask for a new link.'));
}

interface Check {
  readonly scope: Scope;
  readonly said: Said;
  readonly own: JobAtDoor | null;
  readonly today: string;
  readonly now: Date;
}

/** `known`: it was said before, and there is nothing to write. @throws where it does not fit what the page shows now */
type Checked = Promise<'new' | 'known'>;

const isOpen = (own: JobAtDoor | null): own is JobAtDoor => own !== null && own.state !== 'done';

async function ofEstimate({ scope, said, own }: Check): Checked {
  if (said.kind !== 'agreed' && said.kind !== 'declined') return 'new';
  if (!isOpen(own)) throw notNow(say('There is no estimate to answer here any more.'));
  if (said.estimateNumber !== own.estimateNumber)
    throw new DomainError('conflict', say('The estimate changed meanwhile. Read it again, then answer.'));
  const agreed = await scope
    .select({ at: consent.createdAt })
    .from(consent)
    .where(and(eq(consent.jobId, own.id), eq(consent.estimateNumber, own.estimateNumber)));
  if (agreed.length === 0) return 'new';
  if (said.kind === 'agreed') return 'known';
  throw notNow(say('This estimate was agreed to already. Call the workshop if that shall not hold.'));
}

async function ofSlot({ scope, said, own, now }: Check): Checked {
  if (said.kind !== 'slot') return 'new';
  const at = new Date(said.from);
  const [offer] = isOpen(own)
    ? await scope
        .select({ from: slotOffer.startsAt })
        .from(slotOffer)
        .where(and(eq(slotOffer.jobId, own.id), eq(slotOffer.startsAt, at)))
    : [];
  if (!offer || at.getTime() <= now.getTime())
    throw new DomainError('conflict', say('This slot is not offered any more. Look at the others, or call.'));
  const open = await scope
    .select({ said: doorEntry.said })
    .from(doorEntry)
    .where(and(sql`${doorEntry.answeredAt} is null`, sql`${doorEntry.said} ->> 'kind' = 'slot'`));
  return open.some((each) => each.said.kind === 'slot' && each.said.from === said.from) ? 'known' : 'new';
}

async function ofPutOff({ scope, said, today }: Check): Checked {
  if (said.kind !== 'put-off') return 'new';
  const [due] = await scope
    .select({ on: dueItem.dueOn })
    .from(dueItem)
    .where(and(eq(dueItem.kind, 'coolant-service'), inArray(dueItem.state, ['open'])))
    .orderBy(dueItem.dueOn)
    .limit(1);
  if (!due) throw notNow(say('Nothing is due that could be put off.'));
  if (said.until <= today || said.until <= due.on)
    refuse('said.until', say('must lie after today and after {on}, when it is due', { on: due.on }));
  return 'new';
}

const free = (): Checked => Promise.resolve('new');
const CHECKS: Readonly<Record<SaidKind, (check: Check) => Checked>> = {
  agreed: ofEstimate,
  declined: ofEstimate,
  slot: ofSlot,
  days: free,
  'put-off': ofPutOff,
  photo: free,
  meter: ({ said, today }) => {
    if (said.kind === 'meter' && said.on > today) refuse('said.on', say('cannot lie in the future'));
    return free();
  },
  log: free,
  line: free,
};
