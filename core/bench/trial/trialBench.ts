import type { Random } from '../../base/random/random.js';
import { liquidAt, type Liquid } from '../../machine/liquids/fluids.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { STANDING, type StandingName } from '../../machine/loop-file/orientation.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { BENCH_C, MEASURED } from '../../physics/measuring/errors.js';
import { fillDrive } from '../../physics/filling/fillDrive.js';
import { LiquidInside } from '../simulated-bench/liquidInside.js';

/** By how much the hidden bench differs from the twin, and hands from what they were told (design, "The led technician"). */
export const TRIAL = {
  /** standard deviations at which a drawn volume is cut */
  cutSd: 2.5,
  tubeSdShare: 0.03,
  partSdShare: 0.2,
  /** share by which a pump's head may be off its curve, either way */
  headShare: 0.15,
  /** share at most of the gas that radiators' cores should carry down and do not while the front passes */
  coreMissesShare: 0.5,
  /** share of what runs out that clings to the walls instead */
  hangsShare: 0.06,
  pourSdShare: 0.025,
  pourCutShare: 0.05,
  /** s by which a hand stops the pump late, at most */
  lateS: 1,
  /** share of pours and pump runs of which a hand does only a part, and how much of it */
  ownIdeaShare: 0.1,
  doesShare: [0.3, 0.9],
  /** share of openings that stay open after a drain until a lock says so */
  forgetsShare: 0.05,
  stepS: 0.1,
  /** mL/s at which a bottle is emptied beside a running pump */
  pourMlPerS: 25,
} as const;

const reservoirOf = ({ components }: LoopFile): LoopComponent => components.find(({ kind }) => kind === 'reservoir') as LoopComponent;

const cut = (random: Random, sd: number, most: number): number => Math.max(-most, Math.min(most, sd * random.normal()));

/**
 * The loop as it really is: parts off by their priors, the pump by its head.
 * @param known what it really was before it was changed
 * @param gone parts and tubes of that which are no more
 */
export function hiddenTrialLoop(loop: LoopFile, random: Random, known: LoopFile | null = null, gone: readonly string[] = []): LoopFile {
  // what stayed in a loop that is changed is in truth what it was
  const had = <T extends { id: string }>(list: readonly T[] | undefined, { id }: T): T | undefined =>
    gone.includes(id) ? undefined : list?.find((each) => each.id === id);
  const factor = (share: number): number => Math.max(0.3, 1 + cut(random, share, TRIAL.cutSd * share));
  const head = 1 + TRIAL.headShare * (2 * random.next() - 1);
  return {
    ...loop,
    components: loop.components.map((part) => {
      if (part.kind === 'reservoir' || part.volume_ml <= 0) return part;
      const stayed = had(known?.components, part);
      if (stayed) return { ...part, volume_ml: stayed.volume_ml, ...(stayed.curve ? { curve: stayed.curve } : {}) };
      const share = part.volume_sd_ml === undefined ? TRIAL.partSdShare : part.volume_sd_ml / part.volume_ml;
      const curve = part.curve?.map(([lph, kpa]) => [lph, kpa * head] as const);
      return { ...part, volume_ml: part.volume_ml * factor(share), ...(curve ? { curve } : {}) };
    }),
    tubes: loop.tubes.map((tube) => ({
      ...tube,
      bore_mm: had(known?.tubes, tube)?.bore_mm ?? tube.bore_mm * Math.sqrt(factor(TRIAL.tubeSdShare)),
    })),
  };
}

/** A bench whose truth nobody sees: what hands and pump do to it, what eyes read off it, and what went wrong on it. */
export class TrialBench {
  liquid: LiquidInside;
  readonly fillMarkMl: number;
  readonly lowMarkMl: number;
  nowMs: number;
  pumping = false;
  /** mL at openings that nobody was warned of; s of the longest dry run in a row */
  unwarnedMl = 0;
  dryWorstS = 0;
  private dryS = 0;
  private real: LoopFile;
  private readonly missedShare: number;
  private readonly mlPerMm: number;

  constructor(
    loop: LoopFile,
    private readonly coolant: Liquid,
    private readonly random: Random,
    startMs: number,
  ) {
    this.real = hiddenTrialLoop(loop, random);
    this.missedShare = TRIAL.coreMissesShare * random.next();
    this.liquid = this.liquidIn(this.real);
    const reservoir = reservoirOf(this.real);
    const box = reservoir.box as NonNullable<LoopComponent['box']>;
    ({ fillMarkMl: this.fillMarkMl, lowMarkMl: this.lowMarkMl } = reservoirMarks(reservoir));
    this.mlPerMm = reservoir.volume_ml / (box.max[1] - box.min[1]);
    this.nowMs = startMs;
  }

  private liquidIn(real: LoopFile): LiquidInside {
    const reservoir = reservoirOf(real);
    const fluid = liquidAt(this.coolant, BENCH_C);
    const { drive } = fillDrive(real, fluid, reservoir, this.missedShare);
    return new LiquidInside(real, reservoir, fluid, this.coolant, loopVolume(real).volumeMl, 0, drive);
  }

  /** Hands made of the loop the one that was wanted; what is gone took along what was in it. */
  rebuild(wanted: LoopFile, gone: readonly string[]): void {
    this.real = hiddenTrialLoop(wanted, this.random, this.real, gone);
    const before = this.liquid;
    this.liquid = this.liquidIn(this.real);
    this.liquid.carryFrom(before, gone);
  }

  /** mL, as an eye reads the level off the reservoir's wall. */
  readLevelMl(): number {
    const ml = this.liquid.shownMl(this.pumping) + this.mlPerMm * MEASURED.levelByEyeSdMm * this.random.normal();
    return Math.max(0, ml);
  }

  get levelMm(): number {
    return this.liquid.shownMl(this.pumping) / this.mlPerMm;
  }

  advance(seconds: number): void {
    let left = seconds;
    while (left > 1e-9) {
      const step = Math.min(left, this.pumping && !this.liquid.circulating ? TRIAL.stepS : this.pumping ? 1 : left);
      const dry = this.pumping ? this.liquid.run(step) : 0;
      this.dryS = dry > 0 ? this.dryS + dry : 0;
      this.dryWorstS = Math.max(this.dryWorstS, this.dryS);
      left -= step;
      this.nowMs += step * 1000;
    }
  }

  /** @param speed share of full speed; null: as the file says */
  setSpeed(speed: number | null): void {
    this.liquid.setSpeed(speed);
  }

  switchPump(on: boolean): void {
    if (this.pumping && !on) this.liquid.stop();
    this.pumping = on;
    if (!on) this.dryS = 0;
  }

  /**
   * A hand pours what it was told, and never above the mark, or the level it was told, as it sees it.
   * @returns what it poured in truth, and whether it stopped at the mark
   */
  pour(toldMl: number, upToMl = this.fillMarkMl): { readonly ml: number; readonly toMark: boolean } {
    const wantedMl = toldMl * (1 + cut(this.random, TRIAL.pourSdShare, TRIAL.pourCutShare));
    const seenMarkMl = upToMl + this.mlPerMm * MEASURED.levelByEyeSdMm * cut(this.random, 1, TRIAL.cutSd);
    let ml = 0;
    while (ml < wantedMl && this.liquid.shownMl(this.pumping) < seenMarkMl) {
      const drop = Math.min(2, wantedMl - ml);
      this.liquid.pour(drop);
      ml += drop;
    }
    return { ml, toMark: this.liquid.shownMl(this.pumping) >= seenMarkMl - 1 };
  }

  drawOff(ml: number): void {
    this.liquid.lose(ml);
  }

  /** What a jug shows of what went through it. */
  jugMl(ml: number): number {
    return Math.max(0, Math.round(ml * (1 + cut(this.random, 0.01, 0.03)) + 2 * this.random.normal()));
  }

  /**
   * Opens an air inlet, with the drain still shut (null) or once it has run: what leaves there nobody was warned of.
   * @returns mL that came at the drain meanwhile
   */
  openAir(how: {
    readonly standing: StandingName;
    readonly air: string;
    readonly others: readonly string[];
    readonly drain: string | null;
    /** the sheet said that liquid may come there: a jug stands under it */
    readonly isWarned: boolean;
  }): number {
    const { standing, air, others, drain, isWarned } = how;
    const drains = drain === null ? [air] : [drain, air];
    const left = this.liquid.open(STANDING[standing], { open: others, drains, closed: [] });
    if (!isWarned) this.unwarnedMl += left(air);
    return (isWarned ? left(air) : 0) + (drain === null ? 0 : left(drain));
  }

  /** Draws so much at a valve, or out of the reservoir by hose (null), as a hand stops it. @returns mL that came */
  draw(at: string | null, airs: readonly string[], toldMl: number): number {
    const ml = toldMl * (1 + cut(this.random, TRIAL.pourSdShare, TRIAL.pourCutShare));
    if (at === null) return this.liquid.lose(ml);
    return this.liquid.openUntil(STANDING.upright, { open: airs, drains: [at], closed: [] }, ml);
  }

  /**
   * Parts go out: their joints undone over the jug that was ordered; what stands in them goes into it as well.
   * @returns mL that came
   */
  takeOut(parts: readonly string[], joints: readonly string[], airs: readonly string[]): number {
    const left = this.liquid.open(STANDING.upright, { open: airs, drains: joints, closed: [] });
    const ran = joints.reduce((sum, joint) => sum + left(joint), 0);
    return ran + parts.reduce((sum, part) => sum + this.liquid.takeOut(part), 0);
  }

  /** Opens the drain over a jug. @returns mL that came */
  drain(standing: StandingName, drain: string, airs: readonly string[], warned: readonly string[] = []): number {
    const left = this.liquid.open(STANDING[standing], { open: airs, drains: [drain, ...airs], closed: [] });
    for (const air of airs) if (!warned.includes(air)) this.unwarnedMl += left(air);
    // what comes where a jug was said to stand is measured with the rest
    const ran = left(drain) + warned.reduce((sum, air) => sum + (airs.includes(air) ? left(air) : 0), 0);
    const hangs = ran * TRIAL.hangsShare * this.random.next();
    this.liquid.cling(hangs);
    return ran - hangs;
  }
}
