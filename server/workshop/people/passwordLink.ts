import { say } from '../../../core/base/words/say.js';
import { eq } from 'drizzle-orm';
import { Router, type RequestHandler } from 'express';
import { LINK_MINUTES, passwordLetter } from '../../../core/edge/words/passwordLetter.js';
import type { PasswordByLink } from '../../../core/workshop/people/schema.js';
import { person, workshop } from '../../base/database/tables/people.js';
import { inWorkshop, type Database } from '../../base/database/client.js';
import type { App } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { limited } from '../../base/http/limits.js';
import type { Secrets } from '../../base/servers/secrets.js';
import { setPassword } from './people.js';
import { addressOf, emailOf } from './signInLimits.js';
import { demandStrength } from './strength.js';

/** Letters with a link in an hour: to one account, and asked for from one address. */
export const LINK_LIMIT = { account: 3, address: 20 } as const;
const LINK_WINDOW_MS = 60 * 60_000;

/**
 * A new password by mail. The link carries who it is for, until when, and a mark that only this server can make from both and from the
 * password of now: it opens once, since the password it names is then another, and nothing of it is kept.
 */
export class PasswordLinks {
  constructor(
    private readonly secrets: Secrets,
    /** where the server is reached on its own machine: for workshops without a public address */
    private readonly ownOrigin: string,
  ) {}

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
    const mark = `${found.id}.${untilMs}.${this.secrets.mark('password link', textOf(found.id, untilMs, found.passwordHash))}`;
    // behind the hash sign: a browser sends it to no server, and no log ever holds it
    const link = `${publicAddress || this.ownOrigin}/new-password#${mark}`;
    const letter = passwordLetter({ person: own.name, workshop: own.workshop, link, opensEverywhere: publicAddress !== '' });
    await sendLetter({ ...letter, workshopId: found.workshopId, from: own.workshop, to: own.email });
  }

  /** @throws `refused` where the link is too old, was used, or is none */
  async change({ database, clock }: App, { link, password }: PasswordByLink): Promise<void> {
    const [personId = '', until = '', mark = ''] = link.split('.');
    const found = await this.holderOf(database, personId);
    const isOurs = this.secrets.recognises('password link', textOf(personId, Number(until), found?.passwordHash ?? ''), mark);
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

/** What a link is made from. */
const textOf = (personId: string, untilMs: number, passwordHash: string): string => `${personId} ${untilMs} ${passwordHash}`;

/** What the server may know of an account before anybody signed in. */
const FINDABLE = { id: person.id, workshopId: person.workshopId, active: person.active, passwordHash: person.passwordHash } as const;

const spent = (): DomainError =>
  new DomainError('refused', say('This link is used or too old. Ask for another one: a link opens once, within the hour.'));

/** A mailbox is not filled by strangers. Unknown addresses count like known ones: nothing can be told from the answer. */
export function linkLimits(database: Database): RequestHandler {
  const words = (): string => say('Enough links were asked for within the hour. Look into your mailbox, or ask a lead of your workshop.');
  const limiter = (what: string, most: number, keyOf: typeof emailOf): RequestHandler =>
    limited(database, { what, most, windowMs: LINK_WINDOW_MS, keyOf, words });
  return Router().use(limiter('link by address', LINK_LIMIT.address, addressOf), limiter('link by account', LINK_LIMIT.account, emailOf));
}
