import type { Random } from '../../core/base/random/random.js';

/** Values that have broken programs before. */
const HOSTILE: readonly unknown[] = [
  null, true, '', ' ', 0, -0, -1, 1.5, 2_147_483_647, 2_147_483_648, -2_147_483_649, 9_007_199_254_740_993, 1e308, -1e308, 5e-324,
  '0000-01-01', '9999-12-31', '2026-02-30', '-0001-01-01', '+275760-09-13T00:00:00Z', '2026-03-09T24:61:00Z', '2026-03-09T09:00:00+99:99',
  '\ud800', 'a\udc00b', '\u0000', '\u202e', 'ﷺ'.repeat(300), '🙂'.repeat(500), 'x'.repeat(5000), '=1+1', "'; drop table owner; --", '%00', '../../etc/passwd',
  '<script>alert(1)</script>', '${7*7}', '{{constructor}}', 'NaN', '1e999', '00000000-0000-0000-0000-000000000000', 'ffffffff-ffff-ffff-ffff-ffffffffffff',
  [], {}, [[]], [null], { length: 1e9 }, { toString: 1 }, { then: 'x' },
]; // prettier-ignore

/** One of them, its own: a document that is mutated twice must not meet itself. */
const hostile = (random: Random): unknown => structuredClone(random.pick(HOSTILE));

const KEYS = [
  '__proto__',
  'constructor',
  'prototype',
  'toString',
  'length',
  '',
  ' ',
  'id',
  'workshopId',
  '\ud800',
  'a'.repeat(300),
] as const;

type Holder = Record<string, unknown> | unknown[];
const isHolder = (value: unknown): value is Holder => typeof value === 'object' && value !== null;

/** Every place of a document that holds a value. */
function placesOf(document: unknown): { readonly holder: Holder; readonly key: string | number }[] {
  if (!isHolder(document)) return [];
  const keys = Array.isArray(document) ? Array.from({ length: document.length }, (_, index) => index) : Object.keys(document);
  return keys.flatMap((key) => [{ holder: document, key }, ...placesOf((document as Record<string | number, unknown>)[key])]);
}

/** A copy with one to three things wrong. */
export function mutated(random: Random, document: unknown): unknown {
  const copy: unknown = structuredClone(document);
  for (let times = 1 + Math.floor(random.next() * 3); times > 0; times -= 1) {
    const places = placesOf(copy);
    const place = places.length > 0 ? random.pick(places) : null;
    const what = random.next();
    if (!place || !isHolder(copy)) return hostile(random);
    const holder = place.holder as Record<string | number, unknown>;
    if (what < 0.55) holder[place.key] = hostile(random);
    else if (what < 0.7) {
      if (Array.isArray(place.holder)) place.holder.splice(Number(place.key), 1);
      else Reflect.deleteProperty(holder, place.key);
    } else if (what < 0.82 && !Array.isArray(place.holder))
      Object.defineProperty(holder, random.pick(KEYS), {
        value: hostile(random),
        enumerable: true,
        configurable: true,
        writable: true,
      });
    else if (what < 0.92 && Array.isArray(holder[place.key]))
      holder[place.key] = Array.from({ length: 400 }, () => (holder[place.key] as unknown[])[0] ?? 1);
    else holder[place.key] = nested(random, 5 + Math.floor(random.next() * 60));
  }
  return copy;
}

function nested(random: Random, depth: number): unknown {
  let inside: unknown = hostile(random);
  for (let level = 0; level < depth; level += 1) inside = random.next() < 0.5 ? [inside] : { a: inside };
  return inside;
}

/** Bodies that are no documents of ours at all, as they go over the wire. */
export const RAW_BODIES: readonly { readonly body: string; readonly headers: Readonly<Record<string, string>> }[] = [
  { body: '{', headers: {} },
  { body: '[1,', headers: {} },
  { body: 'null', headers: {} },
  { body: '"text"', headers: {} },
  { body: '[', headers: { 'content-encoding': 'gzip' } },
  { body: '{"a":1}', headers: { 'content-encoding': 'br' } },
  { body: '{"a":1}', headers: { 'content-encoding': 'no-such' } },
  { body: '{"a":1}', headers: { 'content-type': 'text/plain' } },
  { body: 'a=1', headers: { 'content-type': 'application/x-www-form-urlencoded' } },
  { body: '{"a":1}', headers: { 'content-type': 'application/json; charset=utf-7' } },
  { body: '['.repeat(3000), headers: {} },
  { body: `{"a":${'['.repeat(500)}${']'.repeat(500)}}`, headers: {} },
  { body: `{${Array.from({ length: 3000 }, (_, n) => `"k${n}":1`).join(',')}}`, headers: {} },
  { body: '{"__proto__":{"isLead":true}}', headers: {} },
  { body: '{"a":1,"a":2}', headers: {} },
  { body: '{}', headers: { 'idempotency-key': 'not one' } },
  { body: '{}', headers: { 'idempotency-key': '00000000-0000-0000-0000-000000000000' } },
  { body: '\ufeff{}', headers: {} },
];

/** What an id in an address may be, if it is none. */
export const HOSTILE_IDS = [
  '%00',
  '%zz',
  '..%2f..',
  'x'.repeat(3000),
  '%F0%9F%99%82',
  '00000000-0000-0000-0000-000000000000',
  '-1',
  '1e999',
  '%ED%A0%80',
  'null',
  '%20',
] as const;
