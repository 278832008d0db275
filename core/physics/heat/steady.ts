import type { Fluid } from '../../machine/liquids/fluids.js';
import type { FlowResult } from '../flow/flow.js';
import { edgesMm } from '../../machine/loop-file/boxes.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { HEAT } from './defaults.js';
import { solveDense } from '../../base/numerics/dense.js';

/** Where a radiator's air comes from and goes to. */
export interface RadiatorAir {
  readonly from: 'room' | 'case';
  readonly to: 'out' | 'case';
  /** 0 … 1 of full speed */
  readonly fanSpeed: number;
  /** share of the airflow that a panel, filter or cable takes away, 0 … 1 */
  readonly blockage: number;
  /** share of its face that fans stand in front of; missing: the whole */
  readonly covered?: number;
  /** how fast its own fans turn while the others turn as they are set, as a share of that; missing: as fast */
  readonly pace?: number;
}

/** A radiator that gives more or less than the general estimate: as if it were larger, and by what its surfaces pass. */
export interface RadiatorFactor {
  /** of its air and its conductance alike */
  readonly size: number;
  readonly conductance: number;
}

export interface HeatConditions {
  readonly roomC: number;
  readonly fluid: Fluid;
  /** J/(kg·K); water's where it is not given */
  readonly heatCapacity?: number;
  /** W by component id */
  readonly loadsW: Readonly<Record<string, number>>;
  /** by radiator id; a radiator that is not named takes what its place says */
  readonly air: Readonly<Record<string, RadiatorAir>>;
  /** W that air-cooled parts give to the air in the case */
  readonly caseHeatW: number;
  /** by block id: its resistance as measured over the general estimate; 1 where nobody measured */
  readonly blockFactors?: Readonly<Record<string, number>>;
  /** by radiator id: as measured over the general estimate; 1 where nobody measured */
  readonly radiatorFactors?: Readonly<Record<string, RadiatorFactor>>;
}

export interface PartHeat {
  readonly id: string;
  readonly coolantInC: number;
  readonly coolantOutC: number;
  /** the part's own temperature; null for parts without a load */
  readonly partC: number | null;
  /** into the coolant; negative for a radiator */
  readonly heatW: number;
  /** air in and out of a radiator, null elsewhere */
  readonly air: { readonly inC: number; readonly outC: number } | null;
}

/** Why there is an answer, or none. */
export type HeatEnd = 'solved' | 'nothing-flows' | 'no-radiator' | 'singular';

export interface HeatResult {
  readonly end: HeatEnd;
  /** parts that coolant flows through */
  readonly parts: readonly PartHeat[];
  readonly caseAirC: number;
}

/** Face in m² and thickness in mm. */
function sizeOf(radiator: LoopComponent): { face: number; thicknessMm: number } {
  const edges = edgesMm(radiator);
  if (!edges) return { face: UNKNOWN_FACE_M2, thicknessMm: HEAT.faceThicknessMm };
  const [long, middle, thicknessMm] = edges;
  return { face: (long * middle) / 1e6, thicknessMm };
}

/** m²; a 360 radiator, where a file does not say */
const UNKNOWN_FACE_M2 = 0.043;

/** A radiator's air without the speed of its fans. */
export type AirPath = Omit<RadiatorAir, 'fanSpeed'>;

/** How a loop's radiators breathe and what warms the air in its case, as somebody said it; what is not said is usual. */
export interface Breathing {
  readonly air: Readonly<Record<string, AirPath>>;
  /** W of air-cooled parts */
  readonly caseHeatW: number;
}

/** A radiator under the roof or at the rear blows out what it takes from the case; the others take room air in. */
export function usualAir({ place }: LoopComponent, fanSpeed: number): RadiatorAir {
  const exhausts = place === 'roof' || place === 'rear';
  return { from: exhausts ? 'case' : 'room', to: exhausts ? 'out' : 'case', fanSpeed, blockage: 0 };
}

/** The air of every radiator at one fan speed: as said, or else as usual for its place. */
export function airOf(loop: LoopFile, fanSpeed: number, said: Readonly<Record<string, AirPath>> = {}): Record<string, RadiatorAir> {
  const radiators = loop.components.filter(({ kind }) => kind === 'radiator');
  return Object.fromEntries(
    radiators.map((part) => {
      const air = Object.hasOwn(said, part.id) ? { ...(said[part.id] as AirPath), fanSpeed } : usualAir(part, fanSpeed);
      return [part.id, air.pace === undefined ? air : { ...air, fanSpeed: Math.min(1, fanSpeed * air.pace) }];
    }),
  );
}

interface Radiating {
  /** W/K of air and of coolant through it */
  readonly airW: number;
  /** share of the coolant's excess over the air that it gives off */
  readonly drop: number;
  readonly air: RadiatorAir;
}

/** Effectiveness of a cross-flow exchanger, both fluids unmixed (Incropera & DeWitt), on the smaller capacity. */
export function crossFlowEffectiveness(ntu: number, capacityRatio: number): number {
  if (ntu <= 0) return 0;
  if (capacityRatio < 1e-9) return 1 - Math.exp(-ntu);
  return 1 - Math.exp((ntu ** 0.22 / capacityRatio) * (Math.exp(-capacityRatio * ntu ** 0.78) - 1));
}

const AS_ESTIMATED: RadiatorFactor = { size: 1, conductance: 1 };

function radiating(radiator: LoopComponent, air: RadiatorAir, coolantW: number, flowLph: number, factor: RadiatorFactor): Radiating {
  const share = Math.max(0.02, air.fanSpeed) * (1 - air.blockage);
  const { face: whole, thicknessMm } = sizeOf(radiator);
  // a bare piece of the face passes next to nothing: the radiator is as large as what fans stand in front of
  const face = whole * (air.covered ?? 1);
  const airW = (factor.size * face * HEAT.faceAirflowM3h * share * HEAT.airDensity * HEAT.airHeatCapacity) / 3600;
  const depth = (thicknessMm / HEAT.faceThicknessMm) ** HEAT.thicknessExponent;
  const conductance =
    factor.size *
    factor.conductance *
    face *
    HEAT.faceConductance *
    depth *
    share ** HEAT.airExponent *
    (flowLph / (flowLph + HEAT.radiatorHalfFlowLph));
  const [small, large] = airW < coolantW ? [airW, coolantW] : [coolantW, airW];
  const effectiveness = crossFlowEffectiveness(conductance / small, small / large);
  return { airW, drop: (effectiveness * small) / coolantW, air };
}

/**
 * K/W between a block's part and its coolant: R₀ + c·Q^(−0.5). A coolant grown thicker than it was lets less heat through at the same flow:
 * a film goes with Re^(1/2)·Pr^(1/3), so its resistance with the sixth root of the viscosity (Incropera & DeWitt, section 7.2).
 * @param thickened viscosity over that of the sound coolant
 */
export const blockResistance = (flowLph: number, thickened = 1): number =>
  HEAT.blockBase + (HEAT.blockPerRootFlow * thickened ** (1 / 6)) / Math.sqrt(Math.max(1, flowLph));

/**
 * Steady temperatures with coolant and case air solved together. Everything is linear once the flows are known: each
 * part's outlet is its inlet plus P/(ρ·c·Q), or drawn towards the air in a radiator; where branches meet, flows mix;
 * the case is one well-mixed volume of air.
 * @param flow of the same loop
 */
export function solveHeat(loop: LoopFile, flow: FlowResult, conditions: HeatConditions): HeatResult {
  const { roomC, fluid, loadsW, caseHeatW, heatCapacity = HEAT.heatCapacity, blockFactors = {}, radiatorFactors = {} } = conditions;
  const flowOf = (id: string): number => flow.links.get(id)?.flowLph ?? 0;
  const flowing = loop.components.filter(({ id }) => Math.abs(flowOf(id)) > 0.1);
  if (flowing.length === 0) return { end: 'nothing-flows', parts: [], caseAirC: roomC };
  const capacity = (lph: number): number => (Math.abs(lph) / 3.6e6) * fluid.densityKgM3 * heatCapacity;
  const indexOf = new Map(flowing.map(({ id }, index) => [id, index]));
  const radiators = new Map(
    flowing
      .filter(({ kind }) => kind === 'radiator')
      .map((part) => {
        const air = Object.hasOwn(conditions.air, part.id) ? (conditions.air[part.id] as RadiatorAir) : usualAir(part, 1);
        return [
          part.id,
          radiating(part, air, capacity(flowOf(part.id)), Math.abs(flowOf(part.id)), radiatorFactors[part.id] ?? AS_ESTIMATED),
        ] as const;
      }),
  );
  if (radiators.size === 0) return { end: 'no-radiator', parts: [], caseAirC: roomC };

  // unknowns: outlet of every flowing part, then the case air
  const size = flowing.length + 1;
  const caseAt = flowing.length;
  const matrix = Array.from({ length: size }, () => new Float64Array(size));
  const right = new Float64Array(size);
  const feeds = feedShares(loop, flowOf, indexOf);
  flowing.forEach(({ id }, row) => {
    const line = matrix[row] as Float64Array;
    line[row] = 1;
    const radiator = radiators.get(id);
    const keeps = radiator ? 1 - radiator.drop : 1;
    for (const [from, share] of feeds[row] as [number, number][]) line[from] = (line[from] as number) - keeps * share;
    if (!radiator) right[row] = (loadsW[id] ?? 0) / capacity(flowOf(id));
    else if (radiator.air.from === 'room') right[row] = radiator.drop * roomC;
    else line[caseAt] = (line[caseAt] as number) - radiator.drop;
  });
  // the case: what blows in, what is drawn through gaps, and its own heat
  const line = matrix[caseAt] as Float64Array;
  let blownIn = 0;
  let blownOut = 0;
  right[caseAt] = caseHeatW;
  for (const [id, { airW, drop, air }] of radiators) {
    const row = indexOf.get(id) as number;
    if (air.to === 'case') {
      // what the radiator gives off arrives with its air
      const gives = drop * capacity(flowOf(id));
      for (const [from, share] of feeds[row] as [number, number][]) line[from] = (line[from] as number) - gives * share;
      if (air.from === 'room') {
        blownIn += airW;
        right[caseAt] += (airW - gives) * roomC;
      } else line[caseAt] = (line[caseAt] as number) + gives;
    } else if (air.from === 'case') blownOut += airW;
  }
  const gaps = Math.max(0, blownOut - blownIn) + LEAST_GAP_W;
  line[caseAt] = (line[caseAt] as number) + blownIn + gaps;
  right[caseAt] += gaps * roomC;

  const temperatures = solveDense(matrix, right);
  // parts that are warmed and have no way to lose it have no steady temperature
  if (!temperatures) return { end: 'singular', parts: [], caseAirC: roomC };
  const caseAirC = temperatures[caseAt] as number;
  const parts = flowing.map(({ id, kind }, row): PartHeat => {
    const coolantInC = (feeds[row] as [number, number][]).reduce((sum, [from, share]) => sum + share * (temperatures[from] as number), 0);
    const coolantOutC = temperatures[row] as number;
    const heatW = capacity(flowOf(id)) * (coolantOutC - coolantInC);
    const loadW = loadsW[id] ?? 0;
    const partC =
      kind === 'block' && loadW > 0
        ? (coolantInC + coolantOutC) / 2 + loadW * (blockFactors[id] ?? 1) * blockResistance(Math.abs(flowOf(id)))
        : null;
    const radiator = radiators.get(id);
    const inC = radiator?.air.from === 'room' ? roomC : caseAirC;
    return { id, coolantInC, coolantOutC, partC, heatW, air: radiator ? { inC, outC: inC - heatW / radiator.airW } : null };
  });
  return { end: 'solved', parts, caseAirC };
}

/** W/K; no case is tight: a little room air always comes in */
const LEAST_GAP_W = 2;

/** For every flowing part, the parts it is fed by and their shares of its inflow. */
function feedShares(loop: LoopFile, flowOf: (id: string) => number, indexOf: ReadonlyMap<string, number>): [number, number][][] {
  const inflows = Array.from(indexOf, () => new Map<number, number>());
  for (const { id, from, to } of loop.tubes) {
    const lph = flowOf(id);
    const [source, target] = lph >= 0 ? [from[0], to[0]] : [to[0], from[0]];
    const [a, b] = [indexOf.get(source), indexOf.get(target)];
    if (a === undefined || b === undefined || Math.abs(lph) < 1e-9) continue;
    const row = inflows[b] as Map<number, number>;
    row.set(a, (row.get(a) ?? 0) + Math.abs(lph));
  }
  return inflows.map((row) => {
    const total = [...row.values()].reduce((sum, lph) => sum + lph, 0);
    return [...row].map(([from, lph]) => [from, lph / total]);
  });
}
