// @vitest-environment happy-dom
import { effectScope, nextTick, ref } from 'vue';
import { describe, expect, it } from 'vitest';
import { STANDING } from '@core/machine/loop-file/orientation.js';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { settle } from '../../../tests/screens/mountScreen.js';
import exampleText from '../../../examples/two-radiators.json?raw';
import twoLoopsText from '../../../examples/two-loops-one-case.json?raw';
import noReservoirText from '../../../examples/no-reservoir.json?raw';
import { swapBlocks } from '@core/physics/heat/variants.js';
import { TwinEngine, type QuietQuestion } from './twinEngine.js';
import { useAnswer, useTwin, useTwinAnswer } from './useTwin.js';

const read = (text: string): LoopFile => readLoopFile(JSON.parse(text));
function engineOf(loop: LoopFile): TwinEngine {
  const engine = new TwinEngine();
  expect(engine.load(loop)).toBeNull();
  return engine;
}

/** An answer that comes when it is told to. */
function slowly<T>(): { ask: (state: T) => Promise<string>; asked: T[]; answer: (text: string) => Promise<void> } {
  const asked: T[] = [];
  const waiting: ((text: string) => void)[] = [];
  return {
    asked,
    ask: (state) => {
      asked.push(state);
      return new Promise((resolve) => waiting.push(resolve));
    },
    answer: async (text) => {
      waiting.shift()?.(text);
      await settle();
    },
  };
}

/** The process that runs the tests: it would count an expected failure as its own. */
const { process } = globalThis as unknown as {
  process: Record<'once' | 'off', (event: 'unhandledRejection', listener: (reason: unknown) => void) => void>;
};

/** radiators as usual for their place, blocks as estimated */
const USUAL = { air: {}, blockFactors: {} };

const NO_LOAD = { roomC: 24, loadsW: {}, caseHeatW: 60, air: {}, blockFactors: {} };
describe('asking again whenever something changes', () => {
  it('asks one question at a time, and the last state always gets its answer', async () => {
    const scope = effectScope();
    const state = ref(1);
    const { ask, asked, answer } = slowly<{ now: number }>();
    const result = scope.run(() => useAnswer(() => ({ now: state.value }), ask));
    for (const now of [2, 3, 4]) {
      state.value = now;
      await nextTick();
    }
    // a drag of three steps waits behind the first question, and only its end is asked
    expect(asked).toEqual([{ now: 1 }]);
    await answer('for one');
    expect(asked).toEqual([{ now: 1 }, { now: 4 }]);
    await answer('for four');
    expect(result?.value).toBe('for four');
    scope.stop();
  });

  it('has no answer while there is nothing to ask', async () => {
    const scope = effectScope();
    const state = ref<number | null>(null);
    const result = scope.run(() => useAnswer(() => (state.value === null ? null : { now: state.value }), ({ now }) => now * 2)); // prettier-ignore
    await settle();
    expect(result?.value).toBeNull();
    state.value = 21;
    await settle();
    expect(result?.value).toBe(42);
    state.value = null;
    await settle();
    expect(result?.value).toBeNull();
    scope.stop();
  });

  it('goes on after a question that failed', async () => {
    const scope = effectScope();
    const state = ref(1);
    const failures: unknown[] = [];
    const catchIt = (reason: unknown): void => void failures.push(reason);
    process.once('unhandledRejection', catchIt);
    const result = scope.run(() =>
      useAnswer(
        () => ({ now: state.value }),
        ({ now }) => (now === 1 ? Promise.reject(new Error('first fails')) : Promise.resolve(now)),
      ),
    );
    await settle();
    state.value = 2;
    await settle();
    expect(result?.value).toBe(2);
    expect(failures).toEqual([new Error('first fails')]);
    process.off('unhandledRejection', catchIt);
    scope.stop();
  });

  it('waits for the twin’s loop, and asks again with another', async () => {
    const scope = effectScope();
    const loop = ref<LoopFile | null>(null);
    const held = scope.run(() => {
      const twin = useTwin(() => loop.value);
      return { twin, answer: useTwinAnswer(twin, () => ({}), () => twin.engine.advise()) }; // prettier-ignore
    });
    await settle();
    expect(held?.answer.value).toBeNull();
    loop.value = read(exampleText);
    await settle();
    const first = held?.answer.value?.plan.wholeMl as number;
    expect(first).toBeGreaterThan(700);
    loop.value = read(noReservoirText);
    await settle();
    expect(held?.answer.value?.plan.wholeMl).toBeLessThan(first);
    scope.stop();
  });

  it('says in words why a loop cannot be computed', async () => {
    const scope = effectScope();
    const boxless = read(exampleText);
    delete boxless.components[2]?.box;
    const twin = scope.run(() => useTwin(() => boxless));
    await settle();
    expect(twin?.problem.value).toMatch(/^front has no box/);
    expect(twin?.loaded.value).toBe(0);
    scope.stop();
  });
});

describe('the twin of one loop', () => {
  const engine = engineOf(read(exampleText));

  it('refuses to answer before it was given a loop, and says what an empty one lacks', () => {
    expect(() => new TwinEngine().standing(STANDING.upright)).toThrow(/before it was loaded/);
    expect(new TwinEngine().load({ ...read(exampleText), components: [], tubes: [] })).toBe('There are no parts yet.');
  });

  it('draws as many scenes as the plan has stands, ever emptier', () => {
    const { plan, scenes } = engine.advise();
    expect(scenes.length).toBe(plan.stages.length);
    const wet = scenes.map(({ picture }) => picture.fates.filter((fate) => fate === 'liquid').length);
    expect(wet).toEqual([...wet].sort((a, b) => b - a));
  });

  it('fills from the reservoir that is asked for where a case holds two circuits', () => {
    const twoLoops = engineOf(read(twoLoopsText));
    const [first, second] = ['res-processor', 'res-graphics'].map((id) => twoLoops.pourAndPulse(id).simulation?.totalMl as number);
    expect(second).toBeGreaterThan(first as number);
    expect(twoLoops.pourAndPulse(null).simulation?.totalMl).toBe(first);
  });

  it('has one scene at rest and two for every pulse', () => {
    const { simulation, scenes } = engine.pourAndPulse(null);
    expect(scenes.length).toBe(1 + 2 * (simulation?.pulses.length as number));
  });

  it('fills by gravity where there is no reservoir', () => {
    const answer = engineOf(read(noReservoirText)).pourAndPulse(null);
    expect(answer.simulation).toBeNull();
    expect(answer.gravity?.turns.length).toBeGreaterThan(0);
  });

  it('leaves less gas at a faster pump', () => {
    const stays = (speed: number): number =>
      engine.air(STANDING.upright, speed).pockets.reduce((sum, { swept }) => sum + (swept?.staysMl ?? 0), 0);
    expect(stays(1)).toBeLessThan(stays(0.2));
  });

  it('writes the flow of a series loop alike everywhere, and nothing without a curve', () => {
    const flows = engine.figures('flow', 1, NO_LOAD);
    expect(new Set(flows?.values()).size).toBe(1);
    expect(engine.figures('pressure', 1, NO_LOAD)?.get('cpu')).toMatch(/^\d+\.\d kPa$/);
    expect(engine.figures('temperature', 1, { ...NO_LOAD, loadsW: { gpu: 300 } })?.get('gpu')).toMatch(/°C$/);
    const curveless = read(exampleText);
    delete curveless.components[1]?.curve;
    // behind a blocked front it leaves warmer: the drawing goes by what is said of the air
    const leaving = (blockage: number): number =>
      Number.parseFloat(
        engine.figures('temperature', 1, { ...NO_LOAD, loadsW: { gpu: 300 }, air: { front: { from: 'room', to: 'case', blockage } } })?.get('gpu') ?? '0', // prettier-ignore
      );
    expect(leaving(0.7)).toBeGreaterThan(leaving(0));
    expect(engineOf(curveless).figures('flow', 1, NO_LOAD)).toBeNull();
  });

  it('gives the second block of the way the warmer liquid, whichever that is', () => {
    const question = { pumpSpeed: 1, fanSpeed: 0.6, roomC: 22, caseHeatW: 40, loadsW: { cpu: 150, gpu: 300 }, ...USUAL };
    const swapped = engineOf(swapBlocks(read(exampleText)));
    const inlet = (id: string, of: TwinEngine): number =>
      of.heat(question)?.result.parts.find((part) => part.id === id)?.coolantInC as number;
    expect(inlet('cpu', engine)).toBeGreaterThan(inlet('gpu', engine));
    expect(inlet('gpu', swapped)).toBeGreaterThan(inlet('cpu', swapped));
  });

  it('finds a quiet point that depends on limits, not on the speeds of now', () => {
    const question = { roomC: 22, caseHeatW: 40, loadsW: { cpu: 150, gpu: 300 }, ...USUAL };
    const relaxed = engine.quietPoint({ ...question, limitsC: { cpu: 85, gpu: 75 } })?.best;
    const strict = engine.quietPoint({ ...question, limitsC: { cpu: 62, gpu: 58 } })?.best;
    expect(relaxed?.fanSpeed).toBeLessThanOrEqual(strict?.fanSpeed ?? 1);
    expect(engine.quietPoint({ ...question, limitsC: { cpu: 23, gpu: 23 } })?.best).toBeNull();
  });

  it('needs faster fans behind a blocked front', () => {
    const question = { roomC: 22, caseHeatW: 40, loadsW: { cpu: 150, gpu: 300 }, blockFactors: {}, limitsC: { cpu: 75, gpu: 62 } };
    const fans = (air: QuietQuestion['air']): number => engine.quietPoint({ ...question, air })?.best?.fanSpeed ?? 1;
    const open = { from: 'room', to: 'out', blockage: 0 } as const;
    const blocked = { front: { ...open, blockage: 0.6 }, top: { ...open, blockage: 0.6 } };
    expect(fans(blocked)).toBeGreaterThan(fans({ front: open, top: open }));
  });

  it('loses more pressure in the runs to a thick coolant than to water', () => {
    const thick = new TwinEngine();
    thick.load(read(exampleText), { glycol: 'propylene', massFraction: 0.5 });
    const tube = read(exampleText).tubes[2]?.id as string;
    const kpa = (of: TwinEngine): number => Number.parseFloat(of.figures('pressure', 1, NO_LOAD)?.get(tube) ?? '0');
    expect(kpa(thick)).toBeGreaterThan(kpa(engine));
  });
});
