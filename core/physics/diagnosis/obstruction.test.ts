import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { fitSound, Hydraulics, showAt } from './heatTwin.js';
import type { LoadReading } from './loadReading.js';
import { obstructionOf } from './obstruction.js';

const loop = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const fluid = { densityKgM3: 995, viscosityMPaS: 0.8 };
const sound: LoadReading = { roomC: 22, powersW: { cpu: 150 }, partsC: { cpu: 60 }, flowLph: 180, pumpSpeed: 0.7 };

/** The loop with a resistance of its own in one part that all of the flow goes through. */
function choked(part: string, quadratic: number): LoopFile {
  return {
    ...loop,
    components: loop.components.map((each) => {
      if (each.id !== part || !each.resistance || 'points' in each.resistance) return each;
      const { linear_kpa_per_lpm, quadratic_kpa_per_lpm2 } = each.resistance;
      return { ...each, resistance: { linear_kpa_per_lpm, quadratic_kpa_per_lpm2: quadratic_kpa_per_lpm2 + quadratic } };
    }),
  };
}

describe('the obstruction behind a flow that fell', () => {
  const twin = fitSound(new Hydraulics(loop, fluid), sound);
  it.each([0.6, 1, 4])('of %d kPa/(L/min)² is found again, wherever it sits', (quadratic) => {
    const own = twin && { ...twin, hydraulics: new Hydraulics(choked('cpu', quadratic), fluid) };
    const now = { ...sound, flowLph: (own && showAt(own, sound)?.flowLph) ?? 0 };
    const found = obstructionOf(loop, fluid, sound, now);
    expect((found?.quadratic ?? 0) / quadratic).toBeCloseTo(1, 2);
    expect(found?.kpa).toBeCloseTo(quadratic * (now.flowLph / 60) ** 2, 1);
    expect(found?.left).toBeCloseTo(now.flowLph / 180, 6);
    expect(found?.sd).toBeGreaterThan(0);
  });

  it('is none where the flow stands, the pump is set otherwise, or nobody measured', () => {
    expect(obstructionOf(loop, fluid, sound, { ...sound, flowLph: 175 })).toBeNull();
    expect(obstructionOf(loop, fluid, sound, { ...sound, flowLph: 120, pumpSpeed: 0.5 })).toBeNull();
    expect(obstructionOf(loop, fluid, sound, { ...sound, flowLph: undefined })).toBeNull();
  });
});
