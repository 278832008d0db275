import { refuse } from './input.js';

/** What a document may be at most, looked at before any schema sees it: a checker meets each key, so keys cost time. */
export const BOUNDS = {
  /** levels of objects and lists; the deepest document of ours (an inspection in a run's entry) has nine */
  depth: 32,
  /** keys of one object; the widest of ours are maps by part of a loop */
  keys: 2000,
  /** items of one list; a workshop's whole table of machines has some thousand rows */
  items: 20_000,
  /** keys and items of the whole document */
  values: 400_000,
} as const;

const BYTE = { quote: 0x22, escape: 0x5c, comma: 0x2c, openList: 0x5b, shutList: 0x5d, openObject: 0x7b, shutObject: 0x7d } as const;

/**
 * The same bounds over the bytes of a JSON text, before it is parsed: to build an object of 150 000 keys costs a hundred
 * times what it costs to see that it has too many. Takes no notice of what is no JSON at all: the parser says that.
 * @param text UTF-8
 * @throws InputProblem
 */
export function boundText(text: Uint8Array): void {
  /** commas so far at each open level, and the most that its kind may have */
  const commas = new Int32Array(BOUNDS.depth + 1);
  const most = new Int32Array(BOUNDS.depth + 1);
  let depth = 0;
  let values = 0;
  let isText = false;
  for (let at = 0; at < text.length; at += 1) {
    const byte = text[at];
    if (isText) {
      if (byte === BYTE.escape) at += 1;
      else if (byte === BYTE.quote) isText = false;
    } else if (byte === BYTE.quote) isText = true;
    else if (byte === BYTE.comma) {
      commas[depth] = (commas[depth] as number) + 1;
      values += 1;
      // as many commas as entries: one entry too many
      if (depth > 0 && (commas[depth] as number) >= (most[depth] as number)) tooMany(most[depth] as number);
      if (values >= BOUNDS.values) refuse('', `the document may hold ${BOUNDS.values} values at most`);
    } else if (byte === BYTE.openObject || byte === BYTE.openList) {
      depth += 1;
      if (depth > BOUNDS.depth) tooDeep();
      commas[depth] = 0;
      most[depth] = byte === BYTE.openList ? BOUNDS.items : BOUNDS.keys;
    } else if (byte === BYTE.shutObject || byte === BYTE.shutList) depth = Math.max(0, depth - 1);
  }
}

const tooDeep = (): never => refuse('', `the document may nest ${BOUNDS.depth} levels deep at most`);
const tooMany = (most: number): never => refuse('', `one ${most === BOUNDS.items ? 'list' : 'object'} may hold ${most} entries at most`);

/**
 * Refuses a document by its shape alone. Walks without recursion and stops at the first bound that is crossed, so that a
 * hostile document costs no more than a good one.
 * @throws InputProblem
 */
export function boundShape(input: unknown): void {
  let values = 0;
  let level: object[] = isHolder(input) ? [input] : [];
  for (let depth = 1; level.length > 0; depth += 1) {
    if (depth > BOUNDS.depth) tooDeep();
    const next: object[] = [];
    for (const each of level) {
      const inside: unknown[] = Array.isArray(each) ? each : Object.values(each);
      const most = Array.isArray(each) ? BOUNDS.items : BOUNDS.keys;
      if (inside.length > most) tooMany(most);
      values += inside.length;
      if (values > BOUNDS.values) refuse('', `the document may hold ${BOUNDS.values} values at most`);
      if (!Array.isArray(each)) demandText(...Object.keys(each));
      for (const value of inside)
        if (isHolder(value)) next.push(value);
        else if (typeof value === 'string') demandText(value);
    }
    level = next;
  }
}

/** Half of a character, or none: neither file nor database can hold it as it was sent. */
function demandText(...texts: readonly string[]): void {
  if (texts.some((text) => !isStorable(text)))
    refuse('', 'a text holds a character that cannot be stored; remove control characters and halves of characters');
}

/** Unit by unit: an expression that looks behind itself takes ten times as long over a text of 2 MB. */
function isStorable(text: string): boolean {
  for (let at = 0; at < text.length; at += 1) {
    const unit = text.charCodeAt(at);
    if (unit === 0 || (unit & SURROGATE.mask) === SURROGATE.second) return false;
    if ((unit & SURROGATE.mask) !== SURROGATE.first) continue;
    // the second half of the pair is taken with the first
    at += 1;
    if ((text.charCodeAt(at) & SURROGATE.mask) !== SURROGATE.second) return false;
  }
  return true;
}
/** halves of characters beyond the first plane (Unicode 3.9, D91) */
const SURROGATE = { mask: 0xfc00, first: 0xd800, second: 0xdc00 } as const;

const isHolder = (value: unknown): value is object => typeof value === 'object' && value !== null;
