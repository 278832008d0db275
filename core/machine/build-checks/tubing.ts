import { formatIn } from '../../base/units/display.js';
import { say } from '../../base/words/say.js';
import { tubeName } from '../catalogue/names.js';
import {
  distanceMm,
  partFinder,
  partName,
  tubePolyline,
  tubesByHand,
  type LoopFile,
  type LoopTube,
  type PartFinder,
  type Point,
} from '../loop-file/loopFile.js';
import { findTubeMaterial } from '../materials/tubes.js';
import type { LoopFinding } from './finding.js';

export const TUBING = {
  /** least bend radius over outer diameter; walls of at least a fifth of it hold tighter bends (workshop practice) */
  thickWallRadius: 3,
  thinWallRadius: 4.5,
  thickWallShare: 0.18,
  /** mm; a fitting takes tube this far off its size */
  sizeMm: 0.3,
  /** mm a tube may be short of its straight way before it pulls: what a fitting swallows */
  slackMm: 5,
} as const;

/** What is wrong with the tubes themselves: sizes, lengths, bends, the panel. */
export function tubingFindings(loop: LoopFile): LoopFinding[] {
  const find = partFinder(loop);
  return tubesByHand(loop).flatMap((tube) => [
    ...wrongFittings(loop, tube, find),
    ...underLoad(loop, tube, find),
    ...kinks(loop, tube, find),
    ...panel(loop, tube, find),
  ]);
}

function wrongFittings(loop: LoopFile, tube: LoopTube, find: PartFinder): LoopFinding[] {
  return [tube.from, tube.to].flatMap(([id, port]): LoopFinding[] => {
    const part = find(id);
    const fits = part?.port_fits && Object.hasOwn(part.port_fits, port) ? part.port_fits[port] : undefined;
    if (!part || !fits) return [];
    const off = Math.abs(fits.bore_mm - tube.bore_mm) > TUBING.sizeMm || Math.abs(fits.outer_mm - tube.outer_mm) > TUBING.sizeMm;
    const soft = findTubeMaterial(tube.material)?.soft;
    const wrongKind = fits.soft !== undefined && soft !== undefined && fits.soft !== soft;
    if (!off && !wrongKind) return [];
    const wanted = say('{soft}{bore_mm}/{outer_mm} mm', {
      soft: fits.soft === undefined ? '' : `${fits.soft ? say('soft') : say('rigid')} `,
      bore_mm: fits.bore_mm,
      outer_mm: fits.outer_mm,
    });
    return [
      {
        code: 'wrong-fitting',
        weight: 'stop',
        part: tube.id,
        text: say('{tubeName}: tube of {bore_mm}/{outer_mm} mm on a fitting for {wanted} ({partName}, {port}).', {
          tubeName: tubeName(loop, tube),
          bore_mm: tube.bore_mm,
          outer_mm: tube.outer_mm,
          wanted,
          partName: partName(part),
          port,
        }),
        todo: say('Change the fitting or the tube; a near size leaks or slips off.'),
      },
    ];
  });
}

function underLoad(loop: LoopFile, tube: LoopTube, find: PartFinder): LoopFinding[] {
  if (tube.length_mm === undefined) return [];
  const line = tubePolyline(loop, tube, find);
  const straightMm = distanceMm(line[0] as Point, line.at(-1) as Point);
  if (tube.length_mm >= straightMm - TUBING.slackMm) return [];
  return [
    {
      code: 'joint-under-load',
      weight: 'stop',
      part: tube.id,
      text: say('{tubeName} is {long} long for a way of {way}: it pulls at its joints.', {
        tubeName: tubeName(loop, tube),
        long: formatIn('mm', tube.length_mm),
        way: formatIn('mm', straightMm),
      }),
      todo: say('Cut it at least {way} long.', { way: formatIn('mm', straightMm) }),
    },
  ];
}

/** mm; the widest arc that fits a corner whose shorter leg it may use up: leg ÷ tan(half the turn). */
function cornerRadiusMm(before: Point, corner: Point, after: Point): number {
  const [legA, legB] = [distanceMm(before, corner), distanceMm(corner, after)];
  if (legA === 0 || legB === 0) return Number.POSITIVE_INFINITY;
  const dot = [0, 1, 2].reduce(
    (sum, axis) => sum + ((corner[axis] as number) - (before[axis] as number)) * ((after[axis] as number) - (corner[axis] as number)),
    0,
  );
  const turn = Math.acos(Math.max(-1, Math.min(1, dot / (legA * legB))));
  return turn < 0.05 ? Number.POSITIVE_INFINITY : Math.min(legA, legB) / Math.tan(turn / 2);
}

function kinks(loop: LoopFile, tube: LoopTube, find: PartFinder): LoopFinding[] {
  if (findTubeMaterial(tube.material)?.soft !== true) return [];
  const line = tubePolyline(loop, tube, find);
  const radii = line.slice(1, -1).map((corner, index) => cornerRadiusMm(line[index] as Point, corner, line[index + 2] as Point));
  const wall = (tube.outer_mm - tube.bore_mm) / 2;
  const thick = wall / tube.outer_mm >= TUBING.thickWallShare;
  const leastMm = (thick ? TUBING.thickWallRadius : TUBING.thinWallRadius) * tube.outer_mm;
  const tightest = Math.min(...radii);
  if (tightest >= leastMm) return [];
  return [
    {
      code: 'kink',
      weight: 'look',
      part: tube.id,
      text: say('{tubeName} bends to a radius of {tightest}; {tube} tube kinks below about {least}.', {
        tubeName: tubeName(loop, tube),
        tightest: formatIn('mm', tightest),
        tube: `${tube.bore_mm}/${tube.outer_mm}`,
        least: formatIn('mm', leastMm),
      }),
      todo: say('Lay it in a wider bend, take an angled fitting, or slip a spring over it.'),
    },
  ];
}

function panel(loop: LoopFile, tube: LoopTube, find: PartFinder): LoopFinding[] {
  if (loop.panel_z_mm === undefined) return [];
  const highest = Math.max(...tubePolyline(loop, tube, find).map(([, , z]) => z)) + tube.outer_mm / 2;
  if (highest <= loop.panel_z_mm) return [];
  return [
    {
      code: 'panel-does-not-close',
      weight: 'stop',
      part: tube.id,
      text: say('{tubeName} stands {beyond} beyond the panel.', {
        tubeName: tubeName(loop, tube),
        beyond: formatIn('mm', highest - loop.panel_z_mm),
      }),
      todo: say('Take an angled fitting or lay the tube deeper.'),
    },
  ];
}
