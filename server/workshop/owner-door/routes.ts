import express, { Router, type Request, type RequestHandler } from 'express';
import { boundShape, boundText } from '../../../core/base/checking/bounds.js';
import { readInput, refuse } from '../../../core/base/checking/input.js';
import { say } from '../../../core/base/words/say.js';
import type { DoorPage } from '../../../core/workshop/owner-door/answers.js';
import { LINK } from '../../../core/workshop/owner-door/address.js';
import { saidSchema, type SaidInput } from '../../../core/workshop/owner-door/said.js';
import { photosOf, type Paper } from '../../../core/edge/papers/paper.js';
import { reportPaper } from '../../../core/edge/papers/reportPaper.js';
import { READING_CHOICES } from '../../../core/base/units/reading.js';
import type { Scope } from '../../base/database/client.js';
import { photo } from '../../base/database/tables/photos.js';
import { ownerLink, ownerReport } from '../../base/database/tables/owner-door.js';
import { eq } from 'drizzle-orm';
import type { App } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { limited } from '../../base/http/limits.js';
import { writtenFor } from '../../base/http/readers.js';
import { addressOf } from '../people/signInLimits.js';
import { picturesOf, sendPdf } from '../papers/routes.js';
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
  router.get('/reports/:number', async (request, response) => {
    const found = await open(request, (scope) => reportAtDoor(scope, request));
    if (!found) throw noDoor();
    response.json(found.paper);
  });
  router.get('/reports/:number/pdf', async (request, response) => {
    const found = await open(request, async (scope) => {
      const { paper } = await reportAtDoor(scope, request);
      return { paper, pictures: await picturesOf(scope, paper) };
    });
    if (!found) throw noDoor();
    await sendPdf(app, response, found.paper, found.pictures);
  });
  router.get('/reports/:number/pictures/:at', async (request, response) => {
    const image = await open(request, async (scope) => {
      const { paper } = await reportAtDoor(scope, request);
      const id = photosOf(paper)[Number(request.params.at)];
      return id === undefined ? null : pictureAtDoor(scope, id);
    });
    if (!image) throw noDoor();
    response.type('image/jpeg').send(image);
  });
  return router;
}

/** A report of the link's machine, written the way its owner reads. */
async function reportAtDoor(scope: Scope, request: Request): Promise<{ paper: Paper }> {
  const number = Number(request.params.number);
  const [row] =
    Number.isInteger(number) && number > 0 && number < 1e6
      ? await scope.select({ facts: ownerReport.facts }).from(ownerReport).where(eq(ownerReport.number, number))
      : [];
  if (!row) throw noDoor();
  const { reading, door } = await doorShop(scope);
  const asked = READING_CHOICES.language.find((each) => each === request.query.language);
  return {
    paper: writtenFor({ ...reading, ...(asked ? { language: asked } : {}) }, () => reportPaper(row.facts, { prices: door.prices })),
  };
}

async function pictureAtDoor(scope: Scope, id: string): Promise<Buffer | null> {
  const [found] = await scope.select({ image: photo.image }).from(photo).where(eq(photo.id, id));
  return found?.image ?? null;
}

/** A picture made small on the device, or a log of some weeks; nothing larger is read. */
const readSaid = express.json({ limit: '7mb', strict: false, verify: (_request, _response, bytes) => boundText(bytes) });

/** A picture is decoded and written anew: nothing but its pixels is kept. A log is text, as any program writes it. */
async function fileOf({ said, file }: SaidInput): Promise<DoorFileKept | null> {
  if (file === null) return null;
  if (said.kind === 'photo') return { mediaType: 'image/jpeg', content: await reencode(file) };
  const content = Buffer.from(file.slice(file.indexOf(',') + 1), 'base64');
  if (content.length > LINK.mostFileBytes)
    refuse('file', say('This file is larger than {mb} MB. Send a shorter one.', { mb: LINK.mostFileBytes / 1e6 }));
  if (content.includes(0) && content.subarray(0, 2).toString('latin1') !== '\u00ff\u00fe')
    refuse('file', say('This is no table of text; send the file that the program writes as CSV.'));
  return { mediaType: 'text/csv', content };
}
