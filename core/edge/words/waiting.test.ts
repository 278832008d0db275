import { describe, expect, it } from 'vitest';
import { TestRun } from '../../../tests/bench/testRun.js';
import { STAND_CHECK_IDS, type StandCheck } from '../../bench/runs/waiting.js';
import { exchangeWords } from './exchange.js';
import { standCheckWords, waitsForWords } from './waiting.js';

describe('what a run waits for, in words', () => {
  it('names the part, or only the kind where nobody said more', () => {
    expect(waitsForWords({ for: 'parts', what: 'a seal 11.1 × 2' })).toBe('parts: a seal 11.1 × 2');
    expect(waitsForWords({ for: 'overnight', what: '' })).toBe('tomorrow');
  });

  it('has a line for every check, with places by their names and nothing left unfilled', () => {
    const { procedure } = new TestRun();
    const [port, joint] = [procedure.facts?.ports[0], procedure.facts?.joints[0]];
    for (const check of STAND_CHECK_IDS) {
      const words = standCheckWords(procedure, { check, places: [port?.name, joint?.id], to: 'on-back' } as unknown as StandCheck);
      expect(words, check).not.toMatch(/[{}]/);
      if (check.startsWith('ends')) expect(words).toContain(`${port?.label}, ${joint?.name}`);
    }
    expect(standCheckWords(procedure, { check: 'stays-turned', to: 'on-back' })).toContain('on its back');
  });
});

describe('what was exchanged, as the reason of a revision', () => {
  it('names what went in anew, not what was only taken out or sealed', () => {
    const run = new TestRun().upTo('close');
    const swap = (item: string, action: 'replaced' | 'removed' | 'renewed', text: string) =>
      run.say({ type: 'swapped', step: 'close', item, action, text, heldMl: 0 });
    expect(exchangeWords(run.procedure, run.state)).toBe('');
    swap('pump', 'replaced', 'the same, new');
    swap('graphics', 'removed', 'shelf 4');
    swap('roof', 'renewed', 'ring 11.1 × 2');
    expect(exchangeWords(run.procedure, run.state)).toBe('exchanged: pump (the same, new)');
    expect(run.try({ type: 'swapped', step: 'close', item: 'moon', action: 'replaced', text: 'x', heldMl: 0 })?.fact.why).toBe(
      'unknown-item',
    );
  });
});
