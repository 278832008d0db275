// @vitest-environment happy-dom
import { expect, it } from 'vitest';
import { serverNowMs, setServerNow } from './now.js';

const HOUR_MS = 3_600_000;

it('follows the server, and is not set back by an answer that was overtaken', () => {
  const later = performance.now();
  setServerNow(new Date(Date.now() + HOUR_MS).toISOString(), later);
  expect(serverNowMs() - Date.now()).toBeCloseTo(HOUR_MS, -5);
  setServerNow(new Date().toISOString(), later - 5);
  expect(serverNowMs() - Date.now()).toBeCloseTo(HOUR_MS, -5);
  // what is asked for after that counts, back or forth
  setServerNow(new Date().toISOString(), performance.now());
  expect(Math.abs(serverNowMs() - Date.now())).toBeLessThan(60_000);
});
