import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { AirPath } from './steady.js';
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
}

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
  };
}

/** Radiators whose air nobody told: the file says no place, and no hand said how they breathe. They are taken to breathe room air. */
export const airUntold = (loop: LoopFile, { air }: Pick<HeatSetup, 'air'>): string[] =>
  loop.components.filter(({ kind, id, place }) => kind === 'radiator' && place === undefined && air[id] === undefined).map(({ id }) => id);

/** Figures of a setup that somebody gave. */
export const given = (by: Readonly<Record<string, number | null>>): Record<string, number> =>
  Object.fromEntries(Object.entries(by).filter((entry): entry is [string, number] => entry[1] !== null));

/** What a setup asks of the heat model, whatever the speeds; a field that somebody emptied counts as usual. */
export const heatAskedBy = ({
  roomC,
  caseHeatW,
  loadsW,
  air,
}: Pick<HeatSetup, 'loadsW' | 'air'> & { readonly roomC: number | null; readonly caseHeatW: number | null }) => ({
  roomC: roomC ?? USUAL.roomC,
  caseHeatW: Math.max(0, caseHeatW ?? 0),
  loadsW: given(loadsW),
  air: Object.fromEntries(Object.entries(air).map(([id, path]) => [id, { ...path }])),
});
