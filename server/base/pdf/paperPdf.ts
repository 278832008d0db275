import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import QRCode from 'qrcode';
import type { Block, Paper, PaperPicture } from '../../../core/edge/papers/paper.js';
import type { PlainDrawing, PlainShape } from '../../../core/physics/profile/plainDrawing.js';

/** points in a millimetre: a PDF counts in 1/72 inch */
const PT = 72 / 25.4;
const PAGE = { widthMm: 210, heightMm: 297, marginMm: 18, footMm: 12 } as const;
const LEFT = PAGE.marginMm * PT;
const WIDTH = (PAGE.widthMm - 2 * PAGE.marginMm) * PT;
const BOTTOM = (PAGE.heightMm - PAGE.marginMm - PAGE.footMm) * PT;
const SIZE = { title: 20, heading: 13, text: 10, small: 8.5 } as const;
const LABEL = 38 * PT;
const INK = '#14201e';
const SOFT = '#46534f';
const LINE = '#b9c3bf';

const font = (weight: string): string =>
  createRequire(import.meta.url).resolve(`@expo-google-fonts/atkinson-hyperlegible-next/${weight}/AtkinsonHyperlegibleNext_${weight}.ttf`);

type Doc = PDFKit.PDFDocument;
type Struct = PDFKit.PDFStructureElement;

/** Pictures of a paper by their ids: their bytes. One that is gone is left out. */
export type Pictures = ReadonlyMap<string, Uint8Array>;

/** Draws a paper, wherever that is done. */
export type DrawPaper = (paper: Paper, pictures: Pictures) => Promise<Uint8Array>;

/**
 * A paper as a PDF: fonts embedded, text in reading order, every piece tagged by what it is, with title and language. Pictures and drawings
 * say what they show.
 */
export const paperPdf: DrawPaper = (paper, given) => {
  const pdf = new PDFDocument({
    size: [PAGE.widthMm * PT, PAGE.heightMm * PT],
    margins: { left: LEFT, right: LEFT, top: PAGE.marginMm * PT, bottom: (PAGE.marginMm + PAGE.footMm) * PT },
    lang: paper.language,
    displayTitle: true,
    tagged: true,
    pdfVersion: '1.7',
    bufferPages: true,
    info: { Title: paper.title, Author: paper.from.name },
  });
  pdf.registerFont('plain', font('400Regular'));
  pdf.registerFont('bold', font('700Bold'));
  const bytes: Buffer[] = [];
  pdf.on('data', (piece: Buffer) => bytes.push(piece));
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on('end', () => resolve(Buffer.concat(bytes)));
    pdf.on('error', reject);
  });
  // what came from another thread is plain bytes; the library asks for a buffer
  const pictures = new Map([...given].map(([id, image]) => [id, Buffer.from(image)]));
  const root = pdf.struct('Document');
  pdf.addStructure(root);
  head(pdf, root, paper);
  for (const block of paper.blocks) DRAWN[block.kind](pdf, root, block as never, pictures);
  root.end();
  feet(pdf, paper);
  pdf.end();
  return done;
};

/** Room for so much, on this page or the next. */
function room(pdf: Doc, height: number): void {
  if (pdf.y + height > BOTTOM) pdf.addPage();
}

interface Said {
  readonly face?: 'plain' | 'bold';
  readonly size?: number;
  readonly colour?: string;
  readonly x?: number;
  readonly width?: number;
  readonly align?: 'left' | 'right' | 'center';
}

/** What the font has no sign for, written with signs that it has: arrows between joints, narrow spaces in figures. */
const SIGNS: Readonly<Record<string, string>> = {
  '\u202f': '\u00a0',
  '\u2009': '\u00a0',
  '\u2192': '\u2013',
  '\u2190': '\u2013',
  '\u2610': '[  ]',
};
const printable = (text: string): string => text.replace(/[\u202f\u2009\u2190\u2192\u2610]/gu, (sign) => SIGNS[sign] ?? sign);

/** Text at a place, as one tagged piece. @returns its height */
function write(pdf: Doc, parent: Struct, tag: string, words: string, said: Said = {}): number {
  const text = printable(words);
  const { face = 'plain', size = SIZE.text, colour = INK, x = LEFT, width = WIDTH, align = 'left' } = said;
  pdf.font(face).fontSize(size);
  const height = pdf.heightOfString(text, { width, align });
  const { y } = pdf;
  const piece = pdf.struct(tag, {}, () => {
    pdf.font(face).fontSize(size).fillColor(colour).text(text, x, y, { width, align });
  });
  parent.add(piece);
  return height;
}

function head(pdf: Doc, root: Struct, { title, from, about }: Paper): void {
  write(pdf, root, 'P', [from.name, from.where].filter(Boolean).join(' · '), { size: SIZE.small, colour: SOFT });
  pdf.y += 6;
  write(pdf, root, 'H1', title, { face: 'bold', size: SIZE.title });
  write(pdf, root, 'P', about, { colour: SOFT });
  pdf.y += 4;
  rule(pdf, pdf.y, INK, 1.5);
  pdf.y += 8;
}

/** Lines that say nothing: passed over by whoever reads aloud. */
function rule(pdf: Doc, y: number, colour: string = LINE, width = 0.5): void {
  pdf.markContent('Artifact', { type: 'Layout' });
  pdf
    .moveTo(LEFT, y)
    .lineTo(LEFT + WIDTH, y)
    .lineWidth(width)
    .strokeColor(colour)
    .stroke();
  pdf.endMarkedContent();
}

/** The workshop and the page's number, on every page. */
function feet(pdf: Doc, { title, from }: Paper): void {
  const { start, count } = pdf.bufferedPageRange();
  for (let page = start; page < start + count; page += 1) {
    pdf.switchToPage(page);
    const margin = pdf.page.margins.bottom;
    // the foot stands below where text may flow
    pdf.page.margins.bottom = 0;
    pdf.markContent('Artifact', { type: 'Pagination', attached: ['Bottom'] });
    pdf.font('plain').fontSize(SIZE.small).fillColor(SOFT);
    pdf.text(`${from.name} · ${title} · ${page + 1}/${count}`, LEFT, (PAGE.heightMm - PAGE.marginMm) * PT, {
      width: WIDTH,
      lineBreak: false,
    });
    pdf.endMarkedContent();
    pdf.page.margins.bottom = margin;
  }
}

type Drawn<K extends Block['kind']> = (
  pdf: Doc,
  root: Struct,
  block: Extract<Block, { kind: K }>,
  pictures: ReadonlyMap<string, Buffer>,
) => void;

const DRAWN: { readonly [K in Block['kind']]: Drawn<K> } = {
  heading: (pdf, root, { text }) => {
    room(pdf, 60);
    pdf.y += 10;
    write(pdf, root, 'H2', text, { face: 'bold', size: SIZE.heading });
    pdf.y += 4;
  },
  text: (pdf, root, { text, as }) => {
    const isNotice = as === 'notice';
    const said: Said = {
      face: as === 'strong' || isNotice ? 'bold' : 'plain',
      size: as === 'small' ? SIZE.small : as === 'strong' ? SIZE.text + 1 : SIZE.text,
      colour: as === 'small' ? SOFT : INK,
      ...(isNotice ? { x: LEFT + 10, width: WIDTH - 10 } : {}),
    };
    pdf.font(said.face ?? 'plain').fontSize(said.size ?? SIZE.text);
    room(pdf, pdf.heightOfString(text, { width: said.width ?? WIDTH }) + 6);
    const { y } = pdf;
    const height = write(pdf, root, 'P', text, said);
    if (isNotice) bar(pdf, y, height);
    pdf.y += 6;
  },
  rows: (pdf, root, { rows }) => {
    const list = tagged(pdf, root, 'L');
    for (const { label, text, estimate } of rows) {
      pdf.font('plain').fontSize(SIZE.text);
      const height = pdf.heightOfString(text, { width: WIDTH - LABEL });
      room(pdf, height + 3);
      const { y } = pdf;
      const item = tagged(pdf, list, 'LI');
      write(pdf, item, 'Lbl', label, { colour: SOFT, width: LABEL - 6 });
      const under = pdf.y;
      pdf.y = y;
      write(pdf, item, 'LBody', estimate ? `≈ ${text}` : text, { x: LEFT + LABEL, width: WIDTH - LABEL });
      pdf.y = Math.max(pdf.y, under) + 2;
      item.end();
    }
    list.end();
    pdf.y += 4;
  },
  list: (pdf, root, { items }) => {
    const list = tagged(pdf, root, 'L');
    for (const text of items) {
      pdf.font('plain').fontSize(SIZE.text);
      room(pdf, pdf.heightOfString(text, { width: WIDTH - 14 }) + 2);
      const item = tagged(pdf, list, 'LI');
      const { y } = pdf;
      write(pdf, item, 'Lbl', '–', { width: 12 });
      pdf.y = y;
      write(pdf, item, 'LBody', text, { x: LEFT + 14, width: WIDTH - 14 });
      pdf.y += 2;
      item.end();
    }
    list.end();
    pdf.y += 4;
  },
  table: (pdf, root, block) => drawTable(pdf, root, block),
  drawing: (pdf, root, { alt, drawing }) => {
    const scale = WIDTH / drawing.width;
    const height = drawing.height * scale;
    room(pdf, height + 8);
    const { y } = pdf;
    root.add(pdf.struct('Figure', { alt }, () => drawShapes(pdf, drawing, y, scale)));
    pdf.x = LEFT;
    pdf.y = y + height + 8;
  },
  pictures: (pdf, root, { pictures: shown }, pictures) => {
    const wide = (WIDTH - 10) / 2;
    for (let index = 0; index < shown.length; index += 2) {
      const two = shown.slice(index, index + 2);
      const heights = two.map(({ photoId }) => heightOf(pdf, pictures.get(photoId), wide));
      const height = Math.max(...heights) + 16;
      if (Math.max(...heights) === 0) continue;
      room(pdf, height);
      const { y } = pdf;
      two.forEach((picture, at) => drawPicture(pdf, root, picture, pictures.get(picture.photoId), { x: LEFT + at * (wide + 10), y, wide }));
      pdf.x = LEFT;
      pdf.y = y + height;
    }
  },
  code: (pdf, root, { address, alt }) => {
    const size = 28 * PT;
    const { modules } = QRCode.create(address, { errorCorrectionLevel: 'M' });
    const unit = size / modules.size;
    const { y } = pdf;
    const figure = pdf.struct('Figure', { alt }, () => {
      for (let line = 0; line < modules.size; line += 1)
        for (let column = 0; column < modules.size; column += 1)
          if (modules.get(line, column)) pdf.rect(LEFT + WIDTH - size + column * unit, y + line * unit, unit, unit);
      pdf.fillColor('#000').fill();
    });
    root.add(figure);
    // text runs beside it
    pdf.y = y;
  },
  sign: (pdf, root, { places }) => {
    room(pdf, 60);
    pdf.y += 40;
    const wide = (WIDTH - 20) / places.length;
    const { y } = pdf;
    places.forEach((place, at) => {
      pdf.markContent('Artifact', { type: 'Layout' });
      pdf.moveTo(LEFT + at * (wide + 20), y).lineTo(LEFT + at * (wide + 20) + wide, y).lineWidth(0.7).strokeColor(INK).stroke(); // prettier-ignore
      pdf.endMarkedContent();
      pdf.y = y + 3;
      write(pdf, root, 'P', place, { size: SIZE.small, colour: SOFT, x: LEFT + at * (wide + 20), width: wide });
    });
    pdf.y += 8;
  },
};

function tagged(pdf: Doc, parent: Struct, tag: string): Struct {
  const element = pdf.struct(tag);
  parent.add(element);
  return element;
}

function bar(pdf: Doc, y: number, height: number): void {
  pdf.markContent('Artifact', { type: 'Layout' });
  pdf.rect(LEFT, y, 3, height).fillColor('#9c1f17').fill();
  pdf.endMarkedContent();
}

/** Columns as wide as what stands in them asks for, the longest text gets what is left. */
function columnsOf(pdf: Doc, { head, rows, foot }: Extract<Block, { kind: 'table' }>): number[] {
  pdf.font('plain').fontSize(SIZE.text);
  const wanted = head.map((title, at) => Math.max(pdf.widthOfString(title), ...[...rows, foot ?? []].map((each) => pdf.widthOfString(each[at] ?? ''))) + 10); // prettier-ignore
  const sum = wanted.reduce((all, each) => all + each, 0);
  if (sum <= WIDTH) {
    const widest = wanted.indexOf(Math.max(...wanted));
    return wanted.map((each, at) => (at === widest ? each + WIDTH - sum : each));
  }
  // short columns keep their width, long ones share the rest by their length
  const fair = WIDTH / head.length;
  const short = wanted.map((each) => each <= fair);
  const left = WIDTH - wanted.reduce((all, each, at) => all + (short[at] ? each : 0), 0);
  const long = wanted.reduce((all, each, at) => all + (short[at] ? 0 : each), 0);
  return wanted.map((each, at) => (short[at] ? each : (each / long) * left));
}

function drawTable(pdf: Doc, root: Struct, block: Extract<Block, { kind: 'table' }>): void {
  const { caption, head: titles, rows, foot, figures = [] } = block;
  const columns = columnsOf(pdf, block);
  const table = tagged(pdf, root, 'Table');
  room(pdf, 50);
  write(pdf, table, 'Caption', caption, { size: SIZE.small, colour: SOFT });
  pdf.y += 2;
  const line = (cells: readonly string[], as: 'head' | 'body' | 'foot'): void => {
    const face = as === 'foot' ? 'bold' : 'plain';
    const size = as === 'head' ? SIZE.small : SIZE.text;
    pdf.font(face).fontSize(size);
    const height = Math.max(...cells.map((cell, at) => pdf.heightOfString(cell || ' ', { width: (columns[at] as number) - 8 })));
    if (pdf.y + height + 6 > BOTTOM) {
      pdf.addPage();
      if (as !== 'head') line(titles, 'head');
    }
    const { y } = pdf;
    rule(pdf, y, as === 'foot' ? INK : LINE, as === 'foot' ? 1.2 : 0.5);
    const tr = tagged(pdf, table, 'TR');
    let x = LEFT;
    cells.forEach((cell, at) => {
      const wide = columns[at] as number;
      pdf.y = y + 3;
      const tag = as === 'head' || (at === 0 && as === 'foot') ? 'TH' : 'TD';
      if (cell !== '')
        write(pdf, tr, tag, cell, { face, size, colour: as === 'head' ? SOFT : INK, x, width: wide - 8, align: figures.includes(at) ? 'right' : 'left' }); // prettier-ignore
      else tagged(pdf, tr, tag).end();
      x += wide;
    });
    tr.end();
    pdf.x = LEFT;
    pdf.y = y + height + 6;
  };
  line(titles, 'head');
  for (const cells of rows) line(cells, 'body');
  if (foot) line(foot, 'foot');
  table.end();
  pdf.y += 6;
}

const PAINTS = { ink: INK, soft: '#8d9995', glass: '#ffffff' } as const;

function drawShapes(pdf: Doc, { shapes, texts, colour }: PlainDrawing, y: number, scale: number): void {
  const paint = (of: NonNullable<PlainShape['fill' | 'stroke']>): string => (of === 'liquid' ? (colour ?? '#9fb0ab') : PAINTS[of]);
  pdf.save();
  pdf.translate(LEFT, y).scale(scale);
  for (const { d, fill, stroke, strokeWidth = 1, dashed, clip } of shapes) {
    pdf.save();
    if (clip) pdf.path(clip).clip();
    if (dashed) pdf.dash(4, { space: 4 });
    pdf.path(d).lineWidth(strokeWidth).lineJoin('round');
    if (fill && stroke) pdf.fillAndStroke(paint(fill), paint(stroke));
    else if (fill) pdf.fillColor(paint(fill)).fill();
    else if (stroke) pdf.strokeColor(paint(stroke)).stroke();
    pdf.restore();
  }
  for (const { text, x, y: at, size, anchor } of texts) {
    pdf.font('plain').fontSize(size).fillColor(INK);
    const wide = pdf.widthOfString(text);
    pdf.text(text, x - (anchor === 'middle' ? wide / 2 : wide), at - size * 0.8, { lineBreak: false });
  }
  pdf.restore();
}

/** pt; no picture is higher than a third of a page */
const MOST_PICTURE = 85 * PT;
function sizeIn(pdf: Doc, image: Buffer, wide: number): { width: number; height: number } {
  const opened = (pdf as unknown as { openImage: (source: Buffer) => { width: number; height: number } }).openImage(image);
  const scale = Math.min(wide / opened.width, MOST_PICTURE / opened.height);
  return { width: opened.width * scale, height: opened.height * scale };
}
const heightOf = (pdf: Doc, image: Buffer | undefined, wide: number): number => (image ? sizeIn(pdf, image, wide).height : 0);

function drawPicture(
  pdf: Doc,
  root: Struct,
  { caption }: PaperPicture,
  image: Buffer | undefined,
  at: { x: number; y: number; wide: number },
): void {
  if (!image) return;
  const { width, height } = sizeIn(pdf, image, at.wide);
  root.add(pdf.struct('Figure', { alt: caption }, () => pdf.image(image, at.x, at.y, { width, height })));
  pdf.y = at.y + height + 2;
  write(pdf, root, 'P', caption, { size: SIZE.small, colour: SOFT, x: at.x, width: at.wide });
}
