import { standard, standardCheck, tick } from './standardSteps.js';
import type { ProcedureTemplate, StepTemplate } from '../runs/template.js';

/**
 * A pump and its reservoir out of the case, closed by a scrap of tube: filled, run ten minutes, let out again. What was hurt in shipping
 * shows where nothing can get wet, and before anything is built around it.
 */

const KIT: StepTemplate = {
  id: 'kit',
  kind: 'checks',
  title: 'Lay out the unit',
  lead: 'On a bench of its own, beside and below any machine; nothing live within reach of a splash.',
  cautions: ['Gloves and goggles within reach; read the safety data sheet of what is poured.'],
  timers: [],
  checks: [
    tick('unit', 'The unit with its base ring, and a plug for every other port', 'Parts', { together: true }),
    tick('scrap', 'Scrap of tube, about {scrap}, two fittings with their rings', 'Parts', { together: true }),
    tick('water', 'Distilled water, or the coolant that this loop will get', 'Parts', { together: true }),
    tick('supply', 'A supply of its own with a tested jumper', 'Tools', { together: true }),
    tick('bottle', 'Fill bottle with a thin spout, measuring jug', 'Tools', { together: true }),
    tick('towel', 'A dry towel under it, spill kit', 'Bench', { together: true }),
  ],
};
const SCRAP: StepTemplate = {
  id: 'scrap',
  kind: 'checks',
  does: ['closes'],
  title: 'Close it with a scrap of tube',
  lead: 'From the outlet back to the return; everything else plugged, as if it were the whole loop.',
  cautions: ['The scrap tube has no clamps: hold it when tapping.'],
  timers: [],
  checks: [
    tick('base-ring', 'Base ring clean in its groove, not pinched; base screwed on evenly', 'Before the tube', { mayNotApply: true }),
    { each: 'joints', group: 'Scrap of tube' },
    { each: 'closures', group: 'Ports without a tube' },
  ],
};
const SUPPLY: StepTemplate = {
  id: 'supply',
  kind: 'checks',
  does: ['isolates'],
  title: 'A supply of its own',
  lead: 'Nothing hangs on it but this pump.',
  cautions: ['Mains: the jumper goes in only with no board on this supply. Dry hands at the switch.'],
  timers: [],
  checks: [
    tick('supply-off', 'Supply switched off at the back', 'Supply', { beforePower: true }),
    tick('alone', 'The pump’s lead on it, and nothing else', 'Supply', { beforePower: true }),
    tick('jumper', 'Jumper in', 'Supply', { beforePower: true }),
  ],
};
const FILL: StepTemplate = {
  ...standard('fill'),
  lead: 'Slowly to the mark, pump on, pump off at the low mark, pour again.',
  checks: standardCheck('fill', 'vessels-rinsed', 'bleed-port', 'level-stays', 'towels-dry'),
};
const RUN: StepTemplate = {
  ...standard('wet'),
  title: 'Ten minutes on its own',
  lead: 'Pump running: look at ring, ports and both ends of the scrap, listen, watch the return.',
  checks: [{ each: 'alone-return' }, { each: 'rounds' }, tick('quiet', 'No grinding, no rattle once the bubbles are out', 'Listened')],
};
const OUT: StepTemplate = {
  id: 'out',
  kind: 'part-test',
  title: 'Let it out, say what it was',
  lead: 'Over the jug, tipped until nothing comes. What stays inside is in the book when it is built in.',
  cautions: ['Supply off at the back before anything is undone.'],
  timers: [],
  checks: [tick('off', 'Supply off at the back, the pump’s lead off', 'Before it is undone', { beforePower: true })],
};

export const UNIT_TEMPLATE: ProcedureTemplate = { steps: [KIT, SCRAP, SUPPLY, FILL, RUN, OUT, standard('sign-off')] };
