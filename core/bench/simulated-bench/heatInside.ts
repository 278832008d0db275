import { shortName } from '../../machine/catalogue/names.js';
import type { Fluid } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { kindOfPart, PART_KINDS, type PartKind } from '../../physics/diagnosis/sensors.js';
import { solveFlow } from '../../physics/flow/flow.js';
import { HEAT } from '../../physics/heat/defaults.js';
import { airOf, solveHeat } from '../../physics/heat/steady.js';
import { usualBlocks } from '../../physics/heat/usual.js';
import { SIMULATED } from './defaults.js';

/** What a machine says of one of its parts. */
export interface PartShown {
  readonly tempC: number;
  readonly powerW: number;
}

/** Where the load would end: K of the coolant over the room, and of each part over its coolant. */
interface Ends {
  readonly coolantK: number;
  readonly partsK: ReadonlyMap<PartKind, number>;
}

/** How the loop stands at a moment. */
export interface HeatMoment {
  readonly roomC: number;
  readonly insideMl: number;
  readonly pumping: boolean;
  /** liquid goes round */
  readonly flows: boolean;
  /** share of the file's pump speeds */
  readonly slowed: number;
}

const ROOM_C = 20;

/** Heat in the loop of a simulated bench: its coolant, and the parts that a load test warms. The first block of each kind is the one that is read. */
export class HeatInside {
  coolantC: number = SIMULATED.roomC;
  /** null: the machine has not been started under load yet, and says nothing */
  private loaded: boolean | null = null;
  private readonly loads: readonly { readonly id: string; readonly kind: PartKind; readonly loadW: number }[];
  /** K over the coolant */
  private readonly over = new Map<PartKind, number>();
  private known: { readonly slowed: number; readonly ends: Ends | null } | null = null;

  constructor(
    private loop: LoopFile,
    private readonly fluid: Fluid,
  ) {
    const blocks = new Map(loop.components.map((part) => [part.id, kindOfPart(shortName(part))]));
    const all = usualBlocks(loop).flatMap(({ id, loadW }) => {
      const kind = blocks.get(id) ?? null;
      return kind === null ? [] : [{ id, kind, loadW }];
    });
    this.loads = PART_KINDS.flatMap((kind) => all.find((each) => each.kind === kind) ?? []);
  }

  /** What held the flow up is put right. */
  widened(loop: LoopFile): void {
    this.loop = loop;
    this.known = null;
  }

  load(on: boolean): void {
    this.loaded = on;
  }

  get isLoaded(): boolean {
    return this.loaded === true;
  }

  /** Parts that the machine speaks of. */
  get parts(): readonly PartKind[] {
    return this.loaded === null ? [] : this.loads.map(({ kind }) => kind);
  }

  /** null: nothing gives the heat off, or nothing flows */
  private endsAt(slowed: number): Ends | null {
    if (this.known?.slowed === slowed) return this.known.ends;
    const ends = this.solve(slowed);
    this.known = { slowed, ends };
    return ends;
  }

  private solve(slowed: number): Ends | null {
    const pumps = this.loop.components.filter(({ kind }) => kind === 'pump');
    const speeds = Object.fromEntries(pumps.map(({ id, speed = 1 }) => [id, speed * slowed]));
    const flow = solveFlow(this.loop, { fluid: this.fluid, speeds, closed: [] });
    const loadsW = Object.fromEntries(this.loads.map(({ id, loadW }) => [id, loadW]));
    const air = airOf(this.loop, SIMULATED.loadFans);
    const heat = solveHeat(this.loop, flow, { roomC: ROOM_C, fluid: this.fluid, loadsW, air, caseHeatW: 0 });
    if (heat.end !== 'solved') return null;
    const at = new Map(heat.parts.map((each) => [each.id, each]));
    const reservoir = this.loop.components.find(({ kind }) => kind === 'reservoir');
    const coolantC = at.get(reservoir?.id ?? '')?.coolantInC ?? ROOM_C;
    const partsK = this.loads.flatMap(({ id, kind }) => {
      const partC = at.get(id)?.partC ?? null;
      return partC === null ? [] : [[kind, partC - coolantC] as const];
    });
    return { coolantK: coolantC - ROOM_C, partsK: new Map(partsK) };
  }

  /** Lets time pass. @param stepS seconds, short beside the minutes in which coolant warms */
  advance(stepS: number, { roomC, insideMl, pumping, flows, slowed }: HeatMoment): void {
    const ends = this.loaded !== null && flows ? this.endsAt(slowed) : null;
    const capacity = HEAT.heatCapacity * Math.max(0.2, insideMl / 1000) + (this.loaded ? SIMULATED.metalJPerK : 0);
    // standing, or with the pump's own heat alone, the loop gives off little
    const own = { riseK: (pumping ? SIMULATED.pumpHeatW : 0) / SIMULATED.coolingWPerK, wPerK: SIMULATED.coolingWPerK };
    const allW = this.loads.reduce((sum, { loadW }) => sum + loadW, 0);
    const { riseK, wPerK } = this.loaded && ends && ends.coolantK > 0 ? { riseK: ends.coolantK, wPerK: allW / ends.coolantK } : own;
    this.coolantC += (roomC + riseK - this.coolantC) * (1 - Math.exp((-stepS * wPerK) / capacity));
    for (const { kind } of this.loads) {
      const wantedK = this.share * (ends?.partsK.get(kind) ?? SIMULATED.withoutFlowK);
      const now = this.over.get(kind) ?? 0;
      this.over.set(kind, now + (wantedK - now) * (1 - Math.exp(-stepS / SIMULATED.partTauS)));
    }
  }

  /** of its load that a machine draws */
  private get share(): number {
    return this.loaded ? 1 : this.loaded === null ? 0 : SIMULATED.idleShare;
  }

  /** What the machine says of its parts; a part that grows too hot gives up work instead. */
  shown(): Partial<Record<PartKind, PartShown>> {
    if (this.loaded === null) return {};
    return Object.fromEntries(
      this.loads.map(({ kind, loadW }) => {
        const overK = this.over.get(kind) ?? 0;
        const roomK = Math.max(0, SIMULATED.throttlesAtC - this.coolantC);
        const given = overK > roomK ? roomK / overK : 1;
        return [kind, { tempC: this.coolantC + Math.min(overK, roomK), powerW: given * this.share * loadW }];
      }),
    );
  }
}
