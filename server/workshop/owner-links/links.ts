import { and, desc, eq, isNull } from 'drizzle-orm';
import { doorAddress, LINK } from '../../../core/workshop/owner-door/address.js';
import type { LinkInput, OwnerLinkRow } from '../../../core/workshop/owner-door/link.js';
import type { LinksAnswer, NewLinkAnswer } from '../../../core/workshop/owner-door/answers.js';
import { say } from '../../../core/base/words/say.js';
import type { Scope } from '../../base/database/client.js';
import { job, system } from '../../base/database/tables/machines.js';
import { ownerLink } from '../../base/database/tables/owner-door.js';
import { person, workshop } from '../../base/database/tables/people.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { hashOf, newSecret } from './secret.js';

const DAY_MS = 86_400_000;

interface NewLink {
  readonly workshopId: string;
  readonly systemId: string;
  readonly jobId: string | null;
  /** null: a letter carries it */
  readonly personId: string | null;
  readonly at: Date;
}

/** @returns the secret: it is nowhere else, and cannot be had again */
export async function makeLink(scope: Scope, { at, ...own }: NewLink): Promise<string> {
  const secret = newSecret();
  await scope
    .insert(ownerLink)
    .values({ ...own, secretHash: hashOf(secret), expiresAt: new Date(at.getTime() + LINK.days * DAY_MS), createdAt: at });
  return secret;
}

async function linksOf(scope: Scope, systemId: string): Promise<OwnerLinkRow[]> {
  const rows = await scope
    .select({
      id: ownerLink.id,
      jobId: ownerLink.jobId,
      madeAt: ownerLink.createdAt,
      by: person.name,
      expiresAt: ownerLink.expiresAt,
      endedAt: ownerLink.endedAt,
      seenAt: ownerLink.seenAt,
    })
    .from(ownerLink)
    .leftJoin(person, eq(person.id, ownerLink.personId))
    .where(eq(ownerLink.systemId, systemId))
    .orderBy(desc(ownerLink.createdAt));
  return rows.map(({ madeAt, expiresAt, endedAt, seenAt, ...row }) => ({
    ...row,
    madeAt: madeAt.toISOString(),
    expiresAt: expiresAt.toISOString(),
    endedAt: endedAt?.toISOString() ?? null,
    seenAt: seenAt?.toISOString() ?? null,
  }));
}

export async function listLinks({ scope, request }: Ask): Promise<LinksAnswer> {
  return { links: await linksOf(scope, idFrom(request, 'id', 'system')) };
}

/** A link that the desk hands over itself: shown once. */
export async function handLink(ask: Ask, { jobId }: LinkInput): Promise<NewLinkAnswer> {
  const { scope, account, clock, ownOrigin, request } = ask;
  const systemId = idFrom(request, 'id', 'system');
  const [own] = await scope
    .select({ id: system.id })
    .from(system)
    .where(and(eq(system.id, systemId), eq(system.forCourse, false)));
  if (!own) throw notFound('system');
  if (jobId !== null) {
    const [work] = await scope.select({ id: job.id }).from(job).where(and(eq(job.id, jobId), eq(job.systemId, systemId))); // prettier-ignore
    if (!work) throw notFound('job of this system');
  }
  const [shop] = await scope.select({ door: workshop.door }).from(workshop).where(eq(workshop.id, account.workshopId));
  if (shop && !shop.door.open) throw new DomainError('refused', say('This workshop has no page for its owners; the lead can open it.'));
  const secret = await makeLink(scope, { workshopId: account.workshopId, systemId, jobId, personId: account.personId, at: clock.now() });
  return { address: doorAddress(account.contact.publicAddress || ownOrigin, secret), links: await linksOf(scope, systemId) };
}

/** From now on no link of a machine opens anything. */
export async function endLinks(scope: Scope, systemId: string, at: Date): Promise<void> {
  await scope
    .update(ownerLink)
    .set({ endedAt: at })
    .where(and(eq(ownerLink.systemId, systemId), isNull(ownerLink.endedAt)));
}

export async function endLinksOf({ scope, request, clock }: Ask): Promise<LinksAnswer> {
  const systemId = idFrom(request, 'id', 'system');
  await endLinks(scope, systemId, clock.now());
  return { links: await linksOf(scope, systemId) };
}

/** From now on it opens nothing. */
export async function endLink({ scope, request, clock }: Ask): Promise<LinksAnswer> {
  const id = idFrom(request, 'id', 'link');
  const [own] = await scope.select({ systemId: ownerLink.systemId }).from(ownerLink).where(eq(ownerLink.id, id));
  if (!own) throw notFound('link');
  await scope
    .update(ownerLink)
    .set({ endedAt: clock.now() })
    .where(and(eq(ownerLink.id, id), isNull(ownerLink.endedAt)));
  return { links: await linksOf(scope, own.systemId) };
}
