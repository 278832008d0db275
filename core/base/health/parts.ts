/** What the server stands on beside its database. Each part may be down while the rest serves. */
export const PARTS = ['queue', 'push', 'instruments', 'disk', 'backup', 'servers'] as const;
export type Part = (typeof PARTS)[number];

/** How a part does; without a reason it works. Codes, not words: the page has the words, and nothing of the inside leaves. */
export type PartState = 'ok' | 'away' | 'low' | 'failed' | 'old' | 'off' | 'silent';
export type Parts = Readonly<Record<Part, PartState>>;

/** A part that is off was switched off on purpose. */
export const isDegraded = (parts: Parts): boolean => Object.values(parts).some((state) => state !== 'ok' && state !== 'off');

/** What the server says of itself to anybody who asks. */
export type HealthAnswer =
  | { readonly status: 'ok' | 'degraded'; readonly database: 'ok'; readonly parts: Parts; readonly version: string }
  | { readonly status: 'unavailable'; readonly database: string; readonly version: string };
