import { unusedPorts } from './fittings.js';
import { flowOrder } from './chain.js';
import { findComponent, partName, portPosition, type LoopFile } from './loopFile.js';

/** Something to look at before the loop is built. `todo` says what to do about it. */
export interface LoopFinding {
  readonly code:
    'no-reservoir' | 'no-pump' | 'open-chain' | 'unplugged-port' | 'pump-above-reservoir' | 'no-drain' | 'no-air-inlet' | 'fed-backwards';
  /** id of the part it concerns, or null for the loop */
  readonly part: string | null;
  readonly text: string;
  readonly todo: string;
}

/** The checks a first plan needs. Deeper ones (bend radius, metals, attitudes) come with the geometric twin. */
export function checkLoop(loop: LoopFile): LoopFinding[] {
  if (loop.components.length === 0) return [];
  return [...missingParts(loop), ...chainGaps(loop), ...openPorts(loop), ...pumpHeight(loop), ...backwards(loop), ...drainAndVent(loop)];
}

function missingParts(loop: LoopFile): LoopFinding[] {
  const findings: LoopFinding[] = [];
  const has = (kind: string): boolean => loop.components.some((component) => component.kind === kind);
  if (!has('pump')) {
    findings.push({ code: 'no-pump', part: null, text: 'Nothing moves the coolant.', todo: 'Add a pump, right after the reservoir.' });
  }
  if (!has('reservoir')) {
    findings.push({
      code: 'no-reservoir',
      part: null,
      text: 'There is no reservoir: the loop fills by gravity and turning, not by pulses.',
      todo: 'Plan a temporary bottle above the machine, or add a reservoir.',
    });
  }
  return findings;
}

function chainGaps(loop: LoopFile): LoopFinding[] {
  const { links, offPath } = flowOrder(loop);
  const open = links.find(({ tube }) => tube === null);
  const findings: LoopFinding[] = offPath.components.map((component) => ({
    code: 'open-chain',
    part: component.id,
    text: `${partName(component)} is not on the path from the reservoir.`,
    todo: 'Join it with a run, or leave it if it is a parallel branch.',
  }));
  if (open && links.length > 1) {
    findings.push({
      code: 'open-chain',
      part: open.component.id,
      text: `No run leaves ${partName(open.component)}.`,
      todo: 'Add the run that carries the coolant on.',
    });
  }
  return findings;
}

function openPorts(loop: LoopFile): LoopFinding[] {
  return loop.components.flatMap((component) =>
    unusedPorts(loop, component)
      .filter((port) => component.closures?.[port] === undefined)
      .map((port) => ({
        code: 'unplugged-port' as const,
        part: component.id,
        text: `Port "${port}" of ${partName(component)} has neither run nor plug.`,
        todo: 'Plug it; one more plug is counted below.',
      })),
  );
}

function pumpHeight(loop: LoopFile): LoopFinding[] {
  const reservoir = loop.components.find(({ kind }) => kind === 'reservoir');
  const outlet = reservoir?.flow && reservoir.ports[reservoir.flow[1]];
  if (!outlet) return [];
  return loop.components
    .filter(({ kind }) => kind === 'pump')
    .filter((pump) => pump.flow && portPosition(loop, [pump.id, pump.flow[0]])[1] > outlet[1] + 1)
    .map((pump) => ({
      code: 'pump-above-reservoir',
      part: pump.id,
      text: `${partName(pump)} draws from above the reservoir's outlet; it will not prime by itself.`,
      todo: 'Lower the pump or raise the reservoir.',
    }));
}

function backwards(loop: LoopFile): LoopFinding[] {
  return loop.tubes
    .filter(({ to: [id, port] }) => findComponent(loop, id)?.flow?.[1] === port)
    .map(({ to: [id] }) => findComponent(loop, id))
    .filter((component) => component !== undefined && (component.kind === 'block' || component.kind === 'pump'))
    .map((component) => ({
      code: 'fed-backwards' as const,
      part: component?.id ?? null,
      text: `${component ? partName(component) : ''} is fed at its outlet.`,
      todo: 'Swap the two runs: the inlet is the port over the jet plate or the pump eye.',
    }));
}

/** Heights of all ports that can be opened, against the loop's own extremes. */
function drainAndVent(loop: LoopFile): LoopFinding[] {
  const heights = loop.components.flatMap(({ ports }) => Object.values(ports).map(([, y]) => y));
  const openable = loop.components.flatMap((component) =>
    Object.keys(component.closures ?? {}).map((port) => (component.ports[port] as readonly number[])[1] as number),
  );
  const low = Math.min(...heights);
  const high = Math.max(...heights);
  const reach = 0.2 * (high - low) + 1;
  const findings: LoopFinding[] = [];
  if (!openable.some((y) => y <= low + reach)) {
    findings.push({
      code: 'no-drain',
      part: null,
      text: 'No port that opens lies near the lowest point.',
      todo: 'Put a tee with a valve into the lowest run, or expect to turn the machine at every drain.',
    });
  }
  if (!openable.some((y) => y >= high - reach)) {
    findings.push({
      code: 'no-air-inlet',
      part: null,
      text: 'No port that opens lies near the highest point.',
      todo: 'Keep a plug within reach at the top: liquid leaves only as fast as air comes in.',
    });
  }
  return findings;
}
