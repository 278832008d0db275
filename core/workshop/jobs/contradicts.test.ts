import { describe, expect, it } from 'vitest';
import { contradictionOf } from './contradicts.js';

const days = (more: Partial<Parameters<typeof contradictionOf>[0]>) => contradictionOf({ neededBy: null, partsOn: null, dropOffOn: null, windows: [], ...more }); // prettier-ignore
const window = { from: '2026-03-10', to: '2026-03-12' };

describe('the days of a job', () => {
  it('may all hold', () => {
    expect(days({})).toBeNull();
    expect(days({ neededBy: '2026-03-20', partsOn: '2026-03-11', dropOffOn: '2026-03-10', windows: [window] })).toBeNull();
    expect(days({ neededBy: '2026-03-10', dropOffOn: '2026-03-10' })).toBeNull();
  });

  it.each([
    ['needed again before it comes in', { neededBy: '2026-03-09', dropOffOn: '2026-03-10' }, 'neededBy', 'before-it-comes'],
    ['needed again before its parts are there', { neededBy: '2026-03-09', partsOn: '2026-03-10' }, 'neededBy', 'before-its-parts'],
    ['only free before it comes in', { windows: [window], dropOffOn: '2026-03-13' }, 'windows', 'before-it-comes'],
    ['only free before its parts are there', { windows: [window], partsOn: '2026-03-13' }, 'windows', 'before-its-parts'],
    ['only free after it is needed', { windows: [window], neededBy: '2026-03-09' }, 'windows', 'after-it-is-needed'],
  ] as const)('contradict each other: %s', (_, more, field, why) => expect(days(more)).toMatchObject({ field, why }));

  it('hold where one of several windows does', () => {
    expect(days({ windows: [window, { from: '2026-04-01', to: '2026-04-03' }], partsOn: '2026-03-20' })).toBeNull();
  });
});
