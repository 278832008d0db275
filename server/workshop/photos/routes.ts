import { say } from '../../../core/base/words/say.js';
import { and, eq } from 'drizzle-orm';
import type { Request, Router } from 'express';
import { photoSchema, type PhotoInput } from '../../../core/workshop/photos/schema.js';
import { bodyAs, idFrom, runScoped, type App, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { job, system } from '../../base/database/tables/machines.js';
import { makerOf } from '../people/maker.js';
import { photo } from '../../base/database/tables/photos.js';
import { reencode } from './reencode.js';
import { demandPhotoRoom } from './room.js';

/** Pictures on their way, as they are kept. */
const pictures = new WeakMap<Request, Buffer>();

export function photoRoutes(routes: Routes, router: Router, app: App): void {
  // a picture is decoded and written anew before a connection is taken: it takes a while
  router.post('/systems/:id/photos', async (request, _response, next) => {
    if (request.session.signedIn) pictures.set(request, await reencode(bodyAs<PhotoInput>(request, photoSchema).image));
    next();
  });
  routes.post('/systems/:id/photos', (ask) => addPhoto(ask, bodyAs<PhotoInput>(ask.request, photoSchema)));
  // the picture itself: not JSON, and it never changes
  router.get('/photos/:id', async (request, response) => {
    const row = await runScoped(app, request, async ({ scope }) => {
      const [found] = await scope
        .select({ image: photo.image, mediaType: photo.mediaType })
        .from(photo)
        .where(eq(photo.id, idFrom(request, 'id', 'photograph')));
      if (!found) throw notFound('photograph');
      return found;
    });
    // a photograph of somebody's machine stays in no browser's cache
    response.type(row.mediaType).send(row.image);
  });
}

/** Keeps a picture. Its id is made on the device: sent twice, it is kept once. */
async function addPhoto({ scope, account, clock, request, photoQuotaBytes }: Ask, input: PhotoInput) {
  const systemId = idFrom(request, 'id', 'system');
  const [own] = await scope.select({ id: system.id }).from(system).where(eq(system.id, systemId));
  if (!own) throw notFound('system');
  if (input.jobId !== null) {
    const [work] = await scope
      .select({ id: job.id })
      .from(job)
      .where(and(eq(job.id, input.jobId), eq(job.systemId, systemId)));
    if (!work) throw notFound('job of this system');
  }
  const image = pictures.get(request);
  if (!image) throw new DomainError('wrong-type', say('Send a picture.'));
  await demandPhotoRoom({ scope, photoQuotaBytes }, image.length);
  const maker = await makerOf(scope, account, input.madeBy);
  await scope
    .insert(photo)
    .values({
      id: input.id,
      workshopId: account.workshopId,
      systemId,
      jobId: input.jobId,
      caption: input.caption,
      mediaType: 'image/jpeg',
      image,
      personId: maker.personId,
      createdAt: clock.now(),
    })
    .onConflictDoNothing();
  return { id: input.id };
}
