import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { lackWords, procedureOf, TestRun } from '../../../tests/bench/testRun.js';
import { groupReadings, groupVolumeMl, HOSE_ML, judgeGroup } from './groupTest.js';

const loop = usualLoop();
const GROUP = ['roof', 'front'];
const procedure = procedureOf({ leak: 'dry-then-wet' });
const at = (gaugeKpa: number, tempC = 22, parts: readonly string[] = GROUP) => ({ type: 'group-reading', parts, gaugeKpa, tempC }) as const;

describe('parts that are joined outside the case', () => {
  it('hold what they and the tubes between them hold, and no tube that leads elsewhere', () => {
    const volumeOf = (id: string): number => loopVolume(loop).parts.find((part) => part.id === id)?.volumeMl ?? 0;
    const between = loop.tubes.filter(({ from, to }) => GROUP.includes(from[0]) && GROUP.includes(to[0])).map(({ id }) => id);
    expect(between).toHaveLength(1);
    expect(groupVolumeMl(loop, GROUP)).toBeCloseTo([...GROUP, ...between].reduce((sum, id) => sum + volumeOf(id), 0));
    expect(groupVolumeMl(loop, ['roof'])).toBeCloseTo(volumeOf('roof'));
  });

  it('are judged by their own small volume: what passes in the whole loop is a leak there', () => {
    // closed form: a leak q lets the pressure of a volume V fall by q/V, so a known slope stands for a known leak
    const run = new TestRun(procedure);
    const leak = 3 * (procedure.dry?.limitMbarLs ?? 0);
    const litres = (groupVolumeMl(loop, GROUP) + HOSE_ML) / 1000;
    for (let minute = 0; minute <= 25; minute += 1) {
      run.say(at(50 - (leak / litres / 10) * 60 * minute));
      run.wait(60);
    }
    const judged = judgeGroup(procedure, run.state, GROUP);
    expect(judged?.leakMbarLs).toBeGreaterThan(0.7 * leak);
    expect(judged?.leakMbarLs).toBeLessThan(1.3 * leak);
    expect(judged?.verdict).toBe('fail');
  });

  it('pass when they hold, wait while nobody can tell, and begin anew when somebody pumped', () => {
    const run = new TestRun(procedure);
    run.say(at(50));
    expect(judgeGroup(procedure, run.state, GROUP)?.verdict).toBe('not-yet');
    for (let minute = 0; minute < 90; minute += 1) run.wait(60).say(at(50));
    expect(judgeGroup(procedure, run.state, GROUP)?.verdict).toBe('pass');
    // another group is another test, whatever order it is named in
    expect(judgeGroup(procedure, run.state, ['roof', 'graphics'])).toBeNull();
    expect(judgeGroup(procedure, run.state, ['front', 'roof'])?.verdict).toBe('pass');
    run.wait(60).say(at(60));
    expect(groupReadings(run.state, GROUP)).toEqual([{ tS: 0, gaugeKpa: 60, tempC: 22 }]);
  });

  it('that leak stay in doubt until they held air, and nothing goes on meanwhile', () => {
    const run = new TestRun(procedure);
    run.say(at(50));
    for (const part of GROUP) {
      run.say({ type: 'doubt', part, text: 'air, joined outside' });
      run.say({ type: 'part-test', part, tight: false, how: 'air, joined outside', leftMl: 0 });
    }
    expect(run.state.doubts.every(({ answer }) => answer?.tight === false)).toBe(true);
    expect(lackWords(procedure, run.state, 'close', run.nowMs).length).toBeGreaterThan(0);
    for (const part of GROUP) run.say({ type: 'part-test', part, tight: true, how: 'air, again', leftMl: 0 });
    expect(run.state.doubts.every(({ answer }) => answer?.tight === true)).toBe(true);
  });

  it('take no more pressure than the weakest part of the loop, and only parts that are there', () => {
    const run = new TestRun(procedure);
    expect(run.try(at(180))).not.toBeNull();
    expect(run.try(at(40, 22, ['moon']))).not.toBeNull();
    expect(run.try(at(40))).toBeNull();
  });
});
