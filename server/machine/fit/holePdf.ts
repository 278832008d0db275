import PDFDocument from 'pdfkit';
import { say } from '../../../core/base/words/say.js';
import { reading } from '../../../core/base/units/reading.js';
import { BAR_MM, PAPERS, SHEET, tiles, tileSize, type HoleTemplate, type HoleWords, type PaperKey, type Tile } from '../../../core/machine/fit/holes.js'; // prettier-ignore

/** points in a millimetre: a PDF counts in 1/72 inch */
const PT = 72 / 25.4;

/** The template true to size, on as many sheets as it takes: neighbours overlap and share their crosses. */
export function holePdf(template: HoleTemplate, paper: PaperKey, words: HoleWords): Promise<Buffer> {
  const { widthMm, heightMm } = PAPERS[paper];
  const all = tiles(template, paper);
  const pdf = new PDFDocument({
    size: [widthMm * PT, heightMm * PT],
    margin: 0,
    autoFirstPage: false,
    lang: reading().language,
    displayTitle: true,
    info: { Title: words.title },
  });
  const bytes: Buffer[] = [];
  pdf.on('data', (piece: Buffer) => bytes.push(piece));
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on('end', () => resolve(Buffer.concat(bytes)));
    pdf.on('error', reject);
  });
  for (const tile of all) {
    pdf.addPage();
    drawHoles(pdf, template, tile, paper);
    drawFoot(pdf, paper, words, all.length > 1 ? say('sheet {row}/{column}', { row: tile.row + 1, column: tile.column + 1 }) : '');
  }
  pdf.end();
  return done;
}

function drawHoles(pdf: PDFKit.PDFDocument, template: HoleTemplate, tile: Tile, paper: PaperKey): void {
  const size = tileSize(paper);
  const left = SHEET.marginMm;
  const bottom = SHEET.marginMm + size.heightMm;
  pdf.save();
  pdf.rect(left * PT, SHEET.marginMm * PT, size.widthMm * PT, size.heightMm * PT).clip();
  pdf.lineWidth(0.25 * PT).strokeColor('#000');
  const x = (mm: number): number => (left + mm - tile.leftMm) * PT;
  const y = (mm: number): number => (bottom - (mm - tile.bottomMm)) * PT;
  pdf.rect(x(0), y(template.heightMm), template.widthMm * PT, template.heightMm * PT).dash(3 * PT, { space: 2 * PT }).stroke().undash(); // prettier-ignore
  for (const { xMm, yMm, diameterMm } of template.holes) {
    pdf.circle(x(xMm), y(yMm), (diameterMm / 2) * PT).stroke();
    pdf.moveTo(x(xMm - 4), y(yMm)).lineTo(x(xMm + 4), y(yMm)).moveTo(x(xMm), y(yMm - 4)).lineTo(x(xMm), y(yMm + 4)).stroke(); // prettier-ignore
  }
  pdf.restore();
}

function drawFoot(pdf: PDFKit.PDFDocument, paper: PaperKey, { title, bar, caution }: HoleWords, sheet: string): void {
  const left = SHEET.marginMm * PT;
  const top = (PAPERS[paper].heightMm - SHEET.footMm + 4) * PT;
  const end = left + BAR_MM * PT;
  pdf.lineWidth(0.5 * PT);
  pdf.moveTo(left, top).lineTo(left, top + 4 * PT).moveTo(left, top + 2 * PT).lineTo(end, top + 2 * PT).moveTo(end, top).lineTo(end, top + 4 * PT).stroke(); // prettier-ignore
  pdf.font('Helvetica').fontSize(10).fillColor('#000');
  pdf.text(bar, end + 4 * PT, top + 0.4 * PT, { lineBreak: false });
  pdf.text([title, sheet].filter((each) => each !== '').join(', '), left, top + 7 * PT, { lineBreak: false });
  pdf.fontSize(9).text(caution, left, top + 13 * PT, { width: (PAPERS[paper].widthMm - 2 * SHEET.marginMm) * PT });
}
