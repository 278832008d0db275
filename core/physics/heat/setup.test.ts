import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { pathsOf } from '../../../tests/paths.js';
import { airUntold, given, setupOf } from './setup.js';
import { heatSetupSchema } from './setupSchema.js';

const loop = usualLoop();
const radiators = loop.components.filter(({ kind }) => kind === 'radiator').map(({ id }) => id);
const air = { from: 'case', to: 'out', blockage: 0.2 } as const;

describe('what is said of a loop’s air and load', () => {
  it('is usual until somebody says otherwise, and may be stored as it stands', () => {
    const usual = setupOf(loop, null);
    expect(usual).toMatchObject({ roomC: 24, caseHeatW: 60, fanSpeed: 0.5, air: {} });
    expect(Object.values(usual.loadsW).sort()).toEqual([150, 340]);
    expect(pathsOf(heatSetupSchema, usual)).toEqual([]);
    expect(pathsOf(heatSetupSchema, { ...usual, fanSpeed: 1.2, air: { front: { ...air, to: 'attic' } } })).toEqual(['fanSpeed', 'air.front.to']); // prettier-ignore
  });

  it('keeps what was said of parts that are still there, an empty field as well', () => {
    const [block] = Object.keys(setupOf(loop, null).loadsW) as [string];
    const [radiator] = radiators as [string];
    const kept = { ...setupOf(loop, null), roomC: 30, loadsW: { [block]: null, gone: 10 }, air: { [radiator]: air, gone: air } };
    const own = setupOf(loop, kept);
    expect(own.roomC).toBe(30);
    expect(own.loadsW[block]).toBeNull();
    expect(Object.keys(given(own.loadsW))).toHaveLength(1);
    expect(own.air).toEqual({ [radiator]: air });
  });

  it('names radiators of which nobody says how they breathe', () => {
    const placeless = { ...loop, components: loop.components.map(({ place: _, ...part }) => part) };
    expect(airUntold(loop, setupOf(loop, null))).toEqual([]);
    expect(airUntold(placeless, setupOf(placeless, null))).toEqual(radiators);
    expect(airUntold(placeless, { air: { [radiators[0] as string]: air } })).toEqual(radiators.slice(1));
  });
});
