import { and, eq } from 'drizzle-orm';
import type { Router } from 'express';
import { refuse } from '../../../core/base/checking/input.js';
import { MOST_PHOTO_BYTES, photoSchema, type PhotoInput } from '../../../core/workshop/photos/schema.js';
import { bodyAs, idFrom, runScoped, type App, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';
import type { Routes } from '../../base/http/routes.js';
import { job, system } from '../../base/database/tables/machines.js';
import { makerOf } from '../people/maker.js';
import { photo } from '../../base/database/tables/photos.js';

export function photoRoutes(routes: Routes, router: Router, app: App): void {
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

/** The first bytes of what a picture says it is: a text in a picture's clothes is refused. */
const SIGNATURES: Readonly<Record<string, (bytes: Buffer) => boolean>> = {
  'image/jpeg': (bytes) => bytes[0] === 0xff && bytes[1] === 0xd8,
  'image/png': (bytes) => bytes.subarray(1, 4).toString('latin1') === 'PNG',
  'image/webp': (bytes) => bytes.subarray(8, 12).toString('latin1') === 'WEBP',
};

/** Keeps a picture. Its id is made on the device: sent twice, it is kept once. */
async function addPhoto({ scope, account, clock, request }: Ask, input: PhotoInput) {
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
  const [, mediaType = '', data = ''] = /^data:(image\/[a-z]+);base64,(.*)$/.exec(input.image) ?? [];
  const image = Buffer.from(data, 'base64');
  if (image.length > MOST_PHOTO_BYTES) refuse('image', 'is larger than 1 MB; the device makes pictures small before it sends them');
  if (!SIGNATURES[mediaType]?.(image)) refuse('image', `is not a ${mediaType} picture`);
  const maker = await makerOf(scope, account, input.madeBy);
  await scope
    .insert(photo)
    .values({
      id: input.id,
      workshopId: account.workshopId,
      systemId,
      jobId: input.jobId,
      caption: input.caption,
      mediaType,
      image,
      personId: maker.personId,
      createdAt: clock.now(),
    })
    .onConflictDoNothing();
  return { id: input.id };
}
