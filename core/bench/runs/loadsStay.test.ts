import { describe, expect, it } from 'vitest';
import { procedureOf, TestRun, COOLANT } from '../../../tests/bench/testRun.js';

const allowed = (): TestRun => new TestRun({ ...procedureOf({ leak: 'dry-then-wet' }), loadsMayStay: true }).upTo('isolate');
const STAY = { type: 'loads-stay', stay: true, reason: 'the board is glued in' } as const;

describe('loads that stay on the supply', () => {
  it('are refused where the lead did not allow it, with the risk in its words', () => {
    const run = new TestRun(procedureOf({ leak: 'dry-then-wet' })).upTo('isolate');
    expect(run.try(STAY)?.message).toContain('the lead allows no loads on the supply');
  });

  it('answer their own lines of the pulled list and of the way back, never the board’s main plug', () => {
    const run = allowed();
    run.say(STAY);
    const marks = (step: string): Record<string, string> =>
      Object.fromEntries(Object.entries(run.state.steps.find(({ id }) => id === step)?.checks ?? {}).map(([id, { mark }]) => [id, mark]));
    expect(marks('isolate')).toEqual({
      'pulled:board-processor': 'not-needed',
      'pulled:card-power': 'not-needed',
      'pulled:drive-power': 'not-needed',
    });
    expect(marks('power')['back:board-processor']).toBe('not-needed');
    run.say({ type: 'loads-stay', stay: false });
    expect(marks('isolate')['pulled:board-processor']).toBe('done');
    expect(marks('power')['back:board-processor']).toBe('open');
    expect(run.try({ type: 'loads-stay', stay: false })?.message).toContain('no loads were left');
  });

  it('keep every liquid and the pump back until air has passed', () => {
    const run = allowed();
    run.say(STAY).finish('isolate');
    expect(run.try({ type: 'pump', on: true })?.rule).toBe('loads-live');
    run.dryTest().finish('dry');
    run.say(COOLANT);
    expect(run.try({ type: 'pour', volumeMl: 100 })).toBeNull();
    // air that is begun anew has shown nothing yet
    expect(run.state.overrides).toEqual([]);
  });
});
