import { say } from '@core/base/words/say.js';
/** What a file's bytes say as text, or what would be right. */
export type Decoded = { readonly text: string } | { readonly problem: string };

/** bytes that are no letter in any of the western single-byte sets: such a file is of another kind */
const NO_LETTER = new Set([0x81, 0x8d, 0x8f, 0x90, 0x9d]);
const SAVE_AS = 'Save it as CSV with UTF-8 and bring it again.';
/** "Ã¼" for "ü": two letters where one was, made by a program that read UTF-8 as something else */
const READ_TWICE = /[ÂÃ][\u0080-\u00bf]/u;

function inUtf8(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}

/** What another program garbled before, put right; the text as it stands where that is no such text. */
function mended(text: string): string {
  if (!READ_TWICE.test(text) || [...text].some((letter) => letter.charCodeAt(0) > 0xff)) return text;
  return inUtf8(Uint8Array.from(text, (letter) => letter.charCodeAt(0))) ?? text;
}

/** In which letters a text is written. */
export type Letters = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/** In which letters a file is written, by its first bytes, or what would be right. @param bytes that end with a line: no letter is cut */
export function lettersOf(bytes: Uint8Array): { readonly letters: Letters } | { readonly problem: string } {
  const [a, b] = bytes;
  if (a === 0x50 && b === 0x4b) return { problem: say('This is a workbook, not a table of text. {SAVE_AS}', { SAVE_AS }) };
  if (a === 0xff && b === 0xfe) return { letters: 'utf-16le' };
  if (a === 0xfe && b === 0xff) return { letters: 'utf-16be' };
  const head = bytes.subarray(0, 2000);
  if (head.includes(0)) {
    // letters of a western text have their empty half behind them
    const odd = head.filter((byte, index) => index % 2 === 1 && byte === 0).length;
    return odd > head.length / 4
      ? { letters: 'utf-16le' }
      : { problem: say('This is no text that a table is written in. {SAVE_AS}', { SAVE_AS }) };
  }
  if (inUtf8(bytes) !== null) return { letters: 'utf-8' };
  if (bytes.some((byte) => NO_LETTER.has(byte)))
    return { problem: say('It is not clear in which letters this file is written. {SAVE_AS}', { SAVE_AS }) };
  return { letters: 'windows-1252' };
}

/**
 * Text of a table, whatever it was saved as: UTF-8 with or without its mark, UTF-16, or a western single-byte set. What would come in
 * garbled is refused.
 */
export function decodeTable(bytes: Uint8Array): Decoded {
  const found = lettersOf(bytes);
  if ('problem' in found) return found;
  const text = new TextDecoder(found.letters).decode(bytes);
  if (found.letters !== 'utf-8') return { text };
  return text.includes('\ufffd')
    ? { problem: say('Some letters of this file were lost before. {SAVE_AS}', { SAVE_AS }) }
    : { text: mended(text) };
}
