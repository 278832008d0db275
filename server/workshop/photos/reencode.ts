import { say } from '../../../core/base/words/say.js';
import sharp from 'sharp';
import { refuse } from '../../../core/base/checking/input.js';
import { MOST_PHOTO_BYTES } from '../../../core/workshop/photos/schema.js';
import { Gate } from '../../base/http/gate.js';

export const PHOTO = {
  /** pixels that are decoded at most: beyond, a small file unpacks to gigabytes. Devices make their pictures 1600 wide */
  mostPixels: 24_000_000,
  /** px; longer sides are made shorter */
  mostSidePx: 2048,
  /** JPEG quality; beyond, files grow and nobody sees it */
  quality: 82,
  /** bytes of all photographs of one workshop, unless it is set otherwise */
  quotaBytes: 2_000_000_000,
} as const;

// one picture uses one thread, and two are worked on at once: the server has other things to do
sharp.concurrency(1);
sharp.cache(false);
const encoders = new Gate(2, 60);

/**
 * A picture as the server keeps it: decoded and written anew as JPEG, upright, without anything but its pixels. What no
 * picture reader understands, or would unpack to too many pixels, is refused.
 * @param image data address, checked by its schema
 * @throws InputProblem
 */
export async function reencode(image: string): Promise<Buffer> {
  const given = Buffer.from(image.slice(image.indexOf(',') + 1), 'base64');
  if (given.length > MOST_PHOTO_BYTES) refuse('image', say('is larger than 1 MB; the device makes pictures small before it sends them'));
  return encoders.through('', async () => {
    try {
      const { mostPixels, mostSidePx, quality } = PHOTO;
      return await sharp(given, { limitInputPixels: mostPixels, failOn: 'error', pages: 1 })
        .rotate()
        .resize({ width: mostSidePx, height: mostSidePx, fit: 'inside', withoutEnlargement: true })
        .flatten({ background: '#ffffff' })
        .jpeg({ quality })
        .toBuffer();
    } catch (error) {
      const isLarge = error instanceof Error && /pixel limit/i.test(error.message);
      return refuse(
        'image',
        isLarge ? say('has more than {mostMegapixels} megapixels', { mostMegapixels }) : say('cannot be read as a picture'),
      );
    }
  });
}
const mostMegapixels = PHOTO.mostPixels / 1e6;
