/** What there is of a loop, in the order in which it is thought through: laid out, drawn, then computed. */
export const LOOP_TABS = {
  parts: 'Parts',
  drawing: 'Drawing',
  drain: 'Drain',
  fill: 'Fill',
  air: 'Air and flow',
  heat: 'Heat',
  cause: 'Cause',
  compare: 'Compare',
} as const;
export type LoopTab = keyof typeof LOOP_TABS;
/** what the twin answers */
export type ComputedTab = Exclude<LoopTab, 'parts' | 'drawing'>;

export const isComputed = (tab: LoopTab): tab is ComputedTab => tab !== 'parts' && tab !== 'drawing';
/** from an address; whatever it says that is none is the list of parts */
export const tabOf = (shown: unknown): LoopTab => (Object.hasOwn(LOOP_TABS, String(shown)) ? (shown as LoopTab) : 'parts');
