import type { PlainDrawing } from '../../physics/profile/plainDrawing.js';

/** A piece of a paper, in reading order. Words are made already: a paper is written for one reader. */
export type Block =
  | { readonly kind: 'heading'; readonly text: string }
  | { readonly kind: 'text'; readonly text: string; readonly as?: 'strong' | 'small' | 'notice' }
  | { readonly kind: 'rows'; readonly rows: readonly PaperRow[] }
  | { readonly kind: 'list'; readonly items: readonly string[] }
  | { readonly kind: 'table'; readonly caption: string; readonly head: readonly string[]; readonly rows: readonly (readonly string[])[]; readonly foot?: readonly string[]; readonly figures?: readonly number[] } // prettier-ignore
  | { readonly kind: 'drawing'; readonly alt: string; readonly drawing: PlainDrawing }
  | { readonly kind: 'pictures'; readonly pictures: readonly PaperPicture[] }
  | { readonly kind: 'code'; readonly address: string; readonly alt: string }
  | { readonly kind: 'sign'; readonly places: readonly string[] };

export interface PaperRow {
  readonly label: string;
  readonly text: string;
  /** predicted or reckoned, not measured: never looks like a measurement */
  readonly estimate?: boolean;
}

export interface PaperPicture {
  readonly photoId: string;
  readonly caption: string;
}

/** What a workshop gives away: the same as a page and as a PDF. */
export interface Paper {
  readonly title: string;
  readonly language: 'en' | 'de';
  /** of the workshop: its name, and where it is */
  readonly from: { readonly name: string; readonly where: string };
  /** whose machine, and the day */
  readonly about: string;
  readonly blocks: readonly Block[];
}

/** A heading with what belongs under it; nothing where there is nothing to say. */
export const section = (text: string, blocks: readonly (Block | null)[]): Block[] => {
  const own = blocks.filter((each): each is Block => each !== null && !isEmpty(each));
  return own.length === 0 ? [] : [{ kind: 'heading', text }, ...own];
};
const isEmpty = (block: Block): boolean =>
  (block.kind === 'rows' && block.rows.length === 0) ||
  (block.kind === 'list' && block.items.length === 0) ||
  (block.kind === 'table' && block.rows.length === 0) ||
  (block.kind === 'pictures' && block.pictures.length === 0) ||
  (block.kind === 'text' && block.text === '');
/** A row, where there is something in it. */
export const row = (label: string, text: string | null | undefined, more: Pick<PaperRow, 'estimate'> = {}): PaperRow[] =>
  text ? [{ label, text, ...more }] : [];

/** every photograph that a paper shows, in its order */
export const photosOf = ({ blocks }: Paper): string[] =>
  blocks.flatMap((block) => (block.kind === 'pictures' ? block.pictures.map(({ photoId }) => photoId) : []));
