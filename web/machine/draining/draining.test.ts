// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { adviseDraining } from '@core/physics/draining/advice.js';
import { buildNetwork } from '@core/physics/geometry/network.js';
import { STANDING, type Tilt } from '@core/machine/loop-file/orientation.js';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import { mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import exampleText from '../../../examples/two-radiators.json?raw';
import { TwinEngine } from '../compute/twinEngine.js';
import type { Twin } from '../compute/useTwin.js';
import FateKey from '../profile/FateKey.vue';
import StandingPicker from '../profile/StandingPicker.vue';
import { nameOpening } from '@core/physics/draining/openingNames.js';
import PlanSteps from './PlanSteps.vue';
import TakeOut from './TakeOut.vue';
import { ref } from 'vue';

const loop = readLoopFile(JSON.parse(exampleText));
const plan = adviseDraining(loop, buildNetwork(loop));

describe('names of openings', () => {
  it('say the part and the port, a joint by what it joins, and a part once', () => {
    expect(nameOpening(loop, 'gpu.low')).toBe('gpu, low');
    expect(nameOpening(loop, 't1.to')).toBe('pump → gpu, far end');
    expect(nameOpening(loop, 't1.from')).toBe('pump → gpu, first end');
    const tee = { ...loop, components: [{ id: 'drain', kind: 'junction', volume_ml: 6, ports: { drain: [0, 0, 0] as const } }] };
    expect(nameOpening(tee, 'drain.drain')).toBe('drain');
    expect(nameOpening(loop, 'moon.port')).toBe('moon.port');
  });
});

describe('the advised plan on screen', () => {
  it('says step by step what the hands do, with what comes, and what is left', async () => {
    const screen = mountScreen(PlanSteps, { props: { loop, plan, shown: 0 } });
    const stages = screen.findAll('.stage');
    expect(stages.length).toBe(plan.stages.length);
    expect(wordsOf(stages[0] as never)).toMatch(/^1 Leave it upright\. Open top, vent for air\. Jug under gpu, low, open it\. 355 mL$/);
    expect(wordsOf(stages[1] as never)).toMatch(/^2 (Cap .*\. )?Turn it .*, two of you\. Jug under/);
    expect(screen.find('[role="img"]').attributes('aria-label')).toMatch(/mL out, .* stay$/);
    await stages[1]?.trigger('click');
    expect(screen.emitted('show')).toEqual([[1]]);
  });

  it('teaches what to build where nothing opens', () => {
    const screen = mountScreen(PlanSteps, { props: { loop, plan: { stages: [], drainedMl: 0, leftMl: 800, wholeMl: 800 }, shown: null } });
    expect(wordsOf(screen)).toContain('Put a tee with a valve into its lowest tube');
    expect(screen.findAll('.stage')).toEqual([]);
  });
});

describe('taking a part out, on screen', () => {
  it('says what comes at each joint once a part is chosen', async () => {
    const engine = new TwinEngine();
    engine.load(loop);
    const twin: Twin = { engine, loaded: ref(1), problem: ref(null) };
    const screen = mountScreen(TakeOut, { props: { loop, twin, parts: loop.components.map(({ id }) => ({ value: id, title: id })) } });
    expect(wordsOf(screen)).toContain('Says what to expect at each joint');
    await screen.findComponent({ name: 'VSelect' }).setValue('gpu');
    await settle();
    expect(wordsOf(screen)).toContain('Open first for air: top, vent. Draw ');
    const rows = screen.findAll('tr').map((row) => wordsOf(row));
    expect(rows.map((row) => row.replace(/ ?\d+ mL$/, ''))).toEqual([
      'pump → gpu, far end',
      'gpu → cpu, first end',
      'comes out of the part when you tilt it',
      'stays in the rest of the loop',
    ]);
  });
});

describe('how the case stands, on screen', () => {
  const mountPicker = (tilt: Tilt) => mountScreen(StandingPicker, { props: { modelValue: tilt } });

  it('shows which of the six it is, and none while it is tilted between them', () => {
    const pressed = (tilt: Tilt): string[] =>
      mountPicker(tilt)
        .findAll('.way')
        .filter((way) => way.attributes('aria-pressed') === 'true')
        .map((way) => way.text());
    expect(pressed(STANDING['on-face'])).toEqual(['on its face']);
    expect(pressed({ pitchDeg: 30, rollDeg: 0 })).toEqual([]);
  });

  it('goes to a stand at a touch, and by degrees with the sliders', async () => {
    const screen = mountPicker({ ...STANDING.upright });
    await screen.findAll('.way').find((way) => way.text() === 'upside down')?.trigger('click'); // prettier-ignore
    await screen.findAll('input[type="range"]')[1]?.setValue('-25');
    expect(screen.emitted('update:modelValue')).toEqual([[{ pitchDeg: 180, rollDeg: 0 }], [{ pitchDeg: 180, rollDeg: -25 }]]);
  });
});

describe('the key of the drawing', () => {
  it('names every fill in the liquid’s own colour', () => {
    const screen = mountScreen(FateKey, { props: { colour: '#2f6fb4', fates: [{ fate: 'low', words: 'stays' }, { fate: 'gas', words: 'runs out' }] } }); // prettier-ignore
    expect(screen.findAll('li').map((each) => each.text())).toEqual(['stays', 'runs out']);
    expect(screen.find('ul').attributes('style')).toContain('#2f6fb4');
  });
});
