import { DisjointSets } from '../../base/numerics/disjointSets.js';
import { evaluateChain, type Chain, type ChainNetwork } from './chains.js';
import { FLOW } from './defaults.js';
import { prepareSparse, type SparseFactor } from '../../base/numerics/sparse.js';

/** Why the iteration ended. */
export type SolverEnd = 'converged' | 'nothing-flows' | 'too-many-steps' | 'singular';

export interface SolverOutcome {
  readonly end: SolverEnd;
  readonly steps: number;
}

/**
 * Steady flow in a chain network: mass balance at nodes, energy along chains, by Newton's method on both (global
 * gradient, Todini & Pilati 1988). The losses rise with flow, so the flows minimise a convex content; a step that
 * would pass the minimum is shortened to it. Everything is allocated once; a second call starts from the last flows.
 */
export class FlowSolver {
  /** L/min by chain, positive from `from` to `to` */
  readonly flowLpm: Float64Array;
  private readonly loss: Float64Array;
  private readonly slope: Float64Array;
  private readonly step: Float64Array;
  private readonly head: Float64Array;
  private readonly pair = new Float64Array(2);
  private readonly unknownOf: Int32Array;
  private readonly matrix: SparseFactor;
  private readonly chains: readonly Chain[];
  private readonly lastSpeeds: Float64Array;
  private warm = false;

  /** @param pumps number of pumps in the network */
  constructor({ nodeCount, chains }: ChainNetwork, pumps: number) {
    this.chains = chains;
    this.lastSpeeds = new Float64Array(pumps);
    this.flowLpm = new Float64Array(chains.length);
    this.loss = new Float64Array(chains.length);
    this.slope = new Float64Array(chains.length);
    this.step = new Float64Array(chains.length);
    const { unknownOf, count } = numberUnknowns(nodeCount, chains);
    this.unknownOf = unknownOf;
    this.head = new Float64Array(count);
    this.matrix = prepareSparse(
      count,
      chains.map(({ from, to }) => [unknownOf[from] as number, unknownOf[to] as number]),
    );
  }

  /** `speeds` by pump, 0 … 1. */
  solve(speeds: Float64Array): SolverOutcome {
    if (this.chains.length === 0) return { end: 'nothing-flows', steps: 0 };
    if (!this.warm) this.takeSlopesAtFirstGuess(speeds);
    else this.followSpeeds(speeds);
    this.lastSpeeds.set(speeds);
    for (let steps = 1; steps <= FLOW.mostSteps; steps += 1) {
      if (!this.findStep()) return { end: 'singular', steps };
      let moves = 0;
      let total = 0;
      for (let chain = 0; chain < this.flowLpm.length; chain += 1) {
        moves += Math.abs(this.step[chain] as number);
        total += Math.abs(this.flowLpm[chain] as number);
      }
      if (moves <= FLOW.stepShare * total + 1e-12 && (this.warm || steps > 1)) {
        // the last step is too small to matter to the losses
        for (let chain = 0; chain < this.flowLpm.length; chain += 1) {
          this.flowLpm[chain] = (this.flowLpm[chain] as number) + (this.step[chain] as number);
        }
        this.warm = true;
        return { end: 'converged', steps };
      }
      this.walk(speeds);
    }
    this.warm = false;
    return { end: 'too-many-steps', steps: FLOW.mostSteps };
  }

  /** Flows go nearly with pump speed (affinity laws): scaled by it, the last answer is close to the next. */
  private followSpeeds(speeds: Float64Array): void {
    let before = 0;
    let now = 0;
    for (let pump = 0; pump < speeds.length; pump += 1) {
      before += this.lastSpeeds[pump] as number;
      now += speeds[pump] as number;
    }
    if (before > 0 && now > 0 && now !== before) {
      for (let chain = 0; chain < this.flowLpm.length; chain += 1) this.flowLpm[chain] = ((this.flowLpm[chain] as number) * now) / before;
    }
    this.evaluate(speeds);
  }

  private takeSlopesAtFirstGuess(speeds: Float64Array): void {
    for (let chain = 0; chain < this.chains.length; chain += 1) {
      this.flowLpm[chain] = 0;
      evaluateChain(this.chains[chain] as Chain, speeds, FLOW.firstGuessLpm, this.pair);
      const guessed = this.pair[1] as number;
      evaluateChain(this.chains[chain] as Chain, speeds, 0, this.pair);
      this.loss[chain] = this.pair[0] as number;
      this.slope[chain] = Math.max(guessed, this.pair[1] as number);
    }
  }

  private evaluate(speeds: Float64Array): void {
    for (let chain = 0; chain < this.chains.length; chain += 1) {
      evaluateChain(this.chains[chain] as Chain, speeds, this.flowLpm[chain] as number, this.pair);
      this.loss[chain] = this.pair[0] as number;
      this.slope[chain] = this.pair[1] as number;
    }
  }

  /** Newton step in every chain: heads from the nodes' mass balance, then d = (H_from − H_to − h)/g. */
  private findStep(): boolean {
    const { values, diagonal, edge } = this.matrix;
    const { head, unknownOf } = this;
    values.fill(0);
    head.fill(0);
    for (let index = 0; index < this.chains.length; index += 1) {
      const chain = this.chains[index] as Chain;
      const from = unknownOf[chain.from] as number;
      const to = unknownOf[chain.to] as number;
      if (from === to) continue;
      const ease = 1 / (this.slope[index] as number);
      const push = (this.flowLpm[index] as number) - (this.loss[index] as number) * ease;
      if (from >= 0) {
        values[diagonal[from] as number] = (values[diagonal[from] as number] as number) + ease;
        head[from] = (head[from] as number) - push;
      }
      if (to >= 0) {
        values[diagonal[to] as number] = (values[diagonal[to] as number] as number) + ease;
        head[to] = (head[to] as number) + push;
      }
      const at = edge[index] as number;
      if (at >= 0) values[at] = (values[at] as number) - ease;
    }
    if (!this.matrix.factor()) return false;
    this.matrix.solve(head);
    for (let index = 0; index < this.chains.length; index += 1) {
      const chain = this.chains[index] as Chain;
      const from = unknownOf[chain.from] as number;
      const to = unknownOf[chain.to] as number;
      const drop = (from >= 0 ? (head[from] as number) : 0) - (to >= 0 ? (head[to] as number) : 0);
      this.step[index] = (drop - (this.loss[index] as number)) / (this.slope[index] as number);
    }
    return true;
  }

  /**
   * Moves along the step, shortened where the content would rise again. The content's slope along the step is
   * Σ h(q + αd)·d: it starts negative, and one evaluation tells whether the whole step still goes down.
   */
  private walk(speeds: Float64Array): void {
    let before = 0;
    for (let chain = 0; chain < this.chains.length; chain += 1) before += (this.loss[chain] as number) * (this.step[chain] as number);
    let taken = 0;
    let share = 1;
    for (let tries = 0; ; tries += 1) {
      for (let chain = 0; chain < this.chains.length; chain += 1) {
        this.flowLpm[chain] = (this.flowLpm[chain] as number) + (share - taken) * (this.step[chain] as number);
      }
      taken = share;
      this.evaluate(speeds);
      let after = 0;
      for (let chain = 0; chain < this.chains.length; chain += 1) after += (this.loss[chain] as number) * (this.step[chain] as number);
      if (after <= 0.5 * Math.abs(before) || tries >= 20) return;
      share *= Math.max(0.1, Math.abs(before) / (Math.abs(before) + after));
    }
  }
}

/** One node of every connected piece is held at head 0; the others are the unknowns. */
function numberUnknowns(nodeCount: number, chains: readonly Chain[]): { unknownOf: Int32Array; count: number } {
  const pieces = new DisjointSets(nodeCount);
  for (const { from, to } of chains) pieces.merge(from, to);
  let count = 0;
  const unknownOf = Int32Array.from({ length: nodeCount }, (_, node) => (pieces.find(node) === node ? -1 : count++));
  return { unknownOf, count };
}
