import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { CAUSE_CHECKS, CHECK_RULES, HEAT_CAUSES, type HeatCause } from './causes.js';
import { causePriors, diagnose, shiftAt } from './diagnose.js';
import { hiddenFaults } from './generatedFaults.js';
import { fitSound, Hydraulics, showAt } from './heatTwin.js';
import type { LoadReading } from './loadReading.js';

const loop = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const fluid = { densityKgM3: 995, viscosityMPaS: 0.8 };
const sound: LoadReading = {
  roomC: 22,
  powersW: { cpu: 150, gpu: 300 },
  partsC: { cpu: 60, gpu: 66 },
  coolantC: 34,
  flowLph: 180,
  pumpSpeed: 0.7,
  fanSpeed: 0.6,
};
const hydraulics = new Hydraulics(loop, fluid);
const twin = fitSound(hydraulics, sound);
/** as the machine would be read, without an error, where a cause lies `share` of the way through its range */
const later = (cause: HeatCause, part: string | null, share = 0.5, day: Partial<LoadReading> = {}): LoadReading => {
  const conditions = { ...sound, ...day };
  const shown = twin && showAt(twin, conditions, shiftAt(cause, part, share));
  return { ...conditions, partsC: shown?.partsC ?? {}, coolantC: shown?.coolantC, flowLph: shown?.flowLph };
};
const likelihood = (after: LoadReading, seen: string[] = []) => {
  const found = diagnose(loop, fluid, sound, after, seen);
  const of = (...causes: HeatCause[]): number => (found?.causes ?? []).filter(({ cause }) => causes.includes(cause)).reduce((sum, { probability }) => sum + probability, 0); // prettier-ignore
  return { found, of };
};

describe('the twin of the sound days', () => {
  it('says what was read then', () => {
    const shown = twin && showAt(twin, sound);
    expect(shown?.flowLph).toBeCloseTo(180, 2);
    expect(shown?.coolantC).toBeCloseTo(34, 3);
    expect(shown?.partsC.cpu).toBeCloseTo(60, 6);
    expect(shown?.partsC.gpu).toBeCloseTo(66, 6);
  });

  it('of a reading that was still warming stands for its end, and shows the same again', () => {
    const short = { ...sound, minutes: 12 };
    const own = fitSound(hydraulics, short);
    expect(own && showAt(own, short)?.partsC.cpu).toBeCloseTo(60, 6);
    expect(own && showAt(own, { ...short, minutes: 90 })?.partsC.cpu).toBeGreaterThan(70);
  });
});

describe('what makes a machine worse', () => {
  it('is found as well where its radiators breathe as somebody said, behind a panel and from a warmed case', () => {
    const breathing = { air: { front: { from: 'case', to: 'out', blockage: 0.5 } as const }, caseHeatW: 120 };
    const own = fitSound(new Hydraulics(loop, fluid, breathing), sound);
    expect(own && showAt(own, sound)?.coolantC).toBeCloseTo(34, 3);
    const shown = own && showAt(own, sound, shiftAt('dust', 'front', 0.05));
    const after = { ...sound, partsC: shown?.partsC ?? {}, coolantC: shown?.coolantC, flowLph: shown?.flowLph };
    const found = diagnose(loop, fluid, sound, after, [], undefined, breathing);
    expect(found?.causes[0]).toMatchObject({ cause: 'dust', part: 'front' });
    expect(found?.causes.slice(0, 3)).toContainEqual(expect.objectContaining({ cause: 'fan', part: 'front' }));
    expect(found?.explained).toBe(true);
  });

  it('is nothing where room and watts explain it', () => {
    const hot = later('nothing', null, 0, { roomC: 29, powersW: { cpu: 170, gpu: 330 } });
    const { found, of } = likelihood(hot);
    expect(found?.causes[0]?.cause).toBe('nothing');
    expect(of('nothing')).toBeGreaterThan(0.5);
  });

  it.each([
    ['paste', 'cpu'],
    ['paste', 'gpu'],
    ['block', 'gpu'],
    ['air-inside', null],
  ] as const)('names %s of %s', (cause, part) => {
    const { found } = likelihood(later(cause, part));
    expect(found?.causes[0]).toMatchObject({ cause, part });
    expect(found?.causes[0]?.probability).toBeGreaterThan(0.6);
  });

  it('does not pretend to tell dust from a slow fan, or a pump from a kink, until somebody looked', () => {
    const dusty = later('dust', 'top', 0.3);
    const [unseen, still, turning] = [likelihood(dusty), likelihood(dusty, ['fan-still']), likelihood(dusty, ['fans-turn', 'fins-dusty'])];
    expect(unseen.of('dust', 'fan')).toBeGreaterThan(0.9);
    expect(unseen.of('dust')).toBeCloseTo(unseen.of('fan'), 9);
    expect(still.of('fan')).toBeGreaterThan(0.9);
    expect(turning.of('dust')).toBeGreaterThan(0.9);
    const slow = likelihood(later('pump', null, 0.4));
    expect(slow.of('pump')).toBeCloseTo(slow.of('kink'), 9);
    expect(likelihood(later('pump', null, 0.4), ['tube-kinked']).of('kink')).toBeGreaterThan(0.8);
  });

  it('adds up to one over every cause at every part, the likeliest first', () => {
    const { found } = likelihood(later('coolant', null, 0.8));
    const all = found?.causes ?? [];
    expect(all.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 12);
    expect(new Set(all.map(({ cause }) => cause))).toEqual(new Set(HEAT_CAUSES));
    expect(all.map(({ probability }) => probability)).toEqual([...all.map(({ probability }) => probability)].sort((a, b) => b - a));
  });

  it('is not explained by one cause where no one cause does it', () => {
    expect(likelihood(later('dust', 'top', 0.3)).found?.explained).toBe(true);
    const far = later('nothing', null);
    expect(likelihood({ ...far, coolantC: (far.coolantC ?? 0) + 25 }).found?.explained).toBe(false);
  });

  it('is hardly known from the parts alone', () => {
    const bare = (reading: LoadReading): LoadReading => ({ ...reading, coolantC: undefined, flowLph: undefined });
    const found = diagnose(loop, fluid, bare(sound), bare(later('dust', 'top', 0.5)));
    expect(found?.causes[0]?.probability).toBeLessThan(0.6);
  });

  it('cannot be told where nothing flows', () => {
    expect(diagnose(loop, fluid, { ...sound, flowLph: undefined, pumpSpeed: 0 }, { ...sound, pumpSpeed: 0 })).toBeNull();
  });
});

describe('the next look', () => {
  it('is the one that tells most a minute, and never one that was made', () => {
    const { found } = likelihood(later('dust', 'top', 0.3));
    const next = found?.next ?? [];
    expect(next[0]?.check).toBe('look-at-fans');
    expect(next.map(({ bits, minutes }) => bits / minutes)).toEqual([...next.map(({ bits, minutes }) => bits / minutes)].sort((a, b) => b - a)); // prettier-ignore
    const again = likelihood(later('dust', 'top', 0.3), [CHECK_RULES['look-at-fans'].sound]).found?.next ?? [];
    expect(again.map(({ check }) => check)).not.toContain('look-at-fans');
    expect(again).toHaveLength(CAUSE_CHECKS.length - 1);
  });

  it('takes no more away than there is', () => {
    const { found } = likelihood(later('kink', null, 0.5));
    const entropy = (found?.causes ?? []).reduce((sum, { probability: p }) => (p > 0 ? sum - p * Math.log2(p) : sum), 0);
    for (const { bits } of found?.next ?? []) {
      expect(bits).toBeGreaterThanOrEqual(0);
      expect(bits).toBeLessThanOrEqual(entropy);
    }
  });
});

it('finds a hidden fault among the first three of generated machines, and is as sure as it is right', () => {
  const faults = hiddenFaults(loop, fluid, 60, 3);
  const one = (cause: HeatCause): HeatCause => (cause === 'fan' ? 'dust' : cause === 'kink' ? 'pump' : cause);
  let [first, three, claimed] = [0, 0, 0];
  for (const { cause, before, after } of faults) {
    const sums = new Map<HeatCause, number>();
    for (const each of diagnose(loop, fluid, before, after)?.causes ?? []) sums.set(one(each.cause), (sums.get(one(each.cause)) ?? 0) + each.probability); // prettier-ignore
    const ranked = [...sums].sort((a, b) => b[1] - a[1]);
    claimed += ranked[0]?.[1] ?? 0;
    if (ranked[0]?.[0] === one(cause)) first += 1;
    if (ranked.slice(0, 3).some(([each]) => each === one(cause))) three += 1;
  }
  expect(three / faults.length).toBeGreaterThanOrEqual(0.95);
  expect(first / faults.length).toBeGreaterThan(0.75);
  // what it claims of its first is what comes true, as far as sixty machines tell
  expect(Math.abs(first - claimed) / faults.length).toBeLessThan(0.12);
});

describe('what speaks for a cause, and what against it', () => {
  const found = diagnose(loop, fluid, sound, later('block', 'gpu'));
  const of = (cause: HeatCause, part: string | null) => found?.causes.find((each) => each.cause === cause && each.part === part);
  const speaking = (cause: HeatCause, part: string | null, speaks: string): string[] =>
    (of(cause, part)?.evidence ?? []).filter((each) => each.speaks === speaks).map(({ figure, part: at }) => at ?? figure);

  it('is told figure by figure: read, as a sound machine would show it, as this cause shows it', () => {
    expect(speaking('block', 'gpu', 'for')).toEqual(expect.arrayContaining(['flow', 'gpu']));
    expect(speaking('block', 'gpu', 'against')).toEqual([]);
    const flow = of('block', 'gpu')?.evidence.find(({ figure }) => figure === 'flow');
    expect(flow?.sound).toBeCloseTo(180, 0);
    expect(flow?.read).toBeLessThan(170);
    expect(Math.abs((flow?.shows ?? 0) - (flow?.read ?? 0))).toBeLessThan(2 * (flow?.sd ?? 0));
    // paste leaves the flow alone: a flow that fell speaks against it, and so does it against nothing at all
    expect(speaking('paste', 'gpu', 'against')).toContain('flow');
    expect(speaking('nothing', null, 'against')).toEqual(expect.arrayContaining(['flow', 'gpu']));
  });

  it('counts what was seen, where it tells one from another', () => {
    const seen = diagnose(loop, fluid, sound, later('pump', null), [CHECK_RULES['listen-to-pump'].found]);
    expect(seen?.causes.find(({ cause }) => cause === 'pump')?.signs).toEqual([
      { sign: CHECK_RULES['listen-to-pump'].found, speaks: 'for' },
    ]);
    expect(seen?.causes.find(({ cause }) => cause === 'paste')?.signs[0]?.speaks).not.toBe('for');
  });
});

describe('what a workshop found before', () => {
  it('moves what is thought likely, and stays a share of one', () => {
    expect(causePriors({}).dust).toBeCloseTo(1 / HEAT_CAUSES.length, 12);
    const priors = causePriors({ paste: 12, dust: 3 });
    expect(Object.values(priors).reduce((sum, each) => sum + each, 0)).toBeCloseTo(1, 12);
    expect(priors.paste).toBeGreaterThan(2 * priors.dust);
    expect(priors.kink).toBeGreaterThan(0.05);
  });

  it('counts where figures say little, and gives way where they say much', () => {
    const often = causePriors({ fan: 30 });
    const chance = (after: LoadReading, cause: HeatCause, priors?: typeof often): number =>
      diagnose(loop, fluid, sound, after, [], priors)?.causes.filter((each) => each.cause === cause).reduce((sum, { probability }) => sum + probability, 0) ?? 0; // prettier-ignore
    // no figure tells dust from a fan: what was found before does
    const dusty = later('dust', loop.components.find(({ kind }) => kind === 'radiator')?.id ?? null);
    expect(chance(dusty, 'fan', often)).toBeGreaterThan(3 * chance(dusty, 'dust', often));
    expect(chance(dusty, 'fan')).toBeCloseTo(chance(dusty, 'dust'), 2);
    expect(chance(later('block', 'gpu'), 'block', often)).toBeGreaterThan(0.8);
  });
});
