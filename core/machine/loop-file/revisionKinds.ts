/** Why a revision of a loop exists. */
export const REVISION_KINDS = { planned: 'planned', 'as-built': 'as built', change: 'change' } as const;
export type RevisionKind = keyof typeof REVISION_KINDS;
