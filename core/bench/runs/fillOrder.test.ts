import { readingAs, USUAL_READING } from '../../base/units/reading.js';
import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { COOLANT, procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import { fillOrderWords } from '../../edge/words/filling.js';
import { buildProcedure } from '../procedures/buildProcedure.js';
import { fillFromNow, fillOrder, levelWatch, type FillOrder } from './fillOrder.js';

const facts = procedureOf().facts;
const mark = facts?.reservoir?.fillMarkMl ?? 0;
const low = facts?.reservoir?.lowMarkMl ?? 0;
const filling = (): TestRun => new TestRun().upTo('fill').say(COOLANT);
const orderOf = (run: TestRun, measuredMl: number | null = null): FillOrder =>
  fillOrder(run.procedure, run.state, run.nowMs, measuredMl) as FillOrder;

describe('what the hands do next while a loop is filled', () => {
  it('is the first pour: up to the mark and what fills by itself, two standard deviations under the lid', () => {
    const order = orderOf(filling());
    expect(order.do).toBe('pour');
    const { passiveMl } = fillFromNow(filling().procedure, filling().state) ?? { passiveMl: 0 };
    expect(order.do === 'pour' && order.mostMl).toBeGreaterThan(mark);
    expect(order.do === 'pour' && order.mostMl).toBeLessThanOrEqual(passiveMl + 1);
  });

  it('is never a pour into a reservoir that stands at its mark', () => {
    const run = filling().say({ type: 'pour', volumeMl: 289, toMark: true });
    expect(orderOf(run).do).toBe('pump-on');
    expect(orderOf(run.say({ type: 'level', levelMl: mark })).do).toBe('pump-on');
  });

  it('is to read the level before the pump starts on a level that nobody knows', () => {
    const run = filling().say({ type: 'pour', volumeMl: 289, toMark: true });
    run.say({ type: 'pump', on: true }).wait(3).say({ type: 'pump', on: false });
    const order = orderOf(run);
    expect(['read-level', 'pour']).toContain(order.do);
    if (order.do === 'pour') expect(order.mostMl).toBeLessThanOrEqual((facts?.reservoir?.fillMarkMl ?? 0) + 1);
    run.say({ type: 'level', levelMl: mark - 90 });
    expect(orderOf(run)).toMatchObject({ do: 'pour' });
  });

  it('goes by the level sensor where one speaks', () => {
    const run = filling().say({ type: 'pour', volumeMl: 289, toMark: true });
    const order = orderOf(run, mark - 80);
    expect(order.do === 'pour' && order.mostMl).toBeGreaterThan(60);
    expect(order.do === 'pour' && order.mostMl).toBeLessThan(90);
    expect(orderOf(run, mark + 25)).toMatchObject({ do: 'draw-off' });
  });

  it('slows the pump so that a hand that is late by a second still finds the outlet covered', () => {
    const run = filling().say({ type: 'pour', volumeMl: 289, toMark: true });
    const order = orderOf(run);
    expect(order.do).toBe('pump-on');
    if (order.do !== 'pump-on') return;
    expect(order.offAtMl).toBeGreaterThanOrEqual(low);
    // the whole column would fall back between pulses: it is poured while the pump runs, in one go
    expect(order.pour?.ml).toBeGreaterThan(100);
    expect(order.pour?.upToMl).toBeLessThanOrEqual(mark);
    expect(order.speed).toBeLessThan(1);
  });

  it('ends when liquid comes back and the level stays, whatever was predicted', () => {
    const run = filling().say({ type: 'pour', volumeMl: 289, toMark: true });
    run.say({ type: 'pump', on: true }).say({ type: 'pour', volumeMl: 200 }).say({ type: 'returned' }).say({ type: 'pump', on: false });
    expect(orderOf(run).do).toBe('read-level');
    // poured again, it must stay while liquid goes round
    run.say({ type: 'level', levelMl: mark - 30 }).say({ type: 'pour', volumeMl: 30, toMark: true });
    expect(orderOf(run)).toMatchObject({ do: 'pump-on', pour: null });
    run.say({ type: 'pump', on: true }).wait(62).say({ type: 'pump', on: false }).say({ type: 'level', levelMl: mark });
    expect(orderOf(run)).toEqual({ do: 'finish' });
    run.tick('fill');
    // far less than planned went in: that is told, and stops nobody
    expect(run.try({ type: 'step-done', step: 'fill' })).toBeNull();
  });

  it('slows down a pump whose squeeze pulls the level to the low mark at once', () => {
    const run = filling().say({ type: 'pour', volumeMl: 289, toMark: true }).say({ type: 'pump', on: true });
    run.say({ type: 'returned' }).say({ type: 'pump', on: false });
    run.say({ type: 'level', levelMl: mark - 30 }).say({ type: 'pour', volumeMl: 30, toMark: true });
    const speeds = [0, 1, 2].map(() => {
      const order = orderOf(run);
      run.say({ type: 'pump', on: true }).wait(3).try({ type: 'pump', on: false });
      run.say({ type: 'level', levelMl: mark });
      return order.do === 'pump-on' ? (order.speed ?? 1) : 0;
    });
    expect(speeds[1]).toBeLessThan(speeds[0] as number);
    expect(speeds[2]).toBeLessThan(speeds[1] as number);
  });

  it('says so where the pump cannot lift it', () => {
    const loop = usualLoop();
    const weak = {
      ...loop,
      components: loop.components.map((part) => (part.kind === 'pump' ? { ...part, curve: part.curve?.map(([lph, kpa]) => [lph, kpa / 40] as const) } : part)), // prettier-ignore
    };
    const procedure = buildProcedure({ loop: weak, schools: filling().procedure.schools, order: null, coolantName: null });
    const run = new TestRun(procedure).upTo('fill').say(COOLANT).say({ type: 'pour', volumeMl: 289, toMark: true });
    const order = orderOf(run);
    expect(order).toMatchObject({ do: 'cannot-prime' });
    expect(fillOrderWords(order, procedure).how).toContain('it does not prime');
  });

  it('is to shut what was left open, before anything is poured', () => {
    const run = filling();
    const { ports = [], joints = [] } = run.procedure.facts ?? {};
    const valve = ports.find((port) => port.valve)?.name ?? '';
    const cap = ports.find(({ ofReservoir }) => ofReservoir)?.name ?? '';
    run.say({ type: 'port', port: valve, open: true }).say({ type: 'port', port: cap, open: true });
    expect(orderOf(run)).toEqual({ do: 'shut', ports: [valve], joints: [] });
    run.say({ type: 'port', port: valve, open: false }).say({ type: 'joint', joint: joints[0]?.id ?? '', open: true });
    expect(orderOf(run)).toEqual({ do: 'shut', ports: [], joints: [joints[0]?.id] });
    run.say({ type: 'joint', joint: joints[0]?.id ?? '', open: false });
    expect(orderOf(run).do).toBe('pour');
  });

  it('is nothing where heights are not on record', () => {
    const loop = usualLoop();
    const bare = { ...loop, components: loop.components.map(({ box: _box, ...part }) => part) };
    const procedure = buildProcedure({ loop: bare, schools: filling().procedure.schools, order: null, coolantName: null });
    expect(fillOrder(procedure, new TestRun(procedure).state, 0)).toBeNull();
  });
});

describe('an order in words', () => {
  it('has one thing big, and says how', () => {
    const orders: FillOrder[] = [
      { do: 'pour', mostMl: 120.4, upToMl: facts?.reservoir?.fillMarkMl ?? 0 },
      { do: 'pour', mostMl: 90, upToMl: 110 },
      { do: 'shut', ports: [facts?.ports[0]?.name ?? ''], joints: [] },
      { do: 'read-level' },
      { do: 'draw-off', ml: 30, downToMl: 120 },
      { do: 'pump-on', runS: 3.25, speed: 0.5, offAtMl: 80, pour: null },
      { do: 'pump-on', runS: 20, speed: null, offAtMl: 80, pour: { ml: 300, upToMl: 220 } },
      { do: 'pump-off', inS: 12 },
      { do: 'pour-running', upToMl: 220 },
      { do: 'finish' },
      { do: 'cannot-prime', liftMm: 420, shutoffMm: 300 },
    ];
    const words = orders.map((order) => fillOrderWords(order, { facts }));
    expect(words.map(({ big }) => big)).toEqual(['120', '90', 'Shut', 'Read', '30', '3.3', '300', '12', 'Pour', 'Full', '420']);
    expect(words[1]?.how).toContain('110 mL in the reservoir and no further');
    expect(words[2]?.small).toBe(facts?.ports[0]?.label);
    expect(words[5]?.how).toMatch(/^Set the pump to 50 % first\..*80 mL/);
    for (const { how } of words) expect(how).toMatch(/[.]$/);
  });
});

describe('how often the level is looked at while the pump runs', () => {
  it('goes by what the book leaves room for, and by the rise at the stops once there is less', () => {
    const { procedure, state, nowMs } = new TestRun().upTo('bleed').say({ type: 'level', levelMl: mark });
    const byBook = levelWatch(procedure, state, nowMs);
    expect(byBook?.gasMl).toBeGreaterThan(20);
    expect(levelWatch(procedure, state, nowMs, { airAtMostMl: 3 })).toEqual({ ...byBook, gasMl: 3, everyS: null });
    // a stop says nothing of what the book knows not to be there
    expect(levelWatch(procedure, state, nowMs, { airAtMostMl: 5000 })).toEqual(byBook);
  });

  it('has its figure in the unit that stands beside it: nobody pours a hundred ounces for a hundred millilitres', () => {
    const ounces = { ...USUAL_READING, volume: 'fl oz', length: 'in' } as const;
    const orders: FillOrder[] = [
      { do: 'pour', mostMl: 120, upToMl: 110 },
      { do: 'draw-off', ml: 120, downToMl: 120 },
      { do: 'pump-on', runS: 20, speed: null, offAtMl: 80, pour: { ml: 120, upToMl: 220 } },
      { do: 'cannot-prime', liftMm: 508, shutoffMm: 300 },
    ];
    const words = readingAs(ounces, () => orders.map((order) => fillOrderWords(order, { facts })));
    expect(words.map(({ big }) => Number(big))).toEqual([4.1, 4.1, 4.1, 20]);
    for (const { small } of words.slice(0, 3)) expect(small).toMatch(/^fl oz /);
    expect(words[3]?.small).toMatch(/^in /);
  });
});
