import type { Random } from '../../base/random/random.js';
import { wantsLevelFirst } from '../runs/book.js';
import { expectedDrains } from '../runs/contents.js';
import type { RunEventBody } from '../runs/entries/all.js';
import { drainsDownTo } from '../runs/facts.js';
import type { Procedure } from '../runs/procedure.js';
import type { RunState } from '../runs/state.js';
import { TRIAL, type TrialBench } from './trialBench.js';

/** How the led technician drains: what the sheet says, opening by opening. */
export class DrainHands {
  /** openings that a hand forgot to shut: a lock has to answer before liquid meets them */
  private forgotten: (() => void)[] = [];

  constructor(
    private procedure: Procedure,
    private readonly bench: TrialBench,
    private readonly random: Random,
    private readonly say: (body: RunEventBody) => boolean,
  ) {}

  get hasForgotten(): boolean {
    return this.forgotten.length > 0;
  }

  /** The run goes on with another loop; what was left open still is. */
  goOnWith(procedure: Procedure): void {
    this.procedure = procedure;
  }

  /** A lock said so: everything is shut. */
  shutForgotten(): void {
    const open = this.forgotten;
    this.forgotten = [];
    open.forEach((shut) => shut());
  }

  /** Stand by stand as advised: turned, opened in the order that was said, measured. */
  drain(state: RunState): void {
    const { service } = this.procedure;
    if (!service) return;
    // the screen asks for the level before anything is opened
    if (wantsLevelFirst(state)) this.say({ type: 'level', levelMl: this.bench.readLevelMl() });
    if (service.change?.drain === 'none') return;
    const downTo = drainsDownTo(service);
    if (downTo) {
      this.drainToPart(downTo);
      return;
    }
    const come = expectedDrains(service);
    for (const [index, stand] of service.stands.slice(0, come.length).entries()) {
      const before = service.stands[index - 1]?.standing ?? 'upright';
      if (stand.standing !== before) this.say({ type: 'turn', to: stand.standing, angleDeg: stand.standing === 'upright' ? 0 : 90 });
      this.openAndDrain(stand, index === 0);
    }
    if (service.stands.at(-1)?.standing !== 'upright') this.say({ type: 'turn', to: 'upright', angleDeg: 0 });
  }

  /** Down to the part: air first, what stands above its joints drawn, then the joints undone and the part out. */
  private drainToPart({
    part,
    parts = [part],
    airs,
    drawFirstMl,
    drawAt = null,
    joints,
  }: NonNullable<NonNullable<Procedure['service']>['takeOut']>): void {
    const drew = (volumeMl: number): void => {
      if (volumeMl > 0) this.say({ type: 'drained', step: 'drain', volumeMl, how: 'jug', wasteId: null });
    };
    airs.forEach((air, index) => {
      this.bench.openAir({ standing: 'upright', air, others: airs.slice(0, index), drain: null, isWarned: false });
      this.say({ type: 'port', port: air, open: true });
    });
    if (drawFirstMl >= 5) {
      if (drawAt !== null) this.say({ type: 'port', port: drawAt, open: true });
      const ran = this.bench.draw(drawAt, airs, Math.round(drawFirstMl / 5) * 5);
      this.bench.advance(120);
      drew(this.bench.jugMl(ran));
      if (drawAt !== null) this.say({ type: 'port', port: drawAt, open: false });
    }
    // a port that opens is no tube's
    const tubes = [...new Set(joints.flatMap(({ joint }) => /^(.*)\.(?:from|to)$/.exec(joint)?.[1] ?? []))];
    for (const joint of tubes) this.say({ type: 'joint', joint, open: true });
    const came = this.bench.takeOut(
      parts,
      joints.map(({ joint }) => joint),
      airs,
    );
    this.bench.advance(600);
    drew(this.bench.jugMl(came));
    for (const joint of tubes) this.say({ type: 'joint', joint, open: false });
    for (const air of airs) this.say({ type: 'port', port: air, open: false });
  }

  openAndDrain(stand: NonNullable<Procedure['service']>['stands'][number], isFirst: boolean, step = 'drain'): void {
    const { standing, drain, airs, airsFollow } = stand;
    const move = (opening: string, isOpen: boolean): void => {
      const { ports = [], joints = [] } = this.procedure.facts ?? {};
      const joint = joints.find(({ id }) => opening.startsWith(`${id}.`));
      if (ports.some(({ name }) => name === opening)) this.say({ type: 'port', port: opening, open: isOpen });
      else if (joint) this.say({ type: 'joint', joint: joint.id, open: isOpen });
    };
    const open = (opening: string): void => move(opening, true);
    let ran = 0;
    if (airsFollow) {
      open(drain);
      ran += this.bench.drain(standing, drain, []);
    }
    airs.forEach((air, index) => {
      const isWarned = stand.mayRun?.some(({ opening }) => opening === air) === true;
      ran += this.bench.openAir({ standing, air, others: airs.slice(0, index), drain: airsFollow ? drain : null, isWarned });
      open(air);
    });
    if (!airsFollow) open(drain);
    ran += this.bench.drain(standing, drain, airs, (stand.mayRun ?? []).map(({ opening }) => opening)); // prettier-ignore
    this.bench.advance(isFirst ? 240 : 120);
    const volumeMl = this.bench.jugMl(ran);
    if (volumeMl > 0) this.say({ type: 'drained', step, volumeMl, how: 'jug', wasteId: null });
    for (const opening of [drain, ...airs]) {
      if (this.random.next() < TRIAL.forgetsShare) this.forgotten.push(() => move(opening, false));
      else move(opening, false);
    }
  }
}
