import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import type { AddressInfo } from 'node:net';
import type { Logger } from 'pino';
import { inWorkshop, type Database } from '../../base/database/client.js';
import { standInMail } from '../../base/database/tables/messages.js';

/** Header that says whose message it is: the stand-in's mailbox belongs to one workshop, like every row. */
export const WORKSHOP_HEADER = 'X-Lavacrum-Workshop';

/** Header of a letter that is for its reader alone: leads, who give passwords anyway, find it in the stand-in's mailbox. */
export const PRIVATE_HEADER = 'X-Lavacrum-Private';

/** bytes of one message; ours are a few kilobytes */
const MOST_BYTES = 200_000;

/**
 * A mail server that keeps what it gets instead of sending it on: it listens on loopback alone and writes each message to
 * its own mailbox page.
 */
export async function startStandIn(database: Database, log: Logger): Promise<{ port: number; close: () => Promise<void> }> {
  const server = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: MOST_BYTES,
    onData(stream, session, callback) {
      simpleParser(stream)
        .then((mail) => {
          const workshop = mail.headers.get(WORKSHOP_HEADER.toLowerCase());
          const workshopId = typeof workshop === 'string' ? workshop : '';
          return inWorkshop(database, workshopId, (scope) =>
            scope.insert(standInMail).values({
              workshopId,
              sender: session.envelope.mailFrom ? session.envelope.mailFrom.address : '',
              recipient: session.envelope.rcptTo.map(({ address }) => address).join(', '),
              subject: mail.subject ?? '',
              text: mail.text ?? '',
              isPrivate: mail.headers.has(PRIVATE_HEADER.toLowerCase()),
              attached: mail.attachments.map(({ filename }) => filename ?? 'a file').join(', '),
            }),
          );
        })
        .then(
          () => callback(),
          (error: unknown) => {
            log.warn({ name: error instanceof Error ? error.name : 'unknown' }, 'the mail stand-in could not keep a message');
            callback(new Error('not kept'));
          },
        );
    },
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(0, '127.0.0.1', resolve);
  });
  const port = (server.server.address() as AddressInfo).port;
  return { port, close: () => new Promise((resolve) => server.close(() => resolve())) };
}
