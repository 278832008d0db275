import { and, asc, eq, lt } from 'drizzle-orm';
import nodemailer, { type Transporter } from 'nodemailer';
import type { Logger } from 'pino';
import { workshop } from '../../base/database/tables/people.js';
import { inWorkshop, type Database, type Scope } from '../../base/database/client.js';
import type { Clock } from '../../base/http/clock.js';
import type { OneLetter } from '../../base/http/context.js';
import { doorAddress } from '../../../core/workshop/owner-door/address.js';
import { LINK_MARK } from '../../../core/workshop/messages/templates.js';
import { makeLink } from '../owner-links/links.js';
import { sendText } from './texts.js';
import { PRIVATE_HEADER, WORKSHOP_HEADER } from './standIn.js';
import { message } from '../../base/database/tables/messages.js';

/** tries before a message counts as failed; somebody then calls the owner */
const MOST_ATTEMPTS = 5;
/** messages of one go, so that one workshop does not hold the others up */
const BATCH = 50;

type MessageRow = typeof message.$inferSelect;

/** Sends what waits, over an outside mail server or the stand-in. A message that cannot be sent says why and is tried again. */
export class Post {
  private readonly transport: Transporter;

  constructor(
    smtpUrl: string,
    /** takes texts to telephones: a gateway of the workshop's, or the stand-in */
    private readonly textUrl: string,
    private readonly sender: string,
    /** where this server is reached on its own machine: links of workshops without a public address begin with it */
    private readonly ownOrigin: string,
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly log: Logger,
  ) {
    this.transport = nodemailer.createTransport(smtpUrl);
  }

  /** @returns how many were sent */
  async send(workshopId: string): Promise<number> {
    const waiting = await inWorkshop(this.database, workshopId, (scope) =>
      scope
        .select()
        .from(message)
        .where(and(eq(message.state, 'waiting'), lt(message.attempts, MOST_ATTEMPTS)))
        .orderBy(asc(message.createdAt))
        .limit(BATCH),
    );
    const [own] = await this.database.select({ name: workshop.name }).from(workshop).where(eq(workshop.id, workshopId));
    let sent = 0;
    for (const each of waiting) if (await this.sendOne(workshopId, own?.name ?? 'Workshop', each)) sent += 1;
    return sent;
  }

  /** The row is locked while it is sent: two servers never send the same message twice. */
  private sendOne(workshopId: string, from: string, { id }: MessageRow): Promise<boolean> {
    return inWorkshop(this.database, workshopId, async (scope) => {
      const [row] = await scope
        .select()
        .from(message)
        .where(and(eq(message.id, id), eq(message.state, 'waiting')))
        .for('update', { skipLocked: true });
      if (!row) return false;
      try {
        // a letter that is not taken takes its link back with it
        await scope.transaction(async (inner) => this.hand(from, row, await this.withLink(inner, row)));
        await scope.update(message).set({ state: 'sent', sentAt: this.clock.now(), problem: '' }).where(eq(message.id, id));
        return true;
      } catch (error) {
        const attempts = row.attempts + 1;
        const problem = error instanceof Error ? error.message.slice(0, 200) : 'unknown';
        this.log.warn({ attempts }, 'a message was not taken by the mail server');
        await scope
          .update(message)
          .set({ attempts, problem, state: attempts >= MOST_ATTEMPTS ? 'failed' : 'waiting' })
          .where(eq(message.id, id));
        return false;
      }
    });
  }

  /** The text as it leaves: the secret of its link is made now, and is nowhere else. */
  private async withLink(scope: Scope, { hasLink, body, workshopId, systemId, jobId }: MessageRow): Promise<string> {
    if (!hasLink) return body;
    const [own] = await scope.select({ contact: workshop.contact }).from(workshop).where(eq(workshop.id, workshopId));
    const secret = await makeLink(scope, { workshopId, systemId, jobId, personId: null, at: this.clock.now() });
    return body.replaceAll(LINK_MARK, doorAddress(own?.contact.publicAddress || this.ownOrigin, secret));
  }

  /** @throws where it is not taken */
  private async hand(from: string, row: MessageRow, text: string): Promise<void> {
    if (row.way === 'text') return sendText(this.textUrl, { workshopId: row.workshopId, from, to: row.address, text });
    await this.transport.sendMail({
      from: { name: from, address: this.sender },
      to: row.address,
      subject: row.subject,
      text,
      // plain eight-bit text: readable in any mailbox, the stand-in's included
      textEncoding: 'quoted-printable',
      ...(row.calendar === null
        ? {}
        : {
            icalEvent: {
              method: /METHOD:CANCEL/.test(row.calendar) ? 'CANCEL' : 'PUBLISH',
              filename: 'appointment.ics',
              content: row.calendar,
            },
          }),
      headers: { [WORKSHOP_HEADER]: row.workshopId, 'Message-ID': `<${row.id}@lavacrum.local>` },
    });
  }

  /** A letter of this very moment, to somebody of the workshop. It is kept nowhere but in the mailbox it goes to. */
  async sendLetter({ workshopId, from, to, subject, body }: OneLetter): Promise<void> {
    await this.transport.sendMail({
      from: { name: from, address: this.sender },
      to,
      subject,
      text: body,
      textEncoding: 'quoted-printable',
      headers: { [WORKSHOP_HEADER]: workshopId, [PRIVATE_HEADER]: 'yes' },
    });
  }

  close(): void {
    this.transport.close();
  }
}
