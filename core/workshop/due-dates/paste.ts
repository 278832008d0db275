import { addMonths } from '../../base/units/calendar.js';
import { PASTE_MONTHS } from './defaults.js';
import type { DateReason, PasteLayer } from './facts.js';

/** What carries heat from a chip into its block, and how long it does (every interval an estimate). */
export const PASTE_MEDIA = {
  paste: { label: 'paste', months: PASTE_MONTHS.paste },
  pad: { label: 'pad', months: PASTE_MONTHS.pad },
  metal: { label: 'liquid metal', months: PASTE_MONTHS.metal },
} as const;
export type PasteMedium = keyof typeof PASTE_MEDIA;
export const PASTE_MEDIUM_KEYS = Object.keys(PASTE_MEDIA) as PasteMedium[];

const endsOn = ({ since, medium }: PasteLayer): string => addMonths(since, PASTE_MEDIA[medium].months);

/** Layers of a machine after some were renewed: each block has one, and a block that came out has none. */
export const renewed = (before: readonly PasteLayer[], now: readonly PasteLayer[], gone: readonly string[] = []): PasteLayer[] => [
  ...before.filter(({ item }) => !now.some((each) => each.item === item) && !gone.includes(item)),
  ...now,
];

/** When the first layer of a machine has served its time. Its readings say more: this is the day to look at them. null: none is known */
export function pasteRenewal(layers: readonly PasteLayer[]): { dueOn: string; reason: DateReason } | null {
  const [first] = [...layers].sort((a, b) => endsOn(a).localeCompare(endsOn(b)));
  return first ? { dueOn: endsOn(first), reason: { why: 'paste', first, layers: [...layers] } } : null;
}
