import { BEFORE, OFF, tick } from './standardSteps.js';
import type { ProcedureTemplate, StepTemplate } from '../runs/template.js';

/** A machine that has another cooler is measured with that, and rid of it, before its loop is built. */

export const OLD_COOLER_OUT = 'old-cooler';

const BEFORE_LOOP: StepTemplate = {
  ...BEFORE,
  title: 'Measure the old cooler',
  lead: 'While it still runs: the same load that the loop will be measured with.',
};
const OUT: StepTemplate = {
  id: OLD_COOLER_OUT,
  kind: 'checks',
  title: 'The old cooler off',
  lead: 'Warm it comes off easier; twisted a little before it is lifted, for paste glues and may take the processor along.',
  cautions: ['A sealed cooler is never opened: it holds coolant under pressure, and goes to the collection point or back to its owner.'],
  timers: [],
  checks: [
    tick('leads', 'Its fan and pump leads off their headers, noted which', 'Off'),
    tick('crosswise', 'Loosened crosswise, twisted, lifted straight; the processor stayed in its socket', 'Off'),
    tick('paste', 'Old paste off, contact faces clean and dry', 'Off'),
    tick('bracket', 'Its backplate and bracket off, where the block brings its own', 'Off', { mayNotApply: true }),
    tick('cards', 'Cards’ own coolers off by their screw map, pads kept', 'Off', { mayNotApply: true }),
    tick('kept', 'Cooler, screws and pads bagged, labelled, their place written down', 'Kept'),
    tick('fits', 'Mounts of the block held against this very board and card', 'Before the build'),
    tick('room', 'Room for each radiator with its fans measured in this very case', 'Before the build'),
  ],
};

/** The procedure of a build with those steps before anything is built. */
export function afterOldCooler({ steps }: ProcedureTemplate): ProcedureTemplate {
  const behind = steps.findIndex(({ does }) => does?.includes('lays-out')) + 1;
  return { steps: [...steps.slice(0, behind), BEFORE_LOOP, OFF, OUT, ...steps.slice(behind)] };
}
