/** Kinds of what is found, in the order in which they are shown. */
export const HIT_KINDS = ['system', 'job', 'finding', 'note', 'lot', 'part', 'photograph', 'shelf'] as const;
export type HitKind = (typeof HIT_KINDS)[number];

export interface Hit {
  kind: HitKind;
  title: string;
  text: string;
  at: string | null;
  to: string;
}
