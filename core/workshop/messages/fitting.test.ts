import { describe, expect, it } from 'vitest';
import { fittingLetter, type Standing } from './fitting.js';
import { whereIs } from '../jobs/arrival.js';

const standing = (more: Partial<Standing>): Standing => ({
  where: null,
  notComeOn: null,
  slot: null,
  partsOn: null,
  due: null,
  today: '2026-03-10',
  ...more,
});
const slot = { from: '2026-03-12T09:00:00Z', to: '2026-03-12T15:00:00Z' };
const due = { dueOn: '2026-04-01', postponed: 0 };

describe('the letter that fits', () => {
  it.each([
    ['what is done is ready', { where: 'ready', due }, 'ready', null],
    ['a slot that stands', { where: 'awaited', slot, due }, 'slot', slot.from],
    ['one who did not come', { where: 'missed', notComeOn: '2026-03-09', due }, 'missed', '2026-03-09'],
    ['one who did not come and has a new slot', { where: 'missed', notComeOn: '2026-03-09', slot }, 'slot', slot.from],
    ['a part that is awaited while it stands here', { where: 'here', partsOn: '2026-03-15', slot }, 'parts-late', '2026-03-15'],
    ['a part that came days ago', { where: 'awaited', partsOn: '2026-03-01', slot }, 'slot', slot.from],
    ['a date that comes', { due }, 'due-soon', '2026-04-01'],
    ['a date that was put off again and again', { due: { ...due, postponed: 3 } }, 'risk', '2026-04-01'],
  ] as const)('%s', (_, more, template, when) => {
    expect(fittingLetter(standing(more))).toMatchObject({ template, when });
  });

  it('says when it is ready with a slot alone', () => {
    expect(fittingLetter(standing({ where: 'awaited', slot })).ready).toBe(slot.to);
    expect(fittingLetter(standing({ due })).ready).toBeNull();
  });
});

describe('where a machine is', () => {
  const days = { broughtOn: null, notComeOn: null, fetchedOn: null };
  it('follows what was written down, and what runs led', () => {
    expect(whereIs('booked', days)).toBe('awaited');
    expect(whereIs('booked', { ...days, notComeOn: '2026-03-01' })).toBe('missed');
    expect(whereIs('booked', { ...days, broughtOn: '2026-03-01' })).toBe('here');
    expect(whereIs('active', days)).toBe('here');
    expect(whereIs('done', days)).toBe('ready');
    expect(whereIs('done', { ...days, fetchedOn: '2026-03-02' })).toBe('fetched');
  });
});
