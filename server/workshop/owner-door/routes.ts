import express, { Router, type Request, type RequestHandler } from 'express';
import { boundShape, boundText } from '../../../core/base/checking/bounds.js';
import { readInput, refuse } from '../../../core/base/checking/input.js';
import { say } from '../../../core/base/words/say.js';
import type { DoorPage } from '../../../core/workshop/owner-door/answers.js';
import { LINK } from '../../../core/workshop/owner-door/address.js';
import { saidSchema, type SaidInput } from '../../../core/workshop/owner-door/said.js';
import { ownerLink } from '../../base/database/tables/owner-door.js';
import { eq } from 'drizzle-orm';
import type { App } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { limited } from '../../base/http/limits.js';
import { writtenFor } from '../../base/http/readers.js';
import { addressOf } from '../people/signInLimits.js';
import { reencode } from '../photos/reencode.js';
import { atDoor, type OpenLink } from './enter.js';
import { doorShop, readDoor } from './page.js';
import { sayAtDoor, type DoorFileKept } from './say.js';

/** Requests from one address in a while: all of them, and those with no link that opens. */
export const DOOR_LIMIT = { all: 300, wrong: 30, windowMs: 10 * 60_000 } as const;

/** Wrong, old and ended links are told the same. */
const noDoor = (): DomainError => new DomainError('not-found', say('This link does not open anything. Ask the workshop for a new one.'));

const secretOf = (request: Request): string => /^Bearer (\S{1,200})$/.exec(request.get('authorization') ?? '')?.[1] ?? '';

/**
 * What owners reach: two addresses, no session, no cookie. The secret comes in a header, so that no log of any server on the way holds it;
 * a body is read only once a link has opened.
 */
export function ownersDoor(app: App): Router {
  const { database, clock } = app;
  const words = (): string => say('That was asked too often from here. Wait some minutes.');
  const keyOf = addressOf;
  const open = <T>(request: Request, work: Parameters<typeof atDoor<T>>[3]): Promise<T | null> =>
    atDoor(database, secretOf(request), clock.now(), work);
  const page = (request: Request): Promise<DoorPage | null> =>
    open(request, async (scope, link) => {
      await scope.update(ownerLink).set({ seenAt: clock.now() }).where(eq(ownerLink.id, link.id));
      return readDoor(scope, clock.now());
    });
  const demandLink: RequestHandler = async (request, _response, next) => {
    if ((await open(request, (_scope, link) => Promise.resolve(link))) === null) throw noDoor();
    next();
  };

  const router = Router();
  router.use((_request, response, next) => {
    response.set({ 'x-robots-tag': 'noindex, nofollow', 'referrer-policy': 'no-referrer' });
    next();
  });
  router.use(
    limited(database, { what: 'door', most: DOOR_LIMIT.all, windowMs: DOOR_LIMIT.windowMs, keyOf, words }),
    limited(database, { what: 'wrong door', most: DOOR_LIMIT.wrong, windowMs: DOOR_LIMIT.windowMs, keyOf, words, skipSuccessfulRequests: true }), // prettier-ignore
  );
  router.get('/', async (request, response) => {
    const found = await page(request);
    if (!found) throw noDoor();
    response.json(found);
  });
  router.post('/', demandLink, readSaid, async (request, response) => {
    const given = request.body as unknown;
    boundShape(given);
    const reading = await open(request, async (scope) => (await doorShop(scope)).reading);
    if (!reading) throw noDoor();
    await writtenFor(reading, async () => {
      const input = readInput<SaidInput>(saidSchema, given);
      const file = await fileOf(input);
      const done = await open(request, async (scope, link: OpenLink) => {
        await sayAtDoor(scope, link, clock.now(), input, file);
        return true;
      });
      if (done === null) throw noDoor();
    });
    response.status(201).json(await page(request));
  });
  return router;
}

/** A picture made small on the device, or a log of some weeks; nothing larger is read. */
const readSaid = express.json({ limit: '7mb', strict: false, verify: (_request, _response, bytes) => boundText(bytes) });

/** A picture is decoded and written anew: nothing but its pixels is kept. A log is text, as any program writes it. */
async function fileOf({ said, file }: SaidInput): Promise<DoorFileKept | null> {
  if (file === null) return null;
  if (said.kind === 'photo') return { mediaType: 'image/jpeg', content: await reencode(file) };
  const content = Buffer.from(file.slice(file.indexOf(',') + 1), 'base64');
  if (content.length > LINK.mostFileBytes) refuse('file', say('is larger than {mb} MB', { mb: LINK.mostFileBytes / 1e6 }));
  if (content.includes(0) && content.subarray(0, 2).toString('latin1') !== '\u00ff\u00fe')
    refuse('file', say('is no table of text; send the file that the program writes as CSV'));
  return { mediaType: 'text/csv', content };
}
