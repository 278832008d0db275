/** What a paper is; kept as a code, said in words at the edge. */
export const FILE_KINDS = ['sheet', 'safety-sheet', 'invoice', 'drawing', 'other'] as const;
export type FileKind = (typeof FILE_KINDS)[number];
export const FILE_KIND_WORDS: Readonly<Record<FileKind, string>> = {
  sheet: 'data sheet',
  'safety-sheet': 'safety data sheet',
  invoice: 'invoice',
  drawing: 'drawing or picture',
  other: 'something else',
};

/** What a paper belongs to: a machine, a coolant, or a part that the workshop keeps. */
export const FILE_OWNERS = ['systems', 'coolants', 'own-parts'] as const;
export type FileOwner = (typeof FILE_OWNERS)[number];

/** Media types that are taken, by how their bytes begin; a text is read whole. */
export const FILE_TYPES = {
  'application/pdf': 'PDF',
  'image/jpeg': 'JPEG',
  'image/png': 'PNG',
  'image/webp': 'WebP',
  'text/plain': 'text',
  'text/csv': 'a table',
} as const;
export type FileType = keyof typeof FILE_TYPES;
export const MOST_FILE_BYTES = 5_000_000;

/** A paper as it is listed; its bytes have an address of their own. */
export interface KeptFile {
  readonly id: string;
  readonly name: string;
  readonly kind: FileKind;
  readonly note: string;
  readonly type: FileType;
  readonly bytes: number;
  /** who put it here, and when */
  readonly by: string;
  readonly at: string;
}
