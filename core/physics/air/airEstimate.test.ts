import { describe, expect, it } from 'vitest';
import { seededRandom, type Random } from '../../base/random/random.js';
import { STANDARD_ATMOSPHERE_KPA } from '../../base/units/physics.js';
import { airLeft, type CandidatePocket, type LevelledCycle, type RiseModel } from './airEstimate.js';

/** an exact level: the band is then the place's and the tubes' alone */
const EXACT_MM = 0.01;
const cycle = (rise: number, levelSdMm = EXACT_MM): LevelledCycle => ({
  runningMm: 100,
  stoppedMm: 100 + rise,
  bubbles: false,
  noise: false,
  levelSdMm,
});
const one: RiseModel = { areaMm2: 2600, pockets: [{ parts: ['top'], volumeMl: 90, runGaugeKpa: 22, offGaugeKpa: 2 }], stretchMl: 0 };
const lastOf = (model: RiseModel, cycles: readonly LevelledCycle[], missing?: { ml: number; sdMl: number }) => {
  const { cycles: told } = airLeft(model, cycles, missing ?? null);
  return told.at(-1) as (typeof told)[number];
};
/** Boyle: V_off = ΔV·p_run/(p_run − p_off) */
const boyleMl = (riseMm: number, areaMm2 = 2600, runKpa = 22, offKpa = 2): number =>
  (((riseMm * areaMm2) / 1000) * (runKpa + STANDARD_ATMOSPHERE_KPA)) / (runKpa - offKpa);

describe('air left, from the rise at stop', () => {
  it('lies about Boyle’s volume where place and level are known', () => {
    const { lowMl, middleMl, highMl } = lastOf(one, [cycle(2)]);
    expect(Math.abs(middleMl - boyleMl(2))).toBeLessThan(3);
    expect(lowMl).toBeLessThan(boyleMl(2));
    expect(highMl).toBeGreaterThan(boyleMl(2));
  });

  it('is wider where the gas may sit in places that feel the pump otherwise', () => {
    const two = { ...one, pockets: [...one.pockets, { parts: ['gpu'], volumeMl: 80, runGaugeKpa: 12, offGaugeKpa: 2 }] };
    const [known, unknown] = [lastOf(one, [cycle(1)]), lastOf(two, [cycle(1)])];
    expect(unknown.highMl - unknown.lowMl).toBeGreaterThan(1.5 * (known.highMl - known.lowMl));
    expect(unknown.highMl).toBeGreaterThan(boyleMl(1, 2600, 12, 2) - 3);
  });

  it('takes the tubes’ stretch off first: two metres of 10/16 look like twenty millilitres of air', () => {
    expect(lastOf({ ...one, stretchMl: 3.5 }, [cycle(3.5 / 2.6)]).lowMl).toBe(0);
    expect(lastOf(one, [cycle(3.5 / 2.6)]).lowMl).toBeGreaterThan(15);
  });

  it('is never more than the pockets hold, nor than the book says is missing', () => {
    expect(lastOf(one, [cycle(20, 2)]).highMl).toBeLessThanOrEqual(90);
    const free = lastOf(one, [cycle(3, 2)]);
    expect(lastOf(one, [cycle(3, 2)], { ml: 10, sdMl: 3 }).highMl).toBeLessThan(Math.min(20, free.highMl));
  });

  it('is one estimate: stop by stop the band of a level read by eye narrows', () => {
    const told = airLeft(
      one,
      Array.from({ length: 8 }, () => cycle(2, 2)),
    ).cycles;
    const width = (at: number): number => (told[at]?.highMl ?? 0) - (told[at]?.lowMl ?? 0);
    expect(width(7)).toBeLessThan(0.8 * width(0));
  });

  it('falls from cycle to cycle while air comes home', () => {
    expect(airLeft(one, [cycle(4)]).trendMl).toBeNull();
    expect(airLeft(one, [cycle(4), cycle(3), cycle(2)]).trendMl).toBeLessThan(-3);
    expect(Math.abs(airLeft(one, [cycle(2), cycle(2)]).trendMl as number)).toBeLessThan(2);
  });

  it('says nothing where no place feels the pump', () => {
    const still = { ...one, pockets: [{ parts: ['x'], volumeMl: 5, runGaugeKpa: 2.2, offGaugeKpa: 2 }] };
    expect(airLeft(still, [cycle(3)])).toEqual({ cycles: [], trendMl: null });
  });
});

describe('its nine-in-ten bands over simulated bleedings', () => {
  type Kind = 'any amount' | 'much' | 'stubborn' | 'in two places';
  /** Levels as they would be read, and the gas that was truly there. */
  function bleeding(kind: Kind, levelSdMm: number, random: Random): { model: RiseModel; cycles: LevelledCycle[]; truthMl: number[] } {
    const pockets: CandidatePocket[] = Array.from({ length: 1 + Math.floor(random.between(0, 4)) }, () => ({
      parts: ['part'],
      volumeMl: random.between(8, 120),
      runGaugeKpa: random.between(8, 30),
      offGaugeKpa: random.between(0, 4),
    }));
    const model = { areaMm2: random.between(1500, 4000), pockets, stretchMl: random.between(0, 4) };
    const [own, other] = [random.pick(pockets), random.pick(pockets)];
    let ml = kind === 'much' ? random.between(0, own.volumeMl) : Math.exp(random.between(0, Math.log(own.volumeMl)));
    const modulus = Math.max(0, 1 + 0.3 * random.normal());
    const share = kind === 'in two places' ? random.next() : 1;
    const felt = ({ runGaugeKpa: run, offGaugeKpa: off }: CandidatePocket): number => (run - off) / (run + STANDARD_ATMOSPHERE_KPA);
    const truthMl: number[] = [];
    const cycles = Array.from({ length: 3 + Math.floor(random.between(0, 6)) }, (_, at) => {
      if (at > 0) ml *= kind === 'stubborn' || random.next() < 0.4 ? random.between(0.88, 1) : random.between(0.1, 1);
      truthMl.push(ml);
      const riseMm = ((ml * (share * felt(own) + (1 - share) * felt(other)) + modulus * model.stretchMl) * 1000) / model.areaMm2;
      const [runningMm, stoppedMm] = [100 + levelSdMm * random.normal(), 100 + riseMm + levelSdMm * random.normal()];
      return { runningMm, stoppedMm, bubbles: false, noise: false, levelSdMm };
    });
    return { model, cycles, truthMl };
  }

  it.each([
    ['by a sensor', 0.5],
    ['by eye', 2],
  ])('hold in 85 to 95 of 100: levels read %s', (_, levelSdMm) => {
    const kinds: Kind[] = ['any amount', 'much', 'stubborn', 'in two places'];
    const shares = kinds.map((kind) => {
      let [inside, all] = [0, 0];
      for (let seed = 1; seed <= 150; seed += 1) {
        const { model, cycles, truthMl } = bleeding(kind, levelSdMm, seededRandom(31 * seed));
        airLeft(model, cycles).cycles.forEach(({ lowMl, highMl }, at) => {
          all += 1;
          if ((truthMl[at] as number) >= lowMl && (truthMl[at] as number) <= highMl) inside += 1;
        });
      }
      return inside / all;
    });
    expect(Math.min(...shares)).toBeGreaterThanOrEqual(0.85);
    const mean = shares.reduce((sum, each) => sum + each, 0) / shares.length;
    expect(mean).toBeGreaterThanOrEqual(0.85);
    expect(mean).toBeLessThanOrEqual(0.95);
  });
});
