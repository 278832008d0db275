import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import type { Block, Paper } from '../../../core/edge/papers/paper.js';
import { usualLoop } from '../../../core/machine/catalogue/testLoops.js';
import { drawPlain } from '../../../core/physics/profile/plainDrawing.js';
import { paperPdf } from './paperPdf.js';

const BLOCKS: readonly Block[] = [
  { kind: 'rows', rows: [{ label: 'Poured', text: '1\u202f234 mL' }, { label: 'Planned', text: '1 250 mL', estimate: true }] }, // prettier-ignore
  { kind: 'heading', text: 'What was found' },
  { kind: 'text', as: 'notice', text: 'Holds for now: a cap.' },
  { kind: 'list', items: ['reservoir \u2192 pump', 'pump \u2192 block'] },
  { kind: 'table', caption: 'Parts', head: ['Part', 'Verdict'], rows: [['pump', 'use again'], ['plug', 'replace']], foot: ['In all', '2'], figures: [1] }, // prettier-ignore
  { kind: 'drawing', alt: 'The loop', drawing: drawPlain(usualLoop(), { width: 1000, height: 300, colour: '#7fb8c9', filled: null }) },
  { kind: 'pictures', pictures: [{ photoId: 'a', caption: 'before: dusty' }, { photoId: 'gone', caption: 'after' }] }, // prettier-ignore
  { kind: 'code', address: 'https://desk.example/systems/1', alt: 'The way to its page' },
  { kind: 'sign', places: ['Owner', 'Day'] },
];
const paper = (blocks: readonly Block[] = BLOCKS): Paper => ({
  title: 'Kühlmittel & Rückgabe of Tower',
  language: 'de',
  from: { name: 'Fernhollow', where: 'Weir Lane 4' },
  about: 'Ada · Main loop',
  blocks,
});
const open = async (of: Paper) => {
  const image = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#2277aa' } })
    .jpeg()
    .toBuffer();
  const bytes = await paperPdf(of, new Map([['a', image]]));
  return { bytes: Buffer.from(bytes), pdf: await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise };
};
type Node = { role?: string; children?: Node[]; alt?: string };
const rolesOf = ({ role, children = [] }: Node): string[] => [...(role ? [role] : []), ...children.flatMap(rolesOf)];

describe('a paper as a PDF', () => {
  it('has title and language, and brings its fonts along', async () => {
    const { bytes, pdf } = await open(paper());
    const { info } = await pdf.getMetadata();
    expect(info).toMatchObject({ Title: 'Kühlmittel & Rückgabe of Tower', Language: 'de' });
    expect(await pdf.getMarkInfo()).toMatchObject({ Marked: true });
    const text = bytes.toString('latin1');
    expect(text).toContain('/FontFile2');
    expect(text).not.toContain('/BaseFont /Helvetica');
  });

  it('reads in the order in which it is written, with signs that its font has', async () => {
    const { pdf } = await open(paper());
    const pages = await Promise.all(
      Array.from({ length: pdf.numPages }, async (_, n) => (await (await pdf.getPage(n + 1)).getTextContent()).items),
    );
    const text = pages.flat().flatMap((item) => ('str' in item ? [item.str] : [])).join(' ').replace(/\s+/g, ' '); // prettier-ignore
    const order = ['Fernhollow · Weir Lane 4', 'Kühlmittel & Rückgabe of Tower', 'Poured', '1 234 mL', 'Planned', '≈ 1 250 mL', 'What was found', 'Holds for now: a cap.', 'reservoir – pump', 'Parts', 'Verdict', 'pump', 'use again', 'replace', 'In all', 'before: dusty', 'Owner', 'Day']; // prettier-ignore
    let from = 0;
    for (const each of order) {
      const at = text.indexOf(each, from);
      expect(at, `${each} after "${text.slice(Math.max(0, from - 30), from)}"`).toBeGreaterThanOrEqual(0);
      from = at;
    }
    // a picture that is gone is left out with its words
    expect(text).not.toContain('after');
  });

  it('says of each piece what it is', async () => {
    const { pdf } = await open(paper());
    const trees = await Promise.all(
      Array.from({ length: pdf.numPages }, async (_, n) => (await (await pdf.getPage(n + 1)).getStructTree()) as Node),
    );
    const roles = trees.flatMap(rolesOf);
    for (const role of ['H1', 'H2', 'P', 'L', 'LI', 'Lbl', 'LBody', 'Table', 'TR', 'TH', 'TD', 'Caption', 'Figure'])
      expect(roles).toContain(role);
    expect(roles.filter((role) => role === 'H1')).toHaveLength(1);
    const alts = JSON.stringify(trees);
    for (const alt of ['The loop', 'before: dusty', 'The way to its page']) expect(alts).toContain(alt);
  });

  it('breaks over pages: tables say their heads again, every page has its number', async () => {
    const rows = Array.from({ length: 120 }, (_, n) => [
      `part ${n}`,
      'use again, and again, and again until the line is long enough to be broken',
    ]);
    const { pdf } = await open(paper([{ kind: 'table', caption: 'Parts', head: ['Part', 'Verdict'], rows }]));
    expect(pdf.numPages).toBeGreaterThan(2);
    for (let n = 1; n <= pdf.numPages; n += 1) {
      const text = (await (await pdf.getPage(n)).getTextContent()).items.flatMap((item) => ('str' in item ? [item.str] : [])).join(' '); // prettier-ignore
      expect(text).toContain('Verdict');
      expect(text).toContain(`${n}/${pdf.numPages}`);
    }
  });
});
