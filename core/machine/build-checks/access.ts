import { say } from '../../base/words/say.js';
import type { Circuit } from '../loop-file/circuits.js';
import { partName, type LoopComponent } from '../loop-file/loopFile.js';
import type { LoopFinding } from './finding.js';

/** Share of a circuit's height that counts as "near" its lowest or highest port. */
const NEAR_SHARE = 0.2;

const heightsOf = ({ ports }: LoopComponent): number[] => Object.values(ports).map(([, y]) => y);
const openable = (components: readonly LoopComponent[], isMeant: (closure: string) => boolean): number[] =>
  components.flatMap((component) =>
    Object.entries(component.closures ?? {})
      .filter(([port, closure]) => isMeant(closure) && !(component.out_of_reach ?? []).includes(port))
      .map(([port]) => (component.ports[port] as readonly number[])[1] as number),
  );

/**
 * A valve that drains near the low end, and a port that opens near the high end, of every circuit. A bare plug is no drain: it
 * lets everything go at once, over the hand that turns it. Nor is a valve above the lowest radiator, which keeps what it holds.
 */
export function accessFindings({ components, tubes }: Circuit): LoopFinding[] {
  if (tubes.length === 0) return [];
  const heights = components.flatMap(heightsOf);
  const low = Math.min(...heights);
  const high = Math.max(...heights);
  const reach = NEAR_SHARE * (high - low) + 1;
  return [...drainFinding(components, low + reach), ...inletFinding(components, high - reach), ...fillFinding(components)];
}

function drainFinding(components: readonly LoopComponent[], nearLow: number): LoopFinding[] {
  const valve = Math.min(...openable(components, (closure) => closure === 'valve'));
  const [lowest] = components
    .filter(({ kind }) => kind === 'radiator')
    .sort((a, b) => Math.min(...heightsOf(a)) - Math.min(...heightsOf(b)));
  const keeps = lowest && valve > Math.min(...heightsOf(lowest)) + 1 && valve > nearLow ? lowest : null;
  if (valve <= nearLow || (Number.isFinite(valve) && !keeps)) return [];
  const text = !Number.isFinite(valve)
    ? openable(components, () => true).some((y) => y <= nearLow)
      ? say('Only a bare plug opens near the lowest point: it lets everything go at once, over the hand that turns it.')
      : say('No port that opens lies near the lowest point.')
    : say('The lowest valve lies above {partName}: what stands in it stays.', {
        partName: keeps ? partName(keeps) : say('the lowest radiator'),
      });
  return [
    {
      code: 'no-drain',
      weight: 'look',
      part: null,
      text,
      todo: say('Put a tee with a valve into the lowest tube, or expect to turn the machine at every drain.'),
    },
  ];
}

/** How liquid gets in, and air out beside it. */
function fillFinding(components: readonly LoopComponent[]): LoopFinding[] {
  const [reservoir] = components.filter(({ kind }) => kind === 'reservoir');
  if (!reservoir) return [];
  const caps = openable(components, (closure) => closure !== 'valve').length;
  const own = openable([reservoir], (closure) => closure !== 'valve').length;
  if (own === 0)
    return [
      {
        code: 'no-fill-port',
        weight: 'look',
        part: reservoir.id,
        text: Object.keys(reservoir.closures ?? {}).length === 0 ? say('No port of the reservoir opens.') : say('No hand gets at a fill port of the reservoir.'), // prettier-ignore
        todo: say('Turn the reservoir, or bring a port out with an angle: a loop that cannot be topped up is drained for every drop.'),
      },
    ];
  if (caps > 1) return [];
  return [
    {
      code: 'one-bore',
      weight: 'note',
      part: reservoir.id,
      text: say('Fill and bleed share one bore: air comes out where liquid goes in.'),
      todo: say('Pour in short pulses with a thin spout, or give the top a plug of its own.'),
    },
  ];
}

function inletFinding(components: readonly LoopComponent[], nearHigh: number): LoopFinding[] {
  if (openable(components, () => true).some((y) => y >= nearHigh)) return [];
  return [
    {
      code: 'no-air-inlet',
      weight: 'look',
      part: null,
      text: say('No port that opens lies near the highest point.'),
      todo: say('Keep a plug within reach at the top: liquid leaves only as fast as air comes in.'),
    },
  ];
}
