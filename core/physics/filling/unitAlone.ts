import { shortName } from '../../machine/catalogue/names.js';
import { liquidAt, type Liquid } from '../../machine/liquids/fluids.js';
import type { LoopComponent, LoopFile, LoopTube } from '../../machine/loop-file/loopFile.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { componentSdMl, tubeVolumeMl, TUBE_SD_SHARE, type Volume } from '../../machine/loop-file/volume.js';
import { solveFlow } from '../flow/flow.js';
import { pumpsWithoutCurve } from '../flow/network.js';
import { BENCH_C } from '../measuring/errors.js';

/** mm of a scrap of tube from a pump's outlet back into its reservoir */
export const SCRAP_MM = 400;
const SCRAP = 'scrap';

/** A pump with the reservoir that feeds it, out of the case, closed by a scrap of tube: the smallest loop there is. */
export interface UnitAlone {
  /** ids of reservoir and pump */
  readonly reservoir: string;
  readonly pump: string;
  readonly name: string;
  /** mL that it takes in all, and of that up to its mark before the pump runs */
  readonly total: Volume;
  readonly toMarkMl: number;
  /** mm by which the level falls at most while pump and scrap fill; null: the reservoir has no height on record */
  readonly fallsMm: number | null;
  /** L/h through the scrap at full speed; null: its curve is not known */
  readonly flowLph: number | null;
  /** s until liquid is back at the return; null as well */
  readonly backS: number | null;
}

/** The unit as a loop of its own; null where nothing feeds the pump but more tube. */
export function unitLoop(loop: LoopFile, pump: LoopComponent): LoopFile | null {
  const feed = loop.tubes.find(({ to }) => to[0] === pump.id);
  const reservoir = loop.components.find(({ id, kind }) => id === feed?.from[0] && kind === 'reservoir');
  const out = loop.tubes.find(({ from }) => from[0] === pump.id);
  const back = reservoir?.flow?.[0];
  if (!feed || !reservoir || !out || back === undefined) return null;
  const { path: _path, fittings: _fittings, inside: _inside, ...wall } = out;
  const scrap: LoopTube = { ...wall, id: SCRAP, to: [reservoir.id, back], length_mm: SCRAP_MM };
  return { ...loop, components: [reservoir, pump], tubes: [feed, scrap] };
}

function unitOf(loop: LoopFile, pump: LoopComponent, liquid: Liquid): UnitAlone | null {
  const unit = unitLoop(loop, pump);
  const [reservoir] = unit?.components ?? [];
  if (!unit || !reservoir) return null;
  const { fillMarkMl } = reservoirMarks(reservoir);
  const tubesMl = unit.tubes.reduce((sum, { inside, bore_mm: bore, length_mm: length = 0 }) => sum + (inside ? 0 : tubeVolumeMl(bore, length)), 0); // prettier-ignore
  const besideMl = pump.volume_ml + tubesMl;
  const { box } = reservoir;
  const heightMm = box ? box.max[1] - box.min[1] : 0;
  const flowLph =
    pumpsWithoutCurve(unit).length > 0
      ? null
      : (solveFlow(unit, { fluid: liquidAt(liquid, BENCH_C), speeds: { [pump.id]: 1 }, closed: [] }).links.get(SCRAP)?.flowLph ?? null);
  return {
    reservoir: reservoir.id,
    pump: pump.id,
    name: `${shortName(reservoir)} + ${shortName(pump)}`,
    total: { volumeMl: fillMarkMl + besideMl, sdMl: Math.hypot(componentSdMl(pump), TUBE_SD_SHARE * tubesMl) },
    toMarkMl: fillMarkMl,
    fallsMm: heightMm > 0 ? besideMl / (reservoir.volume_ml / heightMm) : null,
    flowLph,
    backS: flowLph === null || flowLph <= 0 ? null : besideMl / (flowLph / 3.6),
  };
}

/** Every pump that stands under its own reservoir, as it can be tested before anything is built in. */
export const unitsAlone = (loop: LoopFile, liquid: Liquid): UnitAlone[] =>
  loop.components.filter(({ kind }) => kind === 'pump').flatMap((pump) => unitOf(loop, pump, liquid) ?? []);

/** Whether there is anything in a loop that runs on its own. */
export const hasUnit = (loop: LoopFile): boolean => loop.components.some((part) => part.kind === 'pump' && unitLoop(loop, part) !== null);
