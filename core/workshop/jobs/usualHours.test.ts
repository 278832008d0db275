import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { outlineLoop } from '../../machine/loop-file/outline.js';
import { JOB_KIND_KEYS, JOB_KINDS } from '../job-kinds/kinds.js';
import { usualHours } from './usualHours.js';

const loop = usualLoop();
const radiator = loop.components.find(({ kind }) => kind === 'radiator') as (typeof loop.components)[number];
const block = loop.components.find(({ kind }) => kind === 'block') as (typeof loop.components)[number];
const grown = { ...loop, components: [...loop.components, { ...radiator, id: 'third' }, { ...block, id: 'second-card' }] };

describe('hours of a job', () => {
  it('grow with what is in the machine, most where all of it is opened', () => {
    for (const kind of JOB_KIND_KEYS) expect(usualHours(kind, grown), kind).toBeGreaterThanOrEqual(usualHours(kind, loop));
    expect(usualHours('strip-clean', grown) - usualHours('strip-clean', loop)).toBeGreaterThan(2);
    expect(usualHours('top-up', grown)).toBe(usualHours('top-up', loop));
  });

  it('are those of a usual machine where nobody drew what is in it', () => {
    const stated = outlineLoop('Stated', { volumeMl: 900, tube: null });
    for (const kind of JOB_KIND_KEYS) expect(usualHours(kind, stated), kind).toBe(JOB_KINDS[kind].hours.soft);
  });

  it('never shrink below what laying out, draining and testing take in any machine', () => {
    const bare = { components: [], tubes: [] };
    for (const kind of JOB_KIND_KEYS) expect(usualHours(kind, bare), kind).toBeGreaterThan(0);
    expect(usualHours('strip-clean', bare)).toBeCloseTo(4.75, 5);
  });
});
