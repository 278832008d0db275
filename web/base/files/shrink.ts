import { say } from '@core/base/words/say.js';

/** px of the longer side that a picture keeps: enough to see a scratch, small enough for a workshop's network */
const LONGEST_PX = 1400;
const QUALITIES = [0.82, 0.7, 0.55, 0.4] as const;

/** Makes a picture small on the device. @returns a data address of at most so many bytes */
export async function shrink(file: Blob, mostBytes: number): Promise<string> {
  const bitmap = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_PX / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  for (const quality of QUALITIES) {
    const image = canvas.toDataURL('image/jpeg', quality);
    if ((image.length * 3) / 4 < mostBytes) return image;
  }
  throw new Error(say('This picture cannot be made small enough; take it again with less light noise or from further away.'));
}
