import { say } from '@core/base/words/say.js';
import { formatIn } from '@core/base/units/display.js';
import { bleedModel, type BleedModel } from '@core/physics/air/airLeft.js';
import { adviseDraining, bestExtraOpening, type DrainPlan, type ExtraOpening } from '@core/physics/draining/advice.js';
import { DRAIN_POLICY, type DrainPolicy } from '@core/physics/draining/defaults.js';
import { contentsNow } from '@core/physics/live-book/atMark.js';
import { drainTurned, type DrainResult } from '@core/physics/draining/drain.js';
import { pictureOfContents, pictureOfDrain, type LiquidPicture } from '@core/physics/draining/picture.js';
import { planTakeOut, type TakeOutPlan } from '@core/physics/draining/takeOut.js';
import { FILL } from '@core/physics/filling/frontMoves.js';
import { INTAKE, intakeHeads, type IntakeHead } from '@core/physics/flow/intakeHead.js';
import type { InsideNow } from '@core/physics/live-book/insideNow.js';
import { simulateFill, type FillSimulation } from '@core/physics/filling/fillSimulation.js';
import { fillByGravity, type GravityFill } from '@core/physics/filling/gravityFill.js';
import { uncoverAngles, type UncoverAngle } from '@core/physics/filling/outletAngle.js';
import { prepareFlow, solveAtSpeed, solveFlow, type FlowResult, type PreparedFlow } from '@core/physics/flow/flow.js';
import { heatCapacityOf, liquidAt, WATER, type Liquid } from '@core/machine/liquids/fluids.js';
import { pumpsWithoutCurve } from '@core/physics/flow/network.js';
import { fullContents } from '@core/physics/contents/contents.js';
import { buildNetwork, vesselsWithoutBox, type GeometricNetwork } from '@core/physics/geometry/network.js';
import { STANDING, type Tilt } from '@core/machine/loop-file/orientation.js';
import { turnNetwork } from '@core/physics/geometry/turned.js';
import { obstructionOf, type Obstruction } from '@core/physics/diagnosis/obstruction.js';
import type { HeatCause } from '@core/physics/diagnosis/causes.js';
import { causePriors, diagnose, type Diagnosis } from '@core/physics/diagnosis/diagnose.js';
import type { LoadReading } from '@core/physics/diagnosis/loadReading.js';
import { airWith, warmestChangeK } from '@core/physics/heat/roomFor.js';
import { findQuietPoint, type QuietSearch } from '@core/physics/heat/quietPoint.js';
import { fanCurve, type FanCurveAnswer, type FanEnds } from '@core/physics/heat/fanCurve.js';
import { wattsToSpare, type SpareW } from '@core/physics/heat/spare.js';
import { airOf, solveHeat, type AirPath, type Breathing, type HeatResult } from '@core/physics/heat/steady.js';
import { partName, type LoopFile } from '@core/machine/loop-file/loopFile.js';
import { reservoirMarks } from '@core/machine/loop-file/marks.js';
import { unrollTurned, type UnrolledLoop } from '@core/physics/profile/unroll.js';
import { findTrappedAir, type AirPocket } from '@core/physics/air/pockets.js';
import { sweepPockets, type SweptPocket } from '@core/physics/air/sweep.js';

/** A drawing and what fills it. */
export interface Scene {
  readonly unrolled: UnrolledLoop;
  readonly picture: LiquidPicture;
}

export interface DrainAnswer extends Scene {
  readonly result: DrainResult;
  readonly extra: ExtraOpening | null;
}

export interface PlanAnswer {
  readonly plan: DrainPlan;
  /** what stands in the loop after each stage, as it then stands */
  readonly scenes: readonly Scene[];
}

export interface FillAnswer {
  readonly simulation: FillSimulation | null;
  readonly gravity: GravityFill | null;
  /** at rest before the first pulse, then for each pulse when the pump stops and when all has settled */
  readonly scenes: readonly Scene[];
  readonly uncovers: readonly UncoverAngle[];
}

export interface AirAnswer extends Scene {
  readonly pockets: readonly (Pick<AirPocket, 'volumeMl' | 'topMm' | 'sillMm'> & { parts: string[]; swept: SweptPocket | null })[];
  readonly totalMl: number;
  readonly flow: FlowResult | null;
  /** by pump, with the hottest coolant */
  readonly intakes: readonly IntakeHead[];
}

export type FigureKind = 'flow' | 'pressure' | 'temperature';

export interface LoadQuestion {
  readonly roomC: number;
  readonly loadsW: Readonly<Record<string, number>>;
  readonly caseHeatW: number;
  /** of radiators that do not breathe as usual for their place */
  readonly air: Readonly<Record<string, AirPath>>;
  /** of blocks whose resistance was measured */
  readonly blockFactors: Readonly<Record<string, number>>;
}

export interface HeatQuestion extends LoadQuestion {
  readonly pumpSpeed: number;
  readonly fanSpeed: number;
  /** of parts that may get only so warm; missing: watts to spare are not asked for */
  readonly limitsC?: Readonly<Record<string, number>>;
}

export interface QuietQuestion extends LoadQuestion {
  readonly limitsC: Readonly<Record<string, number>>;
}

export interface CurveQuestion extends QuietQuestion {
  readonly pumpSpeed: number;
  readonly ends: FanEnds;
}

export interface HeatAnswer extends Scene {
  readonly flowLph: number;
  readonly flow: FlowResult;
  readonly result: HeatResult;
  readonly spare: readonly SpareW[];
}

/** °C of the liquid on the bench, and under load in the machine */
const ROOM_WARM_C = 25;
const LOADED_C = 35;

/** The twin of one loop: everything a screen asks of it. Lives in a worker; the tests use it as it is. */
export class TwinEngine {
  private loop: LoopFile | null = null;
  private network: GeometricNetwork | null = null;
  private flow: PreparedFlow | null = null;
  private liquid: Liquid = WATER;

  /** @returns what keeps the twin from computing, in words, or null */
  load(loop: LoopFile, liquid: Liquid = WATER): string | null {
    this.loop = loop;
    this.liquid = liquid;
    this.network = null;
    this.flow = null;
    const boxless = vesselsWithoutBox(loop)[0];
    if (boxless)
      return say('{partName} has no box: say where its inside begins and ends, then its liquid has a height.', {
        partName: partName(boxless),
      });
    if (loop.components.length === 0) return say('There are no parts yet.');
    this.network = buildNetwork(loop);
    if (pumpsWithoutCurve(loop).length === 0) this.flow = prepareFlow(loop, liquidAt(liquid, ROOM_WARM_C));
    return null;
  }

  private loaded(): { loop: LoopFile; network: GeometricNetwork } {
    if (!this.loop || !this.network) throw new Error('the twin was asked before it was loaded');
    return { loop: this.loop, network: this.network };
  }

  /** Before: at least one drain. */
  drain(tilt: Tilt, open: readonly string[], drains: readonly string[]): DrainAnswer {
    const { loop, network } = this.loaded();
    const turned = turnNetwork(network, tilt);
    const setup = { open, drains, closed: [] };
    return {
      unrolled: unrollTurned(turned, loop),
      picture: pictureOfDrain(turned, setup),
      result: drainTurned(turned, setup),
      extra: bestExtraOpening(turned, loop, setup),
    };
  }

  /** What makes it worse than on its sound days; null where a pump has no curve, or nothing flows. */
  diagnose(
    before: LoadReading,
    after: LoadReading,
    seen: readonly string[],
    confirmed: Partial<Record<HeatCause, number>> = {},
    breathing?: Breathing,
  ): Diagnosis | null {
    const { loop } = this.loaded();
    return this.flow ? diagnose(loop, liquidAt(this.liquid, LOADED_C), before, after, seen, causePriors(confirmed), breathing) : null;
  }

  /** What explains a flow that fell; null where none did, or nobody can tell. */
  obstruction(sound: LoadReading, now: LoadReading): Obstruction | null {
    const { loop } = this.loaded();
    return this.flow ? obstructionOf(loop, liquidAt(this.liquid, LOADED_C), sound, now) : null;
  }

  /** With which levels at a stop of the pump can be read, at the pump speed of the file. null where they say nothing about millilitres. */
  bleeding(): BleedModel | null {
    const { loop } = this.loaded();
    return bleedModel(loop, this.liquid, loop.components.find(({ kind }) => kind === 'pump')?.speed ?? 1);
  }

  /** The loop full and closed, as it stands. */
  standing(tilt: Tilt): Scene {
    const { loop, network } = this.loaded();
    const turned = turnNetwork(network, tilt);
    return { unrolled: unrollTurned(turned, loop), picture: pictureOfContents(turned, fullContents(network)) };
  }

  /**
   * As the bench advises a machine that comes in.
   * @param standing what stands inside by the book; null: the loop stands at its mark
   * @param policy the workshop's own
   */
  advise(standing: InsideNow['standing'] = null, policy: DrainPolicy = DRAIN_POLICY): PlanAnswer {
    const { loop, network } = this.loaded();
    const plan = adviseDraining(loop, network, policy, contentsNow(loop, this.liquid, network, standing));
    const scenes = plan.stages.map(({ standing, left }) => {
      const turned = turnNetwork(network, STANDING[standing]);
      return { unrolled: unrollTurned(turned, loop), picture: pictureOfContents(turned, left) };
    });
    return { plan, scenes };
  }

  /** @param standing what stands inside; null: it stands at its mark */
  takeOut(componentId: string, standing: InsideNow['standing'] = null): TakeOutPlan {
    const { loop, network } = this.loaded();
    return planTakeOut(turnNetwork(network, STANDING.upright), loop, componentId, contentsNow(loop, this.liquid, network, standing));
  }

  /**
   * @param reservoirId where several circuits share a case; the first without it
   * @param standing what stands inside already; null: the loop is dry
   */
  pourAndPulse(reservoirId: string | null, standing: InsideNow['standing'] = null): FillAnswer {
    const { loop, network } = this.loaded();
    const reservoirs = loop.components.filter(({ kind }) => kind === 'reservoir');
    const reservoir = reservoirs.find(({ id }) => id === reservoirId) ?? reservoirs[0];
    if (!reservoir || !this.flow) return { simulation: null, gravity: reservoir ? null : fillByGravity(loop), scenes: [], uncovers: [] };
    const simulation = simulateFill(loop, liquidAt(this.liquid, ROOM_WARM_C), reservoir, {
      leastGainMl: FILL.handsGainMl,
      ...(standing ? { reservoirMl: standing.reservoirMl, wettedMl: Float64Array.from(standing.wettedMl) } : {}),
    });
    const turned = turnNetwork(network, STANDING.upright);
    const unrolled = unrollTurned(turned, loop);
    const states = [simulation.passive, ...simulation.pulses.flatMap(({ atStop, settled }) => [atStop, settled])];
    return {
      simulation,
      gravity: null,
      scenes: states.map((contents) => ({ unrolled, picture: pictureOfContents(turned, contents) })),
      uncovers: uncoverAngles(reservoir, reservoirMarks(reservoir).fillMarkMl),
    };
  }

  air(tilt: Tilt, speed: number): AirAnswer {
    const { loop, network } = this.loaded();
    const turned = turnNetwork(network, tilt);
    const { pockets, totalMl } = findTrappedAir(turned);
    const flow = this.flow ? solveAtSpeed(this.flow, speed) : null;
    const swept = flow ? sweepPockets(turned, loop, pockets, flow.links) : null;
    const contents = fullContents(network);
    for (const { nodes } of pockets) {
      for (const node of nodes) if ((network.vesselOf[node] as number) < 0) contents[node] = 0;
    }
    const picture = pictureOfContents(turned, contents);
    const vessels = new Map(picture.vessels);
    for (const { nodes, sillMm } of pockets) {
      for (const node of nodes) {
        const vessel = network.vesselOf[node] as number;
        const box = turned.boxes[vessel];
        if (!box) continue;
        const gasFrom = Math.max(box.bottomMm, sillMm);
        vessels.set(network.part[node] as number, [
          { fromMm: box.bottomMm, toMm: gasFrom, fate: 'liquid' },
          { fromMm: gasFrom, toMm: box.topMm, fate: 'gas' },
        ]);
      }
    }
    return {
      unrolled: unrollTurned(turned, loop),
      picture: { fates: picture.fates, vessels },
      pockets: pockets.map(({ volumeMl, topMm, sillMm, parts }, index) => ({
        volumeMl,
        topMm,
        sillMm,
        parts: parts.map((part) => network.partIds[part] as string),
        swept: swept?.[index] ?? null,
      })),
      totalMl,
      flow,
      intakes: flow ? intakeHeads(loop, flow, this.liquid, INTAKE.hottestC) : [],
    };
  }

  /**
   * What to write beside each part and tube of a drawing: flow, loss of pressure, or the coolant's temperature where it
   * leaves. null where it cannot be told.
   */
  figures(kind: FigureKind, pumpSpeed: number, load: LoadQuestion, fanSpeed = 1): ReadonlyMap<string, string> | null {
    const { loop } = this.loaded();
    if (!this.flow) return null;
    const flow = solveAtSpeed(this.flow, pumpSpeed);
    if (kind === 'temperature') {
      const { end, parts } = solveHeat(loop, flow, { ...load, ...this.warm(), air: airOf(loop, fanSpeed, load.air) });
      return end === 'solved' ? new Map(parts.map(({ id, coolantOutC }) => [id, formatIn('°C', coolantOutC, 1)])) : null;
    }
    return new Map(
      [...flow.links].map(([id, { flowLph, dropKpa }]) => [
        id,
        kind === 'flow' ? formatIn('L/h', Math.abs(flowLph)) : formatIn('kPa', Math.abs(dropKpa), 1),
      ]),
    );
  }

  /** The liquid as it is under load. */
  private warm() {
    return { fluid: liquidAt(this.liquid, LOADED_C), heatCapacity: heatCapacityOf(this.liquid) };
  }

  /** Steady temperatures; null where a pump has no curve. */
  heat({ pumpSpeed, fanSpeed, air, limitsC = {}, ...conditions }: HeatQuestion): HeatAnswer | null {
    const { loop, network } = this.loaded();
    if (pumpsWithoutCurve(loop).length > 0) return null;
    const warm = this.warm();
    const flow = this.flowAt(pumpSpeed);
    const given = { ...conditions, ...warm, air: airOf(loop, fanSpeed, air) };
    const result = solveHeat(loop, flow, given);
    const turned = turnNetwork(network, STANDING.upright);
    return {
      unrolled: unrollTurned(turned, loop),
      picture: pictureOfContents(turned, fullContents(network)),
      flowLph: Math.max(0, ...[...flow.links.values()].map(({ flowLph }) => Math.abs(flowLph))),
      flow,
      result,
      spare: wattsToSpare(loop, flow, given, limitsC, result),
    };
  }

  /** What each of these loops would change at the part that is warmest now, at the same speeds and loads; null where it cannot be told. */
  changes(
    { pumpSpeed, fanSpeed, air, limitsC: _limits, ...conditions }: HeatQuestion,
    others: readonly (LoopFile | null)[],
  ): (ReturnType<typeof warmestChangeK> | null)[] {
    const { loop } = this.loaded();
    const solved = (of: LoopFile): HeatResult =>
      solveHeat(of, this.flowThrough(of, pumpSpeed), { ...conditions, ...this.warm(), air: airOf(of, fanSpeed, airWith(loop, of, air)) });
    if (pumpsWithoutCurve(loop).length > 0) return others.map(() => null);
    const now = solved(loop);
    return others.map((other) => other && warmestChangeK(now, solved(other)));
  }

  private flowAt(pumpSpeed: number): FlowResult {
    return this.flowThrough(this.loaded().loop, pumpSpeed);
  }

  private flowThrough(loop: LoopFile, pumpSpeed: number): FlowResult {
    const speeds = Object.fromEntries(loop.components.filter(({ kind }) => kind === 'pump').map(({ id }) => [id, pumpSpeed]));
    return solveFlow(loop, { fluid: this.warm().fluid, speeds, closed: [] });
  }

  /** Fans that follow the coolant between two settings; null where a pump has no curve. */
  fanCurve({ pumpSpeed, ends, air, limitsC, ...conditions }: CurveQuestion): FanCurveAnswer | null {
    const { loop } = this.loaded();
    if (pumpsWithoutCurve(loop).length > 0) return null;
    return fanCurve(loop, this.flowAt(pumpSpeed), { ...conditions, ...this.warm() }, limitsC, air, ends);
  }

  /** The quietest speeds that keep the limits; does not depend on the speeds of now. */
  quietPoint({ limitsC, air, ...conditions }: QuietQuestion): QuietSearch | null {
    const { loop } = this.loaded();
    if (pumpsWithoutCurve(loop).length > 0) return null;
    return findQuietPoint(loop, { ...conditions, ...this.warm() }, limitsC, air);
  }
}
