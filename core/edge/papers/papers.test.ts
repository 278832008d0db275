import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../base/random/random.js';
import { readingAs, USUAL_READING } from '../../base/units/reading.js';
import german from '../../base/words/de.json' with { type: 'json' };
import { bringWords } from '../../base/words/say.js';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { dropOffPaper, estimatePaper, pickUpPaper, wastePaper, type DeskFacts, type JobOnPaper } from './deskPapers.js';
import { photosOf, type Block, type Paper } from './paper.js';
import { reportPaper, type ReportFacts } from './reportPaper.js';

const RECORD = {
  recordVersion: 1,
  system: { name: 'Tower', owner: 'Ada' },
  loop: { name: 'Main loop', revision: 2, file: usualLoop() },
  schools: { leak: 'dry-then-wet', wet: 'day', limit: 'usual' },
  startedAt: '2026-03-10T09:00:00Z',
  signedOffAt: '2026-03-11T15:00:00Z',
  signedOffBy: 'Tess',
  volumes: { plannedMl: 800, plannedSdMl: 30, pouredMl: 790, balance: '' },
  coolant: { productName: 'Clear', lot: 'L4' },
  dryTest: { verdict: 'pass', leakMbarLs: 0.001, seMbarLs: 0.001, excludedMlPerDay: 1.2, readings: 9, testNumber: 1 },
  had: ['drain', 'swap', 'repair', 'fill', 'dry-test', 'wet-run'],
  verdicts: [
    { verdict: 'tight', earned: true, by: 'air-and-wet', wetS: 86_400 },
    { verdict: 'bled', earned: false, cycles: 0, seen: false },
    { verdict: 'inside', earned: true, ml: 790, sdMl: 12, product: 'Clear' },
  ],
  bleeding: { cycles: 0, lastRiseMm: null, bled: false },
  baselines: [],
  passedOver: [{ step: 'Bleed', reason: 'the lead was in a hurry' }],
  settling: { from: '2026-03-13', to: '2026-03-18' },
  owed: [{ kind: 'reading', what: 'a load test', until: '2026-03-20' }],
  intake: { symptom: 'hot', condition: 'a scratch', signs: [], dataSafe: 'yes', signsIn: '', flowLph: null },
} as unknown as ReportFacts['record'];
const facts = (more: Partial<ReportFacts> = {}): ReportFacts => ({
  reportVersion: 1,
  workshop: { name: 'Fernhollow', where: 'Weir Lane 4', timeZone: 'UTC' },
  kind: 'drain-refill',
  record: RECORD,
  colour: '#7fb8c9',
  before: [{ photoId: 'b1', caption: '' }],
  after: [{ photoId: 'a1', caption: 'full' }, { photoId: 'a2', caption: '' }], // prettier-ignore
  dates: [
    {
      kind: 'coolant-service',
      from: null,
      on: '2027-03-11',
      reason: { why: 'policy', scope: 'workshop', policy: 'twelve-months' },
      estimated: false,
    },
  ],
  bill: null,
  wasteMl: 640,
  ...more,
});
const textOf = ({ blocks }: Paper): string =>
  blocks
    .flatMap((block: Block): string[] => {
      switch (block.kind) {
        case 'rows':
          return block.rows.map(({ label, text, estimate }) => `${label}: ${estimate ? '≈ ' : ''}${text}`);
        case 'list':
          return [...block.items];
        case 'table':
          return [block.caption, ...block.head, ...block.rows.flat(), ...(block.foot ?? [])];
        case 'pictures':
          return block.pictures.map(({ caption }) => caption);
        case 'heading':
        case 'text':
          return [block.text];
        default:
          return [];
      }
    })
    .join('\n');

describe('the report that an owner keeps', () => {
  const text = textOf(reportPaper(facts(), { prices: true }));

  it('says what was claimed and what was not, and what its tests can see', () => {
    expect(text).toContain('Leak-tight: by air, then wet for 24 h');
    expect(text).toContain('Bled: not claimed: no cycle was read');
    expect(text).toContain('a leak of more than 1.2 mL of water a day would have been seen, a smaller one would not');
    expect(text).toContain('Not done: Bleed');
  });

  it('never makes an estimate look like a measurement', () => {
    expect(text).toContain('Poured: 790 mL');
    expect(text).toContain('Planned: ≈ 800 ± 30 mL');
    expect(text).toContain('Inside now: ≈ 790 ± 12 mL');
  });

  it('says only what was done', () => {
    expect(text).toContain('Drained, filled, tested with air, watched for leaks with only the pump running.');
    expect(text).not.toContain('mended');
  });

  it('leaves the inside out: reasons for what was passed over, and prices where the workshop shows none', () => {
    expect(text).not.toContain('in a hurry');
    const bill = { currency: 'EUR', taxPercent: 0, withTax: true, lines: [], netMinor: 100, taxMinor: 0, totalMinor: 100, open: 0 };
    const own = facts({ bill: { ...bill, lines: [{ kind: 'labour', what: 'drain-refill', amount: 1, unit: 'h', eachMinor: 100, sumMinor: 100 }] } }); // prettier-ignore
    expect(textOf(reportPaper(own, { prices: true }))).toContain('What it cost');
    expect(textOf(reportPaper(own, { prices: false }))).not.toContain('What it cost');
  });

  it('has its pictures side by side, before and after, and draws the loop as it stands now', () => {
    const paper = reportPaper(facts(), { prices: false });
    expect(photosOf(paper)).toEqual(['b1', 'a1', 'a2']);
    expect(text).toContain('before: as it came in\nafter: full\nafter: as it left');
    const drawn = paper.blocks.find((block) => block.kind === 'drawing');
    expect(drawn?.kind === 'drawing' && drawn.drawing.shapes.filter(({ fill }) => fill === 'liquid').length).toBeGreaterThan(4);
  });

  it('is written in its reader’s language and units', () => {
    const way = { ...USUAL_READING, language: 'de', volume: 'fl oz' } as const;
    bringWords('de', german);
    const said = readingAs(way, () => textOf(reportPaper(facts(), { prices: false })));
    expect(said).toContain('Eingegossen: ');
    expect(said).toMatch(/fl\.? oz/);
  });
});

describe('papers of the desk', () => {
  const desk: DeskFacts = {
    workshop: { name: 'Fernhollow', where: 'Weir Lane 4', phone: '555 010', timeZone: 'UTC' },
    owner: 'Ada',
    machine: 'Tower',
    today: '2026-03-10',
    address: 'https://desk.example/systems/1',
  };
  const job: JobOnPaper = {
    kind: 'drain-refill',
    estimate: { hours: 2, partsText: '', coolantMl: 900, priceText: '120', parts: [], priced: null },
    slot: { from: '2026-03-12T09:00:00Z', to: '2026-03-12T15:00:00Z' },
    neededBy: null,
    agreedAt: null,
  };

  it('say what was agreed, and leave room for what is written by hand', () => {
    expect(textOf(estimatePaper(desk, job))).toContain('2 h, 900 mL of coolant, 120');
    const slip = textOf(dropOffPaper(desk, job, { name: 'Loaner 2', until: '2026-03-20' }));
    expect(slip).toContain('Slot: Thu 12 Mar, 09:00');
    expect(slip).toContain('Loan machine: Loaner 2, back by 20 Mar 2026');
  });

  it('send home what its owner looks after', () => {
    const fixes = [{ what: 'a cap', awaits: 'a seal', until: '2026-04-01', limits: ['do-not-move'] as const }];
    const slip = textOf(pickUpPaper(desk, { coolant: 'Clear', nextOn: '2027-03-10', bill: null, loan: 'Loaner 2', fixes }));
    expect(slip).toContain('Until 1 Apr 2026: a cap, until a seal; do not move the machine.');
    expect(slip).toContain('Bring back Loaner 2.');
    expect(slip).toContain('supply off at the wall, then call 555 010');
  });

  it('hand waste over with every entry, and are no legal statement', () => {
    const random = seededRandom(3);
    const entries = Array.from({ length: 60 }, (_, n) => ({ at: `2026-02-${String((n % 27) + 1).padStart(2, '0')}T10:00:00Z`, volumeMl: Math.round(900 * random.next()), from: `Machine ${n}` })); // prettier-ignore
    const container = { label: 'Drum 1', kind: 'used-coolant', capacityMl: 60_000, levelMl: 20_000, handedOn: null, handedTo: '', carrier: '', wasteCode: '', documentNumber: '' } as const; // prettier-ignore
    const text = textOf(wastePaper({ workshop: desk.workshop, today: desk.today }, { container: container as never, entries }));
    expect(text).toContain('Machine 59');
    expect(text).toContain('this is no legal statement');
  });
});
