import type { CheckTemplate, StepTemplate } from '../runs/template.js';
import { STANDARD_TEMPLATE } from './standardTemplate.js';

/** A step of the commissioning, and some of its lines, as other procedures take them over. */
export const standard = (id: string): StepTemplate => STANDARD_TEMPLATE.steps.find((step) => step.id === id) as StepTemplate;
/** A line of a step as a template holds it. */
export const tick = (id: string, text: string, group: string, more: Partial<CheckTemplate> = {}): CheckTemplate => ({
  id,
  text,
  group,
  ...more,
});
export const standardCheck = (step: string, ...ids: readonly string[]): CheckTemplate[] =>
  standard(step).checks.filter((each) => 'id' in each && ids.includes(each.id));

export const BEFORE: StepTemplate = {
  ...standard('baseline'),
  id: 'before',
  does: ['measures-before'],
  title: 'Measure before',
  lead: 'Before anything is touched: same load, sensor and settings as the last baseline.',
  cautions: ['The owner’s data must be safe before a load test.'],
  checks: [],
};
/** Nothing wet is opened and no pump runs by itself: the machine goes off the wall, whole. */
export const OFF: StepTemplate = {
  id: 'off',
  does: ['cuts-mains'],
  kind: 'checks',
  title: 'Off at the wall',
  lead: 'The loop stays closed: nothing is pulled, no jumper, no pump by itself.',
  cautions: ['No hand goes in while a light on the board is lit.'],
  timers: [],
  checks: [
    tick('shut-down', 'Shut down, supply switched off at the back', 'Supply', { beforePower: true }),
    tick('lead-out', 'Lead out of the wall, power button held until no light is left', 'Supply', { beforePower: true }),
    tick('photo', 'Photograph taken of every plug that has to move', 'Record', { mayNotApply: true }),
  ],
};
