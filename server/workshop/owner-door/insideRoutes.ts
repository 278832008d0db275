import type { Router } from 'express';
import { eq } from 'drizzle-orm';
import { answerSchema, offerSchema, type AnswerInput, type OfferInput } from '../../../core/workshop/owner-door/answering.js';
import type { LinksAnswer, NewLinkAnswer, OwnersNow } from '../../../core/workshop/owner-door/answers.js';
import { linkSchema, type LinkInput } from '../../../core/workshop/owner-door/link.js';
import { doorFile } from '../../base/database/tables/owner-door.js';
import { bodyAs, idFrom, runScoped, type App } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { answerEntry, offerToOwner } from './answer.js';
import { endLink, endLinksOf, handLink, listLinks } from '../owner-links/links.js';
import { jobLetterSchema, type JobLetterInput } from '../../../core/workshop/messages/schema.js';
import { writeJobLetter } from './letters.js';
import { ownersNow } from './waiting.js';

/** The workshop's side of the owners' door. */
export function ownerDoorRoutes(routes: Routes, router: Router, app: App): void {
  routes.get<OwnersNow>('/owners-now', ownersNow);
  routes.put<OwnersNow>('/door-entries/:id', (ask) => answerEntry(ask, bodyAs<AnswerInput>(ask.request, answerSchema)));
  routes.get<LinksAnswer>('/systems/:id/links', listLinks);
  routes.post<NewLinkAnswer>('/systems/:id/links', (ask) => handLink(ask, bodyAs<LinkInput>(ask.request, linkSchema)), { secret: true });
  routes.delete<LinksAnswer>('/systems/:id/links', endLinksOf);
  routes.delete<LinksAnswer>('/owner-links/:id', endLink);
  routes.post<{ told: boolean }>('/jobs/:id/letters', (ask) => writeJobLetter(ask, bodyAs<JobLetterInput>(ask.request, jobLetterSchema)));
  routes.put<{ offered: number }>('/jobs/:id/offers', (ask) => offerToOwner(ask, bodyAs<OfferInput>(ask.request, offerSchema)));
  // what a stranger sent is shown as a picture, or handed over as a file: never as a page of this application
  router.get('/door-files/:id', async (request, response) => {
    const row = await runScoped(app, request, async ({ scope }) => {
      const [found] = await scope
        .select()
        .from(doorFile)
        .where(eq(doorFile.id, idFrom(request, 'id', 'file')));
      if (!found) throw notFound('file');
      return found;
    });
    if (row.mediaType !== 'image/jpeg') response.attachment('log.csv');
    response.set('content-security-policy', "default-src 'none'; sandbox").set('x-content-type-options', 'nosniff');
    response.type(row.mediaType).send(row.content);
  });
}
