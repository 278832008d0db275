import { say } from '../../base/words/say.js';
import { findCircuits, type Circuit } from '../loop-file/circuits.js';
import { unusedPorts } from '../loop-file/fittings.js';
import { partName, type LoopComponent, type LoopFile } from '../loop-file/loopFile.js';
import { STANDING_WORDS, type StandingName } from '../loop-file/orientation.js';
import type { LoopFinding } from './finding.js';

/** What keeps the coolant from going round as meant: missing parts, open ends, wrong directions. */
export function flowFindings(loop: LoopFile): LoopFinding[] {
  return [
    ...findCircuits(loop).flatMap((circuit) => missingParts(circuit)),
    ...loop.components.flatMap((component) => openPorts(loop, component)),
    ...sharedPorts(loop),
    ...fedBackwards(loop),
  ];
}

/** Before: a circuit with tubes; a part that stands alone is told of by its open ends. */
function missingParts({ components, tubes }: Circuit): LoopFinding[] {
  if (tubes.length === 0 && components.length === 1 && components[0]?.kind !== 'pump') {
    return [];
  }
  const findings: LoopFinding[] = [];
  const pumps = components.filter(({ kind }) => kind === 'pump');
  const reservoirs = components.filter(({ kind }) => kind === 'reservoir');
  if (pumps.length === 0) {
    findings.push({
      code: 'no-pump',
      weight: 'stop',
      part: null,
      text: say('Nothing moves the coolant.'),
      todo: say('Add a pump, right after the reservoir.'),
    });
  }
  if (reservoirs.length === 0) {
    findings.push({
      code: 'no-reservoir',
      weight: 'note',
      part: null,
      text: say('There is no reservoir: the loop fills by gravity and turning, not by pulses.'),
      todo: say('Plan a temporary bottle above the machine, or add a reservoir.'),
    });
  }
  for (const pump of pumps) {
    const intake = pump.flow && pump.ports[pump.flow[0]];
    const outlets = reservoirs.map((reservoir) => reservoir.ports[reservoir.flow?.[1] ?? '']?.[1]).filter((y) => y !== undefined);
    if (intake && outlets.length > 0 && intake[1] > Math.max(...outlets) + 1) {
      findings.push({
        code: 'pump-above-reservoir',
        weight: 'stop',
        part: pump.id,
        text: say("{partName} draws from above the reservoir's outlet; it will not prime by itself.", { partName: partName(pump) }),
        todo: say('Lower the pump or raise the reservoir.'),
      });
    }
    if (pump.may_stand && !pump.may_stand.includes('upright')) {
      findings.push({
        code: 'pump-attitude',
        weight: 'stop',
        part: pump.id,
        text: say('{partName} may not run as it stands in the upright case.', { partName: partName(pump) }),
        todo: say('Mount it so that it may: its sheet allows the case {join}.', {
          join: pump.may_stand.map((stand) => STANDING_WORDS[stand as StandingName] ?? stand).join(', ') || say('in no stand'),
        }),
      });
    }
  }
  return findings;
}

function openPorts(loop: LoopFile, component: LoopComponent): LoopFinding[] {
  return unusedPorts(loop, component).flatMap((port): LoopFinding[] => {
    if (component.flow?.includes(port) && component.closures?.[port] === undefined) {
      return [
        {
          code: 'open-end',
          weight: 'stop',
          part: component.id,
          text: say('No tube {port} {partName}.', { port: component.flow[0] === port ? 'feeds' : 'leaves', partName: partName(component) }),
          todo: say('Add the tube that carries the coolant on.'),
        },
      ];
    }
    if (component.closures?.[port] !== undefined) return [];
    return [
      {
        code: 'unplugged-port',
        weight: 'look',
        part: component.id,
        text: say('Port "{port}" of {partName} has neither tube nor plug.', { port, partName: partName(component) }),
        todo: say('Plug it; one more plug is counted below.'),
      },
    ];
  });
}

function sharedPorts(loop: LoopFile): LoopFinding[] {
  const tubes = new Map<string, number>();
  for (const { from, to } of loop.tubes)
    for (const [id, port] of [from, to]) tubes.set(`${id} ${port}`, (tubes.get(`${id} ${port}`) ?? 0) + 1);
  return loop.components.flatMap((component) =>
    Object.keys(component.ports)
      .filter((port) => (tubes.get(`${component.id} ${port}`) ?? 0) > 1)
      .map((port) => ({
        code: 'two-on-one-port' as const,
        weight: 'stop' as const,
        part: component.id,
        text: say('Two tubes end at port "{port}" of {partName}.', { port, partName: partName(component) }),
        todo: say('One bore takes one fitting: put a tee there, or use another port.'),
      })),
  );
}

function fedBackwards(loop: LoopFile): LoopFinding[] {
  const parts = new Map(loop.components.map((component) => [component.id, component]));
  return loop.tubes.flatMap(({ to: [id, port] }): LoopFinding[] => {
    const component = parts.get(id);
    if (!component || component.flow?.[1] !== port || (component.kind !== 'block' && component.kind !== 'pump')) return [];
    return [
      {
        code: 'fed-backwards',
        weight: 'stop',
        part: id,
        text: say('{partName} is fed at its outlet.', { partName: partName(component) }),
        todo: say('Swap the two tubes: the inlet is the port over the jet plate or the pump eye.'),
      },
    ];
  });
}
