import { serverNowIso } from '../../base/units/now.js';
import { MOST_PHOTO_BYTES } from '@core/workshop/photos/schema.js';
import { shrink } from '../../base/files/shrink.js';
import { deviceOutbox } from '../../base/outbox/deviceOutbox.js';
import type { Maker } from '../../base/outbox/items.js';

/** Keeps a picture of a machine on the device until the server has it, under the name of who took it. @returns its id */
export async function sendPhoto(systemId: string, jobId: string | null, file: Blob, caption: string, made: Maker | null): Promise<string> {
  const id = crypto.randomUUID();
  const image = await shrink(file, MOST_PHOTO_BYTES);
  await deviceOutbox.add({ kind: 'photo', id, at: serverNowIso(), made, why: null, tries: 0, systemId, jobId, caption, image });
  return id;
}
