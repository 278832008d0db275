import { shortName } from '../catalogue/names.js';
import { countFittings, unusedPorts } from '../loops/fittings.js';
import { partName, type LoopFile } from '../loops/loopFile.js';
import { TEST_GAUGE_KPA, MOST_GAUGE_KPA } from '../leak-testing/defaults.js';
import { formatSpan } from '../units/display.js';
import type { CheckItem, ProcedureInput, ProcedureStep } from './procedure.js';
import { runsInOrder } from './facts.js';
import { BACK, PULLED } from './state.js';

const CLOSURE_WORDS: Record<string, string> = { plug: 'plug', cap: 'cap', valve: 'drain valve' };

/** Connectors to pull, so that a leak meets dead electronics. Each comes back by name in the return to power. */
function pullable(loop: LoopFile): CheckItem[] {
  const cards = loop.components.filter(({ kind, place }) => kind === 'block' && place === 'card').length;
  return [
    { id: 'board-main', text: 'Board main connector pulled', beforePower: true },
    { id: 'board-processor', text: 'Board processor connector pulled', beforePower: true },
    {
      id: 'card-power',
      text: cards > 1 ? `Graphics card connectors pulled, ${cards} cards` : 'Graphics card connectors pulled',
      beforePower: true,
      mayNotApply: true,
    },
    { id: 'drive-power', text: 'Drives, lights and hubs pulled', beforePower: true, mayNotApply: true },
  ];
}

export function kitStep({ loop, order, coolantName }: ProcedureInput, withDryTest: boolean): ProcedureStep {
  const plugs = countFittings(loop).find(({ kind }) => kind === 'plug')?.count ?? 0;
  const parts = loop.components.map(partName).join(', ');
  const bottles = order
    ? `${order.bottles} ${order.bottles === 1 ? 'bottle' : 'bottles'} of ${coolantName ?? 'coolant'}`
    : 'Coolant for the whole loop';
  return {
    id: 'kit',
    kind: 'checks',
    title: 'Lay out the kit',
    lead: 'Nothing is opened until everything lies here.',
    cautions: [
      'Gloves and goggles within reach; read the coolant’s safety data sheet.',
      'A filled machine is heavy: two people or a turning cradle.',
    ],
    timers: [],
    checks: [
      { id: 'parts', text: `The right parts: ${parts}`, group: 'Parts' },
      {
        id: 'plugs',
        text:
          plugs === 0
            ? 'No loose plugs needed; spare plugs at hand'
            : `${plugs} ${plugs === 1 ? 'plug' : 'plugs'} for unused ports, and a spare`,
        group: 'Parts',
      },
      { id: 'screws', text: 'Fan and radiator screws of the allowed length', group: 'Parts' },
      { id: 'coolant', text: bottles, group: 'Parts' },
      { id: 'drivers', text: 'Hex and cross drivers, tube cutter', group: 'Tools' },
      { id: 'supply', text: 'Separate supply or supply jumper, tested', group: 'Tools' },
      ...(withDryTest ? [{ id: 'gauge', text: 'Hand pump with gauge and relief valve, room thermometer', group: 'Tools' }] : []),
      { id: 'bottle', text: 'Fill bottle with a thin spout, measuring jug', group: 'Tools' },
      { id: 'towels', text: 'Paper towels under every joint, spill kit', group: 'Bench' },
      { id: 'static', text: 'Static discharged; bench cleared', group: 'Bench' },
    ],
  };
}

export function flushStep(loop: LoopFile): ProcedureStep {
  const flushable = loop.components.filter(({ kind }) => kind === 'radiator' || kind === 'block');
  return {
    id: 'flush',
    kind: 'checks',
    title: 'Flush the new parts',
    lead: 'Warm distilled water, several rinses, until nothing comes out.',
    cautions: ['Tap water leaves minerals and chlorides: never for the last rinse.'],
    timers: [],
    checks: flushable.map((component) => ({ id: `flushed:${component.id}`, text: `Flushed: ${shortName(component)}`, mayNotApply: true })),
  };
}

export function closeStep(loop: LoopFile): ProcedureStep {
  const closures = loop.components.flatMap((component) =>
    unusedPorts(loop, component).map((port): CheckItem => {
      const closure = component.closures?.[port] ?? 'plug';
      const text =
        closure === 'valve'
          ? `Valve shut, handle across the pipe: ${shortName(component)}`
          : `${CLOSURE_WORDS[closure] === 'cap' ? 'Cap on' : 'Plug in'}: ${shortName(component)}, port ${port}`;
      return { id: `closed:${component.id}:${port}`, text, group: 'Ports without a run', beforePower: true };
    }),
  );
  return {
    id: 'close',
    kind: 'checks',
    title: 'Close the loop',
    lead: 'Joint by joint in flow order: nut on first, cut square, tube seated, tightened by hand, tugged.',
    cautions: [
      'Finger-tight: no tool on a compression fitting unless it has a hex for one.',
      'Felt something crack or slip? Note it and test that part alone before any liquid.',
    ],
    timers: [],
    checks: [
      { id: 'directions', text: 'Every block is fed at its inlet, the pump by its intake', group: 'Before the runs' },
      ...runsInOrder(loop).map(({ id, name }) => ({ id: `joint:${id}`, text: `Both joints tight: ${name}`, group: 'Runs in flow order' })),
      ...closures,
    ],
  };
}

export function isolateStep(loop: LoopFile): ProcedureStep {
  return {
    id: 'isolate',
    kind: 'checks',
    title: 'Only the pump on power',
    lead: 'Photograph it, then pull every load but the pump.',
    cautions: ['Mains: the jumper goes in only with the board unplugged. Dry hands at the switch.'],
    timers: [],
    checks: [
      { id: 'photo', text: 'Photograph taken before pulling', group: 'Pull and record' },
      ...pullable(loop).map((item) => ({ ...item, id: `${PULLED}${item.id}`, group: 'Pull and record' })),
      { id: 'supply-off', text: 'Supply switched off at the back', beforePower: true, group: 'Supply' },
      { id: 'jumper', text: 'Jumper in or separate supply connected; only the pump (and fans) on it', beforePower: true, group: 'Supply' },
    ],
  };
}

export function dryStep(hold: number): ProcedureStep {
  return {
    id: 'dry',
    kind: 'dry-test',
    title: 'Dry test with air',
    lead: `Raise to ${TEST_GAUGE_KPA} kPa, let it settle, then read about every minute. Expect to hold ${Math.ceil(hold)} min after settling.`,
    cautions: [
      `Never above the lowest rating in the loop, nor above ${MOST_GAUGE_KPA} kPa without one: glass and acrylic burst. Goggles.`,
      'Hand pump or a regulated source with relief valve; never a bare compressor.',
    ],
    timers: [],
    checks: [{ id: 'goggles', text: 'Goggles on, fill port and valves closed' }],
  };
}

export function fillStep(loop: LoopFile): ProcedureStep {
  const hasReservoir = loop.components.some(({ kind }) => kind === 'reservoir');
  return {
    id: 'fill',
    kind: 'fill',
    title: 'Fill',
    lead: hasReservoir
      ? 'Pour slowly to the mark, pump on, pump off at the low mark, pour again.'
      : 'Gravity from a bottle above the machine; turn the case, then short pump runs.',
    cautions: ['The pump must never run dry: hand on the switch.', 'Spout into the reservoir, not down into the pump.'],
    timers: [],
    checks: [
      { id: 'bleed-port', text: 'Bleed port open while pouring' },
      { id: 'towels-dry', text: 'Towels dry after the last pour' },
    ],
  };
}

export function wetStep(loop: LoopFile, seconds: number): ProcedureStep {
  const rounds =
    seconds > 3600
      ? [
          ['start', 'Inspected at the start'],
          ['hour', 'Inspected after an hour'],
          ['end', 'Inspected at the end, warm'],
        ]
      : [
          ['start', 'Inspected at the start'],
          ['end', 'Inspected at the end'],
        ];
  const runs = runsInOrder(loop);
  return {
    id: 'wet',
    kind: 'wet-run',
    title: 'Wet test',
    lead: `Only the pump runs, for ${formatSpan(seconds)}. Look at the joints in the order the liquid meets them.`,
    cautions: ['A drop on a towel names the joint: supply off first, then look.', 'Level at the low mark: pump off.'],
    timers: [{ id: 'wet-run', label: 'Pump running', seconds }],
    checks: rounds.flatMap(([id, group]) => [
      ...(id === 'start'
        ? runs.map((run) => ({ id: `dry-joint:${run.id}`, text: `Dry: ${run.name}`, group: group as string }))
        : [{ id: `round:${id}`, text: `All ${runs.length * 2} joints dry, towels dry`, group: group as string }]),
    ]),
  };
}

export function bleedStep(): ProcedureStep {
  return {
    id: 'bleed',
    kind: 'bleed',
    title: 'Bleed',
    lead: 'Run, stop, read the level before and after; tilt each way with the cap on.',
    cautions: ['Cap closed before any tilt; pump off once the reservoir’s outlet may uncover.'],
    timers: [],
    checks: [],
  };
}

export function powerStep(loop: LoopFile): ProcedureStep {
  return {
    id: 'power',
    kind: 'power',
    title: 'Return to power',
    lead: 'Supply off, jumper out. Then everything that was pulled comes back, by name.',
    cautions: ['No power to the board while any towel is wet or any part of it was splashed and not rinsed and dried.'],
    timers: [{ id: 'firmware', label: 'Watching temperatures in firmware', seconds: 15 * 60 }],
    checks: [
      { id: 'supply-off-again', text: 'Supply off at the back, jumper out', group: 'Before the first start', beforePower: true },
      ...runsInOrder(loop).map(({ id, name }) => ({
        id: `towel:${id}`,
        text: `Towel out and read, no spot: ${name}`,
        group: 'Before the first start',
        beforePower: true,
      })),
      ...pullable(loop).map(({ id, text }) => ({
        id: `${BACK}${id}`,
        text: text.replace('pulled', 'back in'),
        group: 'The pulled list',
        mayNotApply: true,
        beforePower: true,
      })),
      { id: 'pump-signal', text: 'Pump speed signal present, pump turns under the machine’s control', group: 'First start' },
      { id: 'fans', text: 'Every fan seen turning (it may stop again at idle)', group: 'First start' },
      { id: 'firmware-temps', text: 'Temperatures steady in firmware for a quarter of an hour', group: 'First start' },
      { id: 'joints-warm', text: 'Joints once more, warm', group: 'First start' },
    ],
  };
}

export function baselineStep(): ProcedureStep {
  return {
    id: 'baseline',
    kind: 'baseline',
    title: 'Hand-over baseline',
    lead: 'Measure as you would in a year: same load, same sensor, room temperature beside it.',
    cautions: [],
    timers: [],
    checks: [
      { id: 'level-mark', text: 'Level marked on the reservoir' },
      { id: 'sample', text: 'Labelled coolant sample kept' },
    ],
  };
}

export function signOffStep(): ProcedureStep {
  return {
    id: 'sign-off',
    kind: 'sign-off',
    title: 'Sign off',
    lead: 'Read the record once; after this it can be added to, not changed.',
    cautions: [],
    timers: [],
    checks: [],
  };
}
