import type { Fluid } from '../../machine/liquids/fluids.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { prepareFlow, solvePrepared, type FlowResult, type LinkFlow, type PreparedFlow } from '../flow/flow.js';
import { airOf, blockResistance, solveHeat, type Breathing } from '../heat/steady.js';
import { reachedOf, type LoadReading } from './loadReading.js';

/** A way in which a loop differs from its sound days; what is missing is as it was. */
export interface Shift {
  /** share of a radiator's air that is left */
  readonly air?: { readonly radiator: string; readonly share: number };
  /** of a part's own loss */
  readonly loss?: { readonly part: string; readonly factor: number };
  readonly ua?: { readonly radiator: string; readonly factor: number };
  /** of blocks' resistance to their coolant; without a block it is that of all */
  readonly film?: { readonly block: string | null; readonly factor: number };
  readonly paste?: { readonly block: string; readonly kPerW: number };
  /** share of the pumps' head that is left */
  readonly head?: number;
  /** share of the flow that is left */
  readonly flow?: number;
  readonly viscosity?: number;
}

/** What a reading would show. */
export interface Shown {
  readonly flowLph: number;
  /** at the outlet of the last radiator */
  readonly coolantC: number;
  readonly partsC: Readonly<Record<string, number>>;
}

const AS_USUAL: Breathing = { air: {}, caseHeatW: 0 };

/** Flows of one loop, each solved once: most causes leave it as it is. */
export class Hydraulics {
  private readonly sound: PreparedFlow;
  private readonly known = new Map<number, FlowResult>();

  constructor(
    readonly loop: LoopFile,
    readonly fluid: Fluid,
    readonly breathing: Breathing = AS_USUAL,
  ) {
    this.sound = prepareFlow(loop, fluid);
  }

  /** @param speed over that in the file, of every pump */
  at(speed: number, loss: Shift['loss'] | null, viscosity: number): FlowResult {
    if (loss || viscosity !== 1) {
      const loop = loss ? lossier(this.loop, loss.part, loss.factor) : this.loop;
      return solvePrepared(prepareFlow(loop, { ...this.fluid, viscosityMPaS: this.fluid.viscosityMPaS * viscosity }), this.speeds(speed));
    }
    const known = this.known.get(speed) ?? solvePrepared(this.sound, this.speeds(speed));
    this.known.set(speed, known);
    return known;
  }

  private speeds(speed: number): Record<string, number> {
    const pumps = this.loop.components.filter(({ kind }) => kind === 'pump');
    return Object.fromEntries(pumps.map((pump) => [pump.id, speed * (pump.speed ?? 1)]));
  }
}

/** The loop as it was on its sound days: factors on general estimates that make it say what was read then. */
export interface SoundTwin {
  readonly hydraulics: Hydraulics;
  readonly pumpFactor: number;
  readonly radiatorSize: number;
  readonly blockFactors: Readonly<Record<string, number>>;
}

/** bounds of the factors that a sound reading may ask for */
const PUMP_FACTOR = [0.2, 4] as const;
const RADIATOR_SIZE = [0.02, 50] as const;
const LEAST_BLOCK_FACTOR = 0.05;
/** halvings: a factor to one part in a million */
const HALVINGS = 28;

/** Full speed where nobody noted one. */
export const speedOf = (speed: number | undefined): number => speed ?? 1;

/** Factor at which a falling or rising figure meets its target, searched on a logarithmic scale; the nearer bound where none does. */
export function factorFor([from, to]: readonly [number, number], tooLow: (factor: number) => boolean): number {
  let [low, high] = [Math.log(from), Math.log(to)];
  for (let n = 0; n < HALVINGS; n += 1) {
    const middle = (low + high) / 2;
    if (tooLow(Math.exp(middle))) low = middle;
    else high = middle;
  }
  return Math.exp((low + high) / 2);
}

function lossier(loop: LoopFile, part: string, factor: number): LoopFile {
  const scaled = (component: LoopComponent): LoopComponent => {
    const { resistance } = component;
    if (component.id !== part || !resistance) return component;
    if ('points' in resistance)
      return { ...component, resistance: { points: resistance.points.map(([lph, kpa]) => [lph, kpa * factor] as const) } };
    const { linear_kpa_per_lpm: linear, quadratic_kpa_per_lpm2: quadratic } = resistance;
    return { ...component, resistance: { linear_kpa_per_lpm: linear * factor, quadratic_kpa_per_lpm2: quadratic * factor } };
  };
  return { ...loop, components: loop.components.map(scaled) };
}

const scaledFlow = (flow: FlowResult, share: number): FlowResult =>
  share === 1
    ? flow
    : {
        ...flow,
        links: new Map([...flow.links].map(([id, link]): [string, LinkFlow] => [id, { ...link, flowLph: link.flowLph * share }])),
      };

/** Flow round the loop: the largest through a pump. */
export function roundLph(loop: LoopFile, flow: FlowResult): number {
  const pumps = loop.components.filter(({ kind }) => kind === 'pump');
  return Math.max(0, ...pumps.map(({ id }) => Math.abs(flow.links.get(id)?.flowLph ?? 0)));
}

function flowAt({ hydraulics, pumpFactor }: SoundTwin, reading: LoadReading, shift: Shift): FlowResult {
  // a head is lost with the square of the speed
  const speed = speedOf(reading.pumpSpeed) * pumpFactor * Math.sqrt(shift.head ?? 1);
  return scaledFlow(hydraulics.at(speed, shift.loss ?? null, shift.viscosity ?? 1), shift.flow ?? 1);
}

function heatAt(twin: SoundTwin, reading: LoadReading, shift: Shift, flow: FlowResult) {
  const { air: said, caseHeatW } = twin.hydraulics.breathing;
  const air = airOf(twin.hydraulics.loop, speedOf(reading.fanSpeed), said);
  const blown = shift.air && air[shift.air.radiator];
  // what a panel takes from it was taken on its sound days as well
  if (shift.air && blown) air[shift.air.radiator] = { ...blown, blockage: 1 - (1 - blown.blockage) * shift.air.share };
  const radiators = twin.hydraulics.loop.components.filter(({ kind }) => kind === 'radiator');
  const factorOf = (id: string) => ({ size: twin.radiatorSize, conductance: shift.ua?.radiator === id ? shift.ua.factor : 1 });
  return solveHeat(twin.hydraulics.loop, flow, {
    roomC: reading.roomC,
    fluid: twin.hydraulics.fluid,
    loadsW: reading.powersW,
    air,
    caseHeatW,
    radiatorFactors: Object.fromEntries(radiators.map(({ id }) => [id, factorOf(id)])),
  });
}

/** The radiator that the coolant meets last behind the pump. */
function lastRadiator(loop: LoopFile, flow: FlowResult): string | null {
  const next = new Map<string, string[]>();
  for (const { id, from, to } of loop.tubes) {
    const lph = flow.links.get(id)?.flowLph ?? 0;
    const [a, b] = lph >= 0 ? [from[0], to[0]] : [to[0], from[0]];
    next.set(a, [...(next.get(a) ?? []), b]);
  }
  const kindOf = new Map(loop.components.map(({ id, kind }) => [id, kind]));
  const start = loop.components.find(({ kind }) => kind === 'pump')?.id;
  let last: string | null = null;
  const seen = new Set<string>();
  const waiting = start === undefined ? [] : [start];
  for (let at = waiting.shift(); at !== undefined; at = waiting.shift()) {
    if (seen.has(at)) continue;
    seen.add(at);
    if (kindOf.get(at) === 'radiator') last = at;
    waiting.push(...(next.get(at) ?? []));
  }
  return last;
}

/** What a reading under these conditions would show; null where nothing flows or nothing gives heat off. */
export function showAt(twin: SoundTwin, reading: LoadReading, shift: Shift = {}): Shown | null {
  const flow = flowAt(twin, reading, shift);
  const heat = heatAt(twin, reading, shift, flow);
  if (heat.end !== 'solved') return null;
  const reached = reachedOf(reading);
  const warmed = (endC: number): number => reading.roomC + reached * (endC - reading.roomC);
  const last = lastRadiator(twin.hydraulics.loop, flow);
  const supply = heat.parts.find(({ id }) => id === last)?.coolantOutC ?? reading.roomC;
  const partsC = Object.fromEntries(
    heat.parts
      .filter(({ id }) => reading.powersW[id] !== undefined)
      .map(({ id, coolantInC, coolantOutC }) => {
        const film = shift.film && (shift.film.block === null || shift.film.block === id) ? shift.film.factor : 1;
        const resistance =
          blockResistance(Math.abs(flow.links.get(id)?.flowLph ?? 0), shift.viscosity) * (twin.blockFactors[id] ?? 1) * film;
        const paste = shift.paste?.block === id ? shift.paste.kPerW : 0;
        return [id, warmed((coolantInC + coolantOutC) / 2 + (reading.powersW[id] ?? 0) * (resistance + paste))];
      }),
  );
  return { flowLph: roundLph(twin.hydraulics.loop, flow), coolantC: warmed(supply), partsC };
}

/** The twin that says what was read on sound days: pump by the flow, radiators by the coolant, each block by its own temperature. */
export function fitSound(hydraulics: Hydraulics, before: LoadReading): SoundTwin | null {
  const { loop } = hydraulics;
  const bare: SoundTwin = { hydraulics, pumpFactor: 1, radiatorSize: 1, blockFactors: {} };
  const { flowLph, coolantC } = before;
  const pumpFactor =
    flowLph === undefined
      ? 1
      : factorFor(PUMP_FACTOR, (factor) => roundLph(loop, flowAt({ ...bare, pumpFactor: factor }, before, {})) < flowLph);
  const flowing = { ...bare, pumpFactor };
  const flow = flowAt(flowing, before, {});
  const last = lastRadiator(loop, flow);
  const reached = reachedOf(before);
  const ended = (c: number): number => before.roomC + (c - before.roomC) / reached;
  const supplyAt = (radiatorSize: number): number =>
    heatAt({ ...flowing, radiatorSize }, before, {}, flow).parts.find(({ id }) => id === last)?.coolantOutC ?? before.roomC;
  const radiatorSize = coolantC === undefined ? 1 : factorFor(RADIATOR_SIZE, (factor) => supplyAt(factor) > ended(coolantC));
  const cooled = { ...flowing, radiatorSize };
  const heat = heatAt(cooled, before, {}, flow);
  if (heat.end !== 'solved') return null;
  const blockFactors = Object.fromEntries(
    heat.parts.flatMap(({ id, coolantInC, coolantOutC }) => {
      const [watts, partC] = [before.powersW[id], before.partsC[id]];
      if (!watts || partC === undefined) return [];
      const own = (ended(partC) - (coolantInC + coolantOutC) / 2) / watts / blockResistance(Math.abs(flow.links.get(id)?.flowLph ?? 0));
      return [[id, Math.max(LEAST_BLOCK_FACTOR, own)] as const];
    }),
  );
  return { ...cooled, blockFactors };
}
