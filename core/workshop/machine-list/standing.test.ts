import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../../base/units/calendar.js';
import { attentionOf, type OpenDue, type SystemState } from '../due-dates/attention.js';
import { linesQuerySchema, placeText } from './linesQuery.js';
import { nameKey } from './nameKey.js';
import { standingOf } from './standing.js';

const TODAY = '2026-03-10';
const due = (kind: OpenDue['kind'], days: number, more: Partial<OpenDue> = {}): OpenDue => ({
  kind,
  dueOn: addDays(TODAY, days),
  postponed: 0,
  firstDueOn: null,
  ...more,
});

describe('where a machine stands in the list, and until when', () => {
  it.each([
    ['a service far off: until it is near', [due('coolant-service', 100)], 'fine', 69],
    ['a service that is near: until its day', [due('coolant-service', 30)], 'soon', 30],
    ['a service that is over: for good', [due('coolant-service', -1)], 'overdue', null],
    ['nothing dated: for good', [], 'unknown', null],
    ['two dates: until the first of them turns', [due('dust-clean', 5), due('coolant-service', 400)], 'fine', 5],
  ] as const)('%s', (_what, dues, attention, days) => {
    const standing = standingOf('in-service', dues, TODAY);
    expect([standing.attention, standing.holdsUntil]).toEqual([attention, days === null ? null : addDays(TODAY, days)]);
  });

  it('holds on every day that it says, whatever is dated', () => {
    const anyDue = fc.record({
      kind: fc.constantFrom('coolant-service', 'settling-check', 'follow-up', 'dust-clean', 'paste-renewal', 'stirring') as fc.Arbitrary<OpenDue['kind']>,
      dueOn: fc.integer({ min: -90, max: 90 }).map((days) => addDays(TODAY, days)),
      postponed: fc.integer({ min: 0, max: 4 }),
      firstDueOn: fc.option(fc.integer({ min: -200, max: 90 }).map((days) => addDays(TODAY, days))),
    }); // prettier-ignore
    const states = fc.constantFrom('planned', 'in-service', 'on-bench', 'waiting', 'retired') as fc.Arbitrary<SystemState>;
    fc.assert(
      fc.property(states, fc.array(anyDue, { maxLength: 4 }), fc.integer({ min: 0, max: 130 }), (state, some, later) => {
        const dues = [...some].sort((a, b) => a.dueOn.localeCompare(b.dueOn));
        const { attention, next, holdsUntil } = standingOf(state, dues, TODAY);
        const day = addDays(TODAY, later);
        if (holdsUntil !== null && day > holdsUntil) return;
        expect(attentionOf(state, dues, day)).toBe(attention);
        expect(standingOf(state, dues, day).next).toBe(next);
      }),
    );
  });

  it('is told by what makes it urgent, before dust that is older', () => {
    const [dust, service] = [due('dust-clean', -200), due('coolant-service', -3)];
    expect(standingOf('in-service', [dust, service], TODAY).next).toBe(service);
    expect(standingOf('in-service', [dust, due('coolant-service', 200)], TODAY).next).toBe(dust);
  });
});

describe('names as they are sorted', () => {
  it('numbers count by their worth, capitals and accents not at all', () => {
    const names = ['Machine 10', 'Éclair', 'machine 9', 'eclipse', 'Zephyr', 'Machine 100'];
    const sorted = [...names].sort((a, b) => (nameKey(a) < nameKey(b) ? -1 : 1));
    expect(sorted).toEqual(['Éclair', 'eclipse', 'machine 9', 'Machine 10', 'Machine 100', 'Zephyr']);
  });
});

describe('what a page of the list is asked for with', () => {
  const read = (query: object): unknown => linesQuerySchema.validate(query).error?.details[0]?.path[0];
  const place = placeText([0, '2026-03-01', 'machine 000000000009', '6f1f0d5e-0000-4000-8000-000000000001']);

  it('takes the place that the page before gave, and the usual page without one', () => {
    expect((linesQuerySchema.validate({ after: place }).value as { after: unknown }).after).toEqual(JSON.parse(place));
    expect(linesQuerySchema.validate({}).value).toEqual({ q: '', coming: false, limit: 50 });
  });

  it.each([
    ['a place that is none', { after: 'next' }, 'after'],
    ['a place with a rank that is none', { after: place.replace('[0', '[99') }, 'after'],
    ['a place on a day that is none', { after: place.replace('03-01', '13-45') }, 'after'],
    ['a place with more than a place has', { after: place.replace(']', ',1]') }, 'after'],
    ['more than a page brings', { limit: 201 }, 'limit'],
    ['an attention that is none', { attention: 'bored' }, 'attention'],
  ])('refuses %s', (_what, query, path) => {
    expect(read(query)).toBe(path);
  });
});
