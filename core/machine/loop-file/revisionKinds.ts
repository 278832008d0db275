/** Why a revision of a loop exists. All but the wanted ones say what is inside the machine. */
export const REVISION_KINDS = {
  planned: 'planned',
  'as-built': 'as built',
  change: 'change',
  wanted: 'wanted',
  stated: 'as stated, not drawn',
} as const;
export type RevisionKind = keyof typeof REVISION_KINDS;
/** The revision that says what is inside, of a list with the newest first: a wanted one does not yet. */
export const insideRevision = <T extends { readonly kind: RevisionKind }>(revisions: readonly T[]): T | undefined =>
  revisions.find(({ kind }) => kind !== 'wanted');
/** Those that somebody saves; what was only stated comes from a table. */
export const SAVED_KINDS = (Object.keys(REVISION_KINDS) as RevisionKind[]).filter((kind) => kind !== 'stated');
