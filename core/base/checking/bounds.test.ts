import Joi from 'joi';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BOUNDS, boundShape, boundText } from './bounds.js';
import { readInput, InputProblem } from './input.js';

const manyKeys = (count: number): object => Object.fromEntries(Array.from({ length: count }, (_, n) => [`k${n}`, 1]));
const nested = (levels: number): unknown => {
  let value: unknown = 1;
  for (let n = 0; n < levels; n += 1) value = [value];
  return value;
};

const bytes = (value: unknown): Uint8Array => new TextEncoder().encode(JSON.stringify(value));

describe('the shape of a document, before its sense', () => {
  it.each([
    ['keys of one object', manyKeys(BOUNDS.keys), manyKeys(BOUNDS.keys + 1)],
    ['items of one list', Array(BOUNDS.items).fill(0), Array(BOUNDS.items + 1).fill(0)],
    ['levels', nested(BOUNDS.depth), nested(BOUNDS.depth + 1)],
  ])('bounds the %s', (_what, most, tooMany) => {
    expect(() => boundShape(most)).not.toThrow();
    expect(() => boundShape(tooMany)).toThrow(InputProblem);
    expect(() => boundText(bytes(most))).not.toThrow();
    expect(() => boundText(bytes(tooMany))).toThrow(InputProblem);
  });

  it('bounds the whole where every part is within its own bounds', () => {
    const list = Array.from({ length: 1 + BOUNDS.values / BOUNDS.keys }, () => manyKeys(BOUNDS.keys));
    expect(() => boundShape(list)).toThrow(/values at most/);
    expect(() => boundText(bytes(list))).toThrow(/values at most/);
  });

  it('does not follow a depth that would end the stack', () => {
    expect(() => boundShape(nested(100_000))).toThrow(/levels deep/);
  });

  it('refuses nothing but texts with a zero or half a character', () => {
    const unstorable = /\0|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;
    const unit = fc.constantFrom(0, 0x61, 0xd7ff, 0xd800, 0xdbff, 0xdc00, 0xdfff, 0xe000);
    fc.assert(
      fc.property(fc.array(unit, { maxLength: 6 }), (units) => {
        const text = String.fromCharCode(...units);
        if (unstorable.test(text)) expect(() => boundShape([text])).toThrow(/cannot be stored/);
        else boundShape([text]);
      }),
    );
  });

  it('does not count what stands inside a text', () => {
    const text = ',,[{\\"'.repeat(BOUNDS.items);
    expect(() => boundText(bytes({ text, more: [text] }))).not.toThrow();
  });

  it('agrees over the bytes with what is parsed from them, and leaves what is no JSON to the parser', () => {
    fc.assert(fc.property(fc.json({ maxDepth: BOUNDS.depth - 2 }), (json) => boundText(new TextEncoder().encode(json))));
    for (const broken of [']]]]}', '"no end', '{"a":', '\\']) expect(() => boundText(new TextEncoder().encode(broken))).not.toThrow();
  });

  it('takes plain values as they are', () => {
    for (const value of [null, 1, 'text', true, undefined]) expect(() => boundShape(value)).not.toThrow();
  });
});

it('names each unknown field once and no more than a screen shows, however many there are', () => {
  const schema = Joi.object({ email: Joi.string().required() });
  try {
    readInput(schema, { email: 'a', ...manyKeys(BOUNDS.keys) });
    expect.unreachable();
  } catch (error) {
    expect((error as InputProblem).fields).toHaveLength(50);
  }
});
