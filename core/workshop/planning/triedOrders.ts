import { emptyBoard, placeInOrder, putOnBoard, type Board } from './place.js';
import { endOf, lateCost, type PlacedJob, type PlanJob, type PlanProblem } from './problem.js';

export interface Ordered {
  /** of precedence; empty where the plan did not come from an order */
  readonly order: readonly number[];
  /** in that order */
  readonly placed: readonly PlacedJob[];
  /** weighted late minutes */
  readonly cost: number;
}

/** jobs between two boards that are kept */
const KEPT_EVERY = 6;

/** Tries orders that begin like the one before: what lies before the first change is taken over, and what gets too dear is given up early. */
export class TriedOrders {
  private boards: Board[] = [];
  private costs: number[] = [];

  constructor(
    private readonly problem: PlanProblem,
    private kept: Ordered,
  ) {
    this.keep(kept);
  }

  get current(): Ordered {
    return this.kept;
  }

  /** What comes after begins like this one. */
  keep(ordered: Ordered): void {
    this.kept = ordered;
    this.boards = [];
    this.costs = [];
    const board = emptyBoard(this.problem);
    let cost = 0;
    ordered.placed.forEach((placed, at) => {
      if (at % KEPT_EVERY === 0) this.boards.push(copyOf(board));
      this.costs.push(cost);
      putOnBoard(this.problem, board, placed);
      cost += this.costOf(placed);
    });
  }

  /**
   * @param from first place in which the order differs from the kept one
   * @param most weighted late minutes, above which nobody wants to know
   * @returns null: a job fits nowhere, or it costs more
   */
  try(order: readonly number[], from: number, most: number): Ordered | null {
    const nearest = Math.min(this.boards.length - 1, Math.floor(from / KEPT_EVERY));
    if (nearest < 0) return null;
    const board = copyOf(this.boards[nearest] as Board);
    const same = this.kept.placed.slice(0, from);
    same.slice(nearest * KEPT_EVERY).forEach((each) => putOnBoard(this.problem, board, each));
    let cost = this.costs[from] ?? this.kept.cost;
    const rest = placeInOrder(this.problem, order.slice(from), board, (job) => (cost += this.costOf(job)) <= most);
    return rest && { order, placed: [...same, ...rest], cost };
  }

  private costOf(placed: PlacedJob): number {
    return lateCost(this.problem.jobs[placed.job] as PlanJob, endOf(placed));
  }
}

const copyOf = ({ technicians, benches, kits }: Board): Board => ({
  technicians: technicians.map((spans) => [...spans]),
  benches: benches.map((spans) => [...spans]),
  kits: new Map([...kits].map(([id, spans]) => [id, [...spans]])),
});
