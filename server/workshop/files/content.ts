import { say } from '../../../core/base/words/say.js';
import { refuse } from '../../../core/base/checking/input.js';
import { FILE_TYPES, MOST_FILE_BYTES, type FileType } from '../../../core/workshop/files/kinds.js';

/** How the bytes of a type begin; a text begins anyhow. */
const BEGINS: Readonly<Partial<Record<FileType, readonly number[]>>> = {
  'application/pdf': [0x25, 0x50, 0x44, 0x46, 0x2d],
  'image/jpeg': [0xff, 0xd8, 0xff],
  'image/png': [0x89, 0x50, 0x4e, 0x47],
  'image/webp': [0x52, 0x49, 0x46, 0x46],
};

/**
 * A paper's bytes, held to what they are said to be: nobody is handed something else under the name of a PDF.
 * @param address data address, checked by its schema
 * @throws InputProblem
 */
export function contentOf(address: string): { readonly type: FileType; readonly bytes: Buffer } {
  const type = address.slice('data:'.length, address.indexOf(';')) as FileType;
  const bytes = Buffer.from(address.slice(address.indexOf(',') + 1), 'base64');
  if (bytes.length > MOST_FILE_BYTES) refuse('content', say('is larger than 5 MB'));
  const begins = BEGINS[type];
  const isSo = begins ? begins.every((byte, index) => bytes[index] === byte) : isText(bytes);
  if (!isSo) refuse('content', say('is no {type}, whatever it is called', { type: FILE_TYPES[type] }));
  return { type, bytes };
}

function isText(bytes: Buffer): boolean {
  try {
    return !new TextDecoder('utf-8', { fatal: true }).decode(bytes).includes('\0');
  } catch {
    return false;
  }
}
