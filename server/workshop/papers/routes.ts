import type { Request, Response, Router } from 'express';
import Joi from 'joi';
import { eq, inArray } from 'drizzle-orm';
import { readInput } from '../../../core/base/checking/input.js';
import { READING_CHOICES, type Reading } from '../../../core/base/units/reading.js';
import { photosOf, type Paper } from '../../../core/edge/papers/paper.js';
import { reportPaper } from '../../../core/edge/papers/reportPaper.js';
import type { Scope } from '../../base/database/client.js';
import { loop } from '../../base/database/tables/loops.js';
import { owner, system } from '../../base/database/tables/machines.js';
import { workshop } from '../../base/database/tables/people.js';
import { photo } from '../../base/database/tables/photos.js';
import { run } from '../../base/database/tables/runs.js';
import { idFrom, runScoped, type App, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import { Gate } from '../../base/http/gate.js';
import { writtenFor } from '../../base/http/readers.js';
import type { Routes } from '../../base/http/routes.js';
import type { Pictures } from '../../base/pdf/paperPdf.js';
import { DESK_PAPERS, deskPaper, wasteContainerPaper, type DeskPaper } from './desk.js';
import { readReport } from './report.js';

/** two papers are drawn at once: the server has other things to do */
const drawers = new Gate(2, 60);

/** A paper as a file. */
export async function sendPdf({ drawPaper }: Pick<App, 'drawPaper'>, response: Response, paper: Paper, pictures: Pictures): Promise<void> {
  const pdf = await drawers.through('', () => drawPaper(paper, pictures));
  response
    .attachment(`${paper.title.replace(/[^\p{L}\p{N} -]/gu, '')}.pdf`)
    .type('application/pdf')
    .send(Buffer.from(pdf));
}

interface PaperQuery {
  readonly language?: Reading['language'];
}
const querySchema = Joi.object({ language: Joi.string().valid(...READING_CHOICES.language) });

/** How the owner of a machine reads, or as it was asked for. */
async function ownersReading({ scope, account, request }: Ask, systemId: string): Promise<Reading> {
  const { language } = readInput<PaperQuery>(querySchema, request.query);
  const [own] = await scope.select({ reading: owner.reading }).from(system).innerJoin(owner, eq(owner.id, system.ownerId)).where(eq(system.id, systemId)); // prettier-ignore
  if (!own) throw notFound('system');
  return { ...account.workshopReading, ...own.reading, ...(language ? { language } : {}) };
}

async function reportOf(ask: Ask): Promise<Paper> {
  const runId = idFrom(ask.request, 'id', 'run');
  const [own] = await ask.scope.select({ systemId: loop.systemId }).from(run).innerJoin(loop, eq(loop.id, run.loopId)).where(eq(run.id, runId)); // prettier-ignore
  if (!own) throw notFound('run');
  const facts = await readReport(ask, runId);
  const [shop] = await ask.scope.select({ door: workshop.door }).from(workshop).where(eq(workshop.id, ask.account.workshopId));
  return writtenFor(await ownersReading(ask, own.systemId), () => reportPaper(facts, { prices: shop?.door.prices ?? false }));
}

/** The pictures that a paper shows, as whoever asks may see them. */
export async function picturesOf(scope: Scope, paper: Paper): Promise<Pictures> {
  const ids = photosOf(paper);
  if (ids.length === 0) return new Map();
  const rows = await scope.select({ id: photo.id, image: photo.image }).from(photo).where(inArray(photo.id, ids));
  return new Map(rows.map(({ id, image }) => [id, image]));
}

/** Papers that leave the house: each as a page and as a PDF, of one and the same account. */
export function paperRoutes(routes: Routes, router: Router, app: App): void {
  const pdf = (path: string, of: (ask: Ask) => Promise<Paper>): void => {
    router.get(path, async (request: Request, response: Response) => {
      const { paper, pictures } = await runScoped(app, request, async (ask) => {
        const made = await of(ask);
        return { paper: made, pictures: await picturesOf(ask.scope, made) };
      });
      // no connection is held while it is drawn
      await sendPdf(app, response, paper, pictures);
    });
  };
  routes.get<Paper>('/runs/:id/report', reportOf);
  pdf('/runs/:id/report.pdf', reportOf);
  for (const which of DESK_PAPERS) pdf(`/systems/:id/${which}.pdf`, (ask) => writtenDesk(ask, which));
  pdf('/waste/:id/paper.pdf', wasteContainerPaper);
}

async function writtenDesk(ask: Ask, which: DeskPaper): Promise<Paper> {
  const systemId = idFrom(ask.request, 'id', 'system');
  return writtenFor(await ownersReading(ask, systemId), () => deskPaper(ask, systemId, which));
}
