import { say } from '../../../core/base/words/say.js';
import { createHmac, timingSafeEqual } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { Router, type RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import { LINK_MINUTES, passwordLetter } from '../../../core/edge/words/passwordLetter.js';
import type { PasswordByLink } from '../../../core/workshop/people/schema.js';
import { person, workshop } from '../../base/database/tables/people.js';
import { inWorkshop, type Database } from '../../base/database/client.js';
import type { App } from '../../base/http/context.js';
import { answerOf, DomainError } from '../../base/http/errors.js';
import { setPassword } from './people.js';
import { addressOf, emailOf } from './signInLimits.js';
import { demandStrength } from './strength.js';

/** Letters with a link in an hour: to one account, and asked for from one address. */
export const LINK_LIMIT = { account: 3, address: 20 } as const;

/**
 * A new password by mail. The link carries who it is for, until when, and a mark that only this server can make from both and from the
 * password of now: it opens once, since the password it names is then another, and nothing of it is kept.
 */
export class PasswordLinks {
  private readonly key: Buffer;

  constructor(
    secret: string,
    /** where the server is reached on its own machine: for workshops without a public address */
    private readonly ownOrigin: string,
  ) {
    this.key = createHmac('sha256', secret).update('password link').digest();
  }

  private markOf(personId: string, untilMs: number, passwordHash: string): string {
    return createHmac('sha256', this.key).update(`${personId} ${untilMs} ${passwordHash}`).digest('base64url');
  }

  /** Writes to an account of that address; to none other. Whoever asks learns nothing of it. */
  async send({ database, clock, sendLetter }: App, email: string): Promise<void> {
    const [found] = await database.select(FINDABLE).from(person).where(eq(person.email, email.trim().toLowerCase()));
    if (!found?.active) return;
    const [own] = await inWorkshop(database, found.workshopId, (scope) =>
      scope
        .select({ name: person.name, email: person.email, workshop: workshop.name, contact: workshop.contact })
        .from(person)
        .innerJoin(workshop, eq(workshop.id, person.workshopId))
        .where(eq(person.id, found.id)),
    );
    if (!own) return;
    const untilMs = clock.now().getTime() + LINK_MINUTES * 60_000;
    const { publicAddress } = own.contact;
    const mark = `${found.id}.${untilMs}.${this.markOf(found.id, untilMs, found.passwordHash)}`;
    // behind the hash sign: a browser sends it to no server, and no log ever holds it
    const link = `${publicAddress || this.ownOrigin}/new-password#${mark}`;
    const letter = passwordLetter({ person: own.name, workshop: own.workshop, link, opensEverywhere: publicAddress !== '' });
    await sendLetter({ ...letter, workshopId: found.workshopId, from: own.workshop, to: own.email });
  }

  /** @throws `refused` where the link is too old, was used, or is none */
  async change({ database, clock }: App, { link, password }: PasswordByLink): Promise<void> {
    const [personId = '', until = '', mark = ''] = link.split('.');
    const found = await this.holderOf(database, personId);
    const given = Buffer.from(mark);
    const wanted = Buffer.from(this.markOf(personId, Number(until), found?.passwordHash ?? ''));
    const isOurs = given.length === wanted.length && timingSafeEqual(given, wanted);
    if (!found || !isOurs || Number(until) < clock.now().getTime()) throw spent();
    await inWorkshop(database, found.workshopId, async (scope) => {
      const [own] = await scope
        .select({ name: person.name, email: person.email, hash: person.passwordHash, workshop: workshop.name })
        .from(person)
        .innerJoin(workshop, eq(workshop.id, person.workshopId))
        .where(eq(person.id, personId))
        .for('update', { of: person });
      // somebody else was quicker with the same link
      if (!own || own.hash !== found.passwordHash) throw spent();
      demandStrength(password, [own.workshop, own.name, own.email]);
      await setPassword(scope, { database, workshopId: found.workshopId, personId, password, isFirst: false });
    });
  }

  private async holderOf(database: Database, personId: string) {
    if (!/^[0-9a-f-]{36}$/.test(personId)) return undefined;
    const [found] = await database.select(FINDABLE).from(person).where(eq(person.id, personId));
    return found?.active ? found : undefined;
  }
}

/** What the server may know of an account before anybody signed in. */
const FINDABLE = { id: person.id, workshopId: person.workshopId, active: person.active, passwordHash: person.passwordHash } as const;

const spent = (): DomainError =>
  new DomainError('refused', say('This link is used or too old. Ask for another one: a link opens once, within the hour.'));

/** A mailbox is not filled by strangers. Unknown addresses count like known ones: nothing can be told from the answer. */
export function linkLimits(): RequestHandler {
  const limiter = (limit: number, keyGenerator: typeof emailOf): RequestHandler =>
    rateLimit({
      windowMs: 60 * 60_000,
      limit,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      keyGenerator,
      handler: (_request, response) => {
        const { status, body } = answerOf(
          new DomainError(
            'too-many',
            say('Enough links were asked for within the hour. Look into your mailbox, or ask a lead of your workshop.'),
          ),
        );
        response.status(status).json(body);
      },
    });
  return Router().use(limiter(LINK_LIMIT.address, addressOf), limiter(LINK_LIMIT.account, emailOf));
}
