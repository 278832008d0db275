import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { faceCovered } from '../../machine/electrical/fans.js';
import type { Connector } from '../../machine/electrical/sheet.js';
import type { FanEnds } from './fanCurve.js';
import { usualAir, type AirPath, type Breathing } from './steady.js';
import { usualBlocks } from './usual.js';

/** What is said of a loop's air and load, kept with it: heat, compared variants and the quiet point go by the same. */
export interface HeatSetup {
  readonly roomC: number;
  /** W that air-cooled parts give to the air in the case */
  readonly caseHeatW: number;
  /** 0 to 1 */
  readonly pumpSpeed: number;
  readonly fanSpeed: number;
  /** by block id, W and °C; null: nobody says */
  readonly loadsW: Readonly<Record<string, number | null>>;
  readonly limitsC: Readonly<Record<string, number | null>>;
  /** by radiator id, where a hand said how it breathes; the others as usual for their place */
  readonly air: Readonly<Record<string, AirPath>>;
  /** by group of fans: how fast it turns as a share of the others; a group that is not named turns as they do */
  readonly paces: Readonly<Record<string, number>>;
  /** the two settings between which fans follow the coolant */
  readonly fanEnds: FanEnds;
}

/** As long as nobody said otherwise (workshop practice): a quiet quarter at rest, where a machine draws about a tenth. */
const USUAL_ENDS: FanEnds = { restShare: 0.1, restSpeed: 0.25, loadSpeed: 0.6 };

/** As long as nobody said otherwise (general estimates): a usual room, drives and memory without a block, the middle of the speeds. */
const USUAL = { roomC: 24, caseHeatW: 60, pumpSpeed: 0.8, fanSpeed: 0.5 } as const;

/** What was kept of a loop, as far as its parts are still there, and what is usual for the rest. */
export function setupOf(loop: LoopFile, kept: HeatSetup | null): HeatSetup {
  const blocks = usualBlocks(loop);
  const of = (known: Readonly<Record<string, number | null>> | undefined, usual: 'loadW' | 'limitC'): Record<string, number | null> =>
    Object.fromEntries(
      blocks.map((block) => [block.id, known && Object.hasOwn(known, block.id) ? (known[block.id] ?? null) : block[usual]]),
    );
  const radiators = new Set(loop.components.filter(({ kind }) => kind === 'radiator').map(({ id }) => id));
  return {
    roomC: kept?.roomC ?? USUAL.roomC,
    caseHeatW: kept?.caseHeatW ?? USUAL.caseHeatW,
    pumpSpeed: kept?.pumpSpeed ?? loop.components.find(({ kind }) => kind === 'pump')?.speed ?? USUAL.pumpSpeed,
    fanSpeed: kept?.fanSpeed ?? USUAL.fanSpeed,
    loadsW: of(kept?.loadsW, 'loadW'),
    limitsC: of(kept?.limitsC, 'limitC'),
    air: Object.fromEntries(Object.entries(kept?.air ?? {}).filter(([id]) => radiators.has(id))),
    // what was kept before groups were told apart knows none
    paces: kept?.paces ?? {},
    fanEnds: kept?.fanEnds ?? USUAL_ENDS,
  };
}

/** How a loop's radiators breathe by what was kept of it and the fans that stand on them. */
export function breathingOf(loop: LoopFile, kept: HeatSetup | null, groups: readonly RadiatorFans[]): Breathing {
  const { air, caseHeatW } = heatAskedBy(setupOf(loop, kept), loop, groups);
  return { air, caseHeatW };
}

/** Radiators whose air nobody told: the file says no place, and no hand said how they breathe. They are taken to breathe room air. */
export const airUntold = (loop: LoopFile, { air }: Pick<HeatSetup, 'air'>): string[] =>
  loop.components.filter(({ kind, id, place }) => kind === 'radiator' && place === undefined && air[id] === undefined).map(({ id }) => id);

/** Figures of a setup that somebody gave. */
export const given = (by: Readonly<Record<string, number | null>>): Record<string, number> =>
  Object.fromEntries(Object.entries(by).filter((entry): entry is [string, number] => entry[1] !== null));

/** A group of fans on a radiator, as the machine's sheet of connectors has it. */
export type RadiatorFans = Pick<Connector, 'id' | 'name' | 'of' | 'fans' | 'openWhy'>;

/**
 * How a radiator breathes with the fans that stand on it: what they cover of its face, and how fast they turn beside the others. Fans that
 * are not connected stand still. A radiator of which no fans are told breathes as if its whole face had them.
 */
function withFans(
  radiator: LoopFile['components'][number],
  path: AirPath,
  groups: readonly RadiatorFans[],
  paces: HeatSetup['paces'],
): AirPath {
  const own = groups.filter(({ of }) => of?.part === radiator.id);
  if (own.length === 0) return path;
  const turning = own.flatMap(({ id, fans, openWhy }) => (fans && openWhy === null ? [{ ...fans, pace: paces[id] ?? 1 }] : []));
  const areas = turning.map(({ count, sizeMm }) => count * sizeMm ** 2);
  const whole = areas.reduce((sum, area) => sum + area, 0);
  if (whole === 0) return { ...path, pace: 0 };
  return {
    ...path,
    covered: faceCovered(radiator, turning),
    pace: turning.reduce((sum, { pace }, index) => sum + (pace * (areas[index] as number)) / whole, 0),
  };
}

/** What a setup asks of the heat model, whatever the speeds; a field that somebody emptied counts as usual. */
export const heatAskedBy = (
  {
    roomC,
    caseHeatW,
    loadsW,
    air,
    paces,
  }: Pick<HeatSetup, 'loadsW' | 'air' | 'paces'> & { readonly roomC: number | null; readonly caseHeatW: number | null },
  loop: LoopFile,
  groups: readonly RadiatorFans[],
) => ({
  roomC: roomC ?? USUAL.roomC,
  caseHeatW: Math.max(0, caseHeatW ?? 0),
  loadsW: given(loadsW),
  air: Object.fromEntries(
    loop.components
      .filter(({ kind }) => kind === 'radiator')
      .map((part) => {
        const { fanSpeed: _, ...usual } = usualAir(part, 1);
        return [part.id, withFans(part, { ...(air[part.id] ?? usual) }, groups, paces)];
      }),
  ),
});
