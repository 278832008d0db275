import { serverNowIso } from '../../base/units/now.js';
import { MOST_PHOTO_BYTES } from '@core/workshop/photos/schema.js';
import { deviceOutbox } from '../../base/outbox/deviceOutbox.js';
import type { Maker } from '../../base/outbox/items.js';

/** px of the longer side that a picture keeps: enough to see a scratch, small enough for a workshop's network */
const LONGEST_PX = 1400;
const QUALITIES = [0.82, 0.7, 0.55, 0.4] as const;

/** Makes a picture small on the device. */
export async function shrink(file: Blob): Promise<string> {
  const bitmap = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_PX / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  for (const quality of QUALITIES) {
    const image = canvas.toDataURL('image/jpeg', quality);
    if ((image.length * 3) / 4 < MOST_PHOTO_BYTES) return image;
  }
  throw new Error('This picture cannot be made small enough; take it again with less light noise or from further away.');
}

/** Keeps a picture of a machine on the device until the server has it, under the name of who took it. @returns its id */
export async function sendPhoto(systemId: string, jobId: string | null, file: Blob, caption: string, made: Maker | null): Promise<string> {
  const id = crypto.randomUUID();
  const image = await shrink(file);
  await deviceOutbox.add({ kind: 'photo', id, at: serverNowIso(), made, why: null, tries: 0, systemId, jobId, caption, image });
  return id;
}
