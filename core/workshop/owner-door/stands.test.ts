import { describe, expect, it } from 'vitest';
import { windowsWithout } from './answering.js';
import { asOwnersWay, asOwnReading } from '../people/ownersReading.js';
import { readyWhen, standsAt, type OwnersFacts } from './stands.js';

const facts = (more: Partial<OwnersFacts> = {}): OwnersFacts => ({
  where: null,
  run: null,
  slot: null,
  partsOn: null,
  doneOn: null,
  fetchedOn: null,
  today: '2026-03-10',
  nowMs: Date.parse('2026-03-10T10:00:00Z'),
  ...more,
});
const slot = { from: '2026-03-12T09:00:00Z', to: '2026-03-13T15:00:00Z' };
const run = { stage: 'wet-test', stageEndsAt: '2026-03-11T10:00:00Z', waitsFor: null, waitsUntil: null } as const;

describe('where a machine stands for its owner', () => {
  it.each([
    ['nothing is booked', {}, { at: 'home' }, null],
    ['a job without a slot', { where: 'awaited' }, { at: 'booked' }, null],
    ['an agreed slot', { where: 'awaited', slot }, { at: 'awaited', from: slot.from }, { sure: 'agreed', at: slot.to }],
    ['it did not come', { where: 'missed', slot }, { at: 'missed' }, null],
    ['brought', { where: 'here', slot }, { at: 'here' }, { sure: 'agreed', at: slot.to }],
    ['brought, a part on its way', { where: 'here', partsOn: '2026-03-20' }, { at: 'waits', for: 'parts', until: '2026-03-20' }, { sure: 'not-before', on: '2026-03-20' }],
    ['the day-long test', { where: 'here', run, slot }, { at: 'bench', stage: 'wet-test', until: run.stageEndsAt }, { sure: 'agreed', at: slot.to }],
    ['an end that has passed', { where: 'here', run, slot: { ...slot, to: '2026-03-09T15:00:00Z' } }, { at: 'bench' }, { sure: 'late' }],
    ['off the bench for a part', { where: 'here', slot, run: { ...run, waitsFor: 'parts', waitsUntil: '2026-03-22' } }, { at: 'waits', for: 'parts', until: '2026-03-22' }, { sure: 'not-before', on: '2026-03-22' }],
    ['off the bench for an answer', { where: 'here', run: { ...run, waitsFor: 'owner', waitsUntil: '2026-03-22' } }, { at: 'waits', for: 'owner' }, { sure: 'open' }],
    ['done', { where: 'ready', doneOn: '2026-03-09', slot }, { at: 'ready', since: '2026-03-09' }, null],
    ['fetched', { where: 'fetched', fetchedOn: '2026-03-10' }, { at: 'fetched', on: '2026-03-10' }, null],
  ] as const)('%s', (_, more, stands, ready) => {
    expect(standsAt(facts(more))).toMatchObject(stands);
    expect(readyWhen(facts(more))).toEqual(ready);
  }); // prettier-ignore
});

describe('days that an owner rules out', () => {
  it('become the days that are left, in order, without what is past', () => {
    const not = [
      { from: '2026-03-20', to: '2026-03-25' },
      { from: '2026-03-01', to: '2026-03-12' },
      { from: '2026-03-24', to: '2026-03-26' },
    ];
    expect(windowsWithout(not, '2026-03-10').map(({ from, to }) => [from, to])).toEqual([
      ['2026-03-13', '2026-03-19'],
      ['2026-03-27', '2026-07-08'],
    ]);
  });
});

describe('how an owner reads', () => {
  it('is a language and a way of measuring, each as the workshop does where nothing is said', () => {
    for (const way of [{ language: 'de', units: null }, { language: null, units: 'us' }, { language: 'en', units: 'metric' }, { language: null, units: null }] as const)
      expect(asOwnersWay(asOwnReading(way))).toEqual(way); // prettier-ignore
  });
});
