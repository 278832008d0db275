import type { Usage, UsageReading } from './usage.js';

/** How a machine is used, as the server tells it. */
export interface UsagePage {
  readonly usage: Usage;
  readonly readings: readonly (UsageReading & { readonly note: string })[];
}
