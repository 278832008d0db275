import { createServer } from 'node:http';
import { json } from 'node:stream/consumers';
import type { AddressInfo } from 'node:net';
import type { Logger } from 'pino';
import { readInput } from '../../../core/base/checking/input.js';
import { textSchema, type TextToPhone } from '../../../core/workshop/messages/schema.js';
import { inWorkshop, type Database } from '../../base/database/client.js';
import { standInMail } from '../../base/database/tables/messages.js';

/** ms that a gateway may take for one text */
const PATIENCE_MS = 15_000;

/** Hands a text to a gateway, as JSON by POST. @throws where it does not answer with 2xx */
export async function sendText(url: string, text: TextToPhone): Promise<void> {
  const answer = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(text),
    signal: AbortSignal.timeout(PATIENCE_MS),
  });
  if (!answer.ok) throw new Error(`the text gateway answered ${answer.status}`);
}

/** A text gateway that keeps what it gets instead of sending it on: on loopback alone, into the mailbox of the stand-in. */
export async function startTextStandIn(database: Database, log: Logger): Promise<{ url: string; close: () => Promise<void> }> {
  const server = createServer((request, response) => {
    json(request)
      .then(async (body) => {
        const { workshopId, from, to, text } = readInput<TextToPhone>(textSchema, body);
        await inWorkshop(database, workshopId, (scope) =>
          scope
            .insert(standInMail)
            .values({ workshopId, sender: from, recipient: to, subject: text.split(/[.:]\s/)[0] ?? '', text, way: 'text' }),
        );
        response.writeHead(204).end();
      })
      .catch((error: unknown) => {
        log.warn({ name: error instanceof Error ? error.name : 'unknown' }, 'the text stand-in could not keep a text');
        response.writeHead(400).end();
      });
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(0, '127.0.0.1', resolve);
  });
  const { port } = server.address() as AddressInfo;
  return {
    url: `http://127.0.0.1:${port}/`,
    close: () =>
      new Promise((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  };
}
