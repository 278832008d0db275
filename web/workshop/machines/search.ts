import type { SystemLine } from '@core/workshop/machines/answers.js';

const fold = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{Diacritic}/gu, '');

/** True when every word occurs somewhere in what the desk may be told on the phone. Digits match with or without spaces. */
export function matches(line: SystemLine, words: string): boolean {
  const text = fold([line.name, line.ownerName, line.tag, line.caseText, line.coolant?.name ?? '', line.ownerPhone ?? ''].join(' '));
  const digits = (line.ownerPhone ?? '').replace(/\D/g, '');
  return fold(words)
    .split(/\s+/)
    .filter(Boolean)
    .every((word) => text.includes(word) || (/^\d+$/.test(word) && digits.includes(word)));
}
