import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planConflicts } from '../planning/planConflicts.js';
import { buildProblem, type BoardJob, type WorkshopBoard } from '../planning/workshopPlan.js';
import { offerSlots } from './offers.js';
import { alikeDigits, digitsOfCaller } from './who.js';

describe('the number of a caller', () => {
  it.each([
    ['+351 555 475 145', '5475145'],
    ['00351555475145', '5475145'],
    ['555 475 145', '5475145'],
    ['(0351) 55-1234', '1551234'],
    ['475145', '475145'],
    ['Ada', null],
    ['FH-7', null],
    ['12', null],
  ])('%s is looked for by %s', (text, digits) => expect(digitsOfCaller(text)).toBe(digits));

  it('is surer the more digits are alike from the end', () => {
    expect(alikeDigits('+351 555 475 145', '0555 475 145')).toBe(9);
    expect(alikeDigits(null, '555')).toBe(0);
  });

  it('is found in every form of itself', () => {
    const national = fc.stringMatching(/^[1-9]\d{6,9}$/u);
    fc.assert(
      fc.property(national, fc.constantFrom('', '0', '+49', '0049 ', '(0', '+351 '), (number, before) => {
        const digits = digitsOfCaller(`${before}${number.slice(0, 3)} ${number.slice(3)}`);
        expect(number.endsWith(digits ?? 'x')).toBe(true);
      }),
    );
  });
});

const job = (id: string, more: Partial<BoardJob> = {}): BoardJob => ({
  id,
  kind: 'drain-refill',
  systemName: id,
  ownerName: 'Ada',
  attendedMinutes: 120,
  learnedFrom: 0,
  wetMinutes: 10,
  rigid: false,
  windows: [],
  arrivesOn: null,
  partsOn: null,
  neededBy: null,
  bookedOn: '2026-03-09',
  consented: true,
  ...more,
});
const board = (more: Partial<WorkshopBoard> = {}): WorkshopBoard => ({
  // a Monday, in the middle of the day
  now: '2026-03-09T13:07:00Z',
  today: '2026-03-09',
  timeZone: 'Europe/Lisbon',
  benches: [{ id: 'b1', name: 'Long bench' }],
  people: [{ id: 'p1', name: 'Tess', skills: null, version: 1 }],
  workshopVersion: 1,
  kits: [],
  shifts: [1, 2, 3, 4, 5].map((weekday) => ({ personId: 'p1', weekday, fromMinute: 9 * 60, toMinute: 17 * 60 })),
  absences: [],
  jobs: [],
  slots: [],
  running: [],
  waiting: [],
  ...more,
});
const starts = (offers: ReturnType<typeof offerSlots>): string[] => offers.map(({ steps }) => steps[0]?.from ?? '');

describe('slots that are offered', () => {
  it('are on different days, on whole quarter hours, within the hours of hands', () => {
    expect(starts(offerSlots(board(), job('new'), 3))).toEqual(['2026-03-09T13:30:00.000Z', '2026-03-10T09:00:00.000Z', '2026-03-11T09:00:00.000Z']); // prettier-ignore
  });

  it('leave what is planned where it is, agreed or not', () => {
    const [first] = offerSlots(board(), job('old'), 1);
    const planned = board({ jobs: [job('old')], slots: [{ jobId: 'old', ...(first as NonNullable<typeof first>), confirmed: false, version: 1 }] }); // prettier-ignore
    const offers = offerSlots(planned, job('new'), 3);
    expect(starts(offers)[0]).not.toBe(first?.steps[0]?.from);
    for (const offer of offers) {
      const slots = [...planned.slots, { jobId: 'new', ...offer, confirmed: false, version: 0 }];
      const built = buildProblem({ ...planned, jobs: [...planned.jobs, job('new')], slots }, 'check');
      expect(planConflicts(built.problem, built.current)).toEqual([]);
    }
  });

  it('begin on a quarter hour behind a job that ends at odd minutes', () => {
    const old = job('old', { attendedMinutes: 47 });
    const [first] = offerSlots(board(), old, 1);
    const planned = board({ jobs: [old], slots: [{ jobId: 'old', ...(first as NonNullable<typeof first>), confirmed: true, version: 1 }] });
    for (const from of starts(offerSlots(planned, job('new'), 3))) expect(Date.parse(from) % (15 * 60_000)).toBe(0);
  });

  it('wait for parts, and for days in which the owner can do without it', () => {
    expect(starts(offerSlots(board(), job('new', { arrivesOn: '2026-03-12' }), 1))).toEqual(['2026-03-12T09:00:00.000Z']);
    const windows = [{ from: '2026-03-13', to: '2026-03-13' }];
    expect(starts(offerSlots(board(), job('new', { windows }), 3))).toEqual(['2026-03-13T09:00:00.000Z']);
  });

  it('are none where nobody has hours for it', () => {
    expect(offerSlots(board({ shifts: [] }), job('new'), 3)).toEqual([]);
  });
});
