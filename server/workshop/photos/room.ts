import { sql } from 'drizzle-orm';
import { say } from '../../../core/base/words/say.js';
import { photo } from '../../base/database/tables/photos.js';
import type { Ask } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';

/** @throws DomainError where a picture of so many bytes would pass what a workshop's photographs may fill */
export async function demandPhotoRoom({ scope, photoQuotaBytes }: Pick<Ask, 'scope' | 'photoQuotaBytes'>, bytes: number): Promise<void> {
  const [{ heldBytes } = { heldBytes: 0 }] = await scope
    .select({ heldBytes: sql<number>`coalesce(sum(octet_length(${photo.image})), 0)`.mapWith(Number) })
    .from(photo);
  if (heldBytes + bytes > photoQuotaBytes)
    throw new DomainError(
      'refused',
      say('The photographs of this workshop fill their {e6} MB. Nothing was kept.', { e6: Math.round(photoQuotaBytes / 1e6) }),
    );
}
