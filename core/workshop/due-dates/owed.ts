/** What a run may leave to be done, each with a day of its own. */
export const OWED = {
  'not-connected': 'Not connected again',
  reading: 'A reading is owed',
  look: 'To be looked at',
} as const;
export type OwedKind = keyof typeof OWED;
export const OWED_KEYS = Object.keys(OWED) as OwedKind[];
