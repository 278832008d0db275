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

/**
 * Text of a table, whatever it was saved as: UTF-8 with or without its mark, UTF-16, or a western single-byte set. What would come in
 * garbled is refused.
 */
export function decodeTable(bytes: Uint8Array): Decoded {
  const [a, b] = bytes;
  if (a === 0x50 && b === 0x4b) return { problem: say('This is a workbook, not a table of text. {SAVE_AS}', { SAVE_AS }) };
  if (a === 0xff && b === 0xfe) return { text: new TextDecoder('utf-16le').decode(bytes) };
  if (a === 0xfe && b === 0xff) return { text: new TextDecoder('utf-16be').decode(bytes) };
  const head = bytes.subarray(0, 2000);
  if (head.includes(0)) {
    // letters of a western text have their empty half behind them
    const odd = head.filter((byte, index) => index % 2 === 1 && byte === 0).length;
    return odd > head.length / 4
      ? { text: new TextDecoder('utf-16le').decode(bytes) }
      : { problem: say('This is no text that a table is written in. {SAVE_AS}', { SAVE_AS }) };
  }
  const text = inUtf8(bytes);
  if (text !== null)
    return text.includes('\ufffd')
      ? { problem: say('Some letters of this file were lost before. {SAVE_AS}', { SAVE_AS }) }
      : { text: mended(text) };
  if (bytes.some((byte) => NO_LETTER.has(byte)))
    return { problem: say('It is not clear in which letters this file is written. {SAVE_AS}', { SAVE_AS }) };
  return { text: new TextDecoder('windows-1252').decode(bytes) };
}
