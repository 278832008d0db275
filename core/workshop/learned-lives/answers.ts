import type { EarlyGroup } from './earlyGroups.js';
import type { LifeGroup } from './lifeGroups.js';

/** How long things last here, and what fails earlier than all others. */
export interface LivesAnswer {
  /** share of fills that may have failed by the day of their change */
  readonly risk: number;
  /** of the workshop's row, for changing the risk */
  readonly version: number;
  /** instant at which it was worked out last; null: never yet */
  readonly at: string | null;
  readonly groups: readonly NamedGroup[];
  readonly early: readonly EarlyLot[];
}

export interface NamedGroup extends LifeGroup {
  /** of a product or a lot; null for what is its own name */
  readonly name: string | null;
  /** of its liquid, #rrggbb; null where it is of several */
  readonly colour: string | null;
}

/** A lot that fails early, with the machines that hold it now. */
export interface EarlyLot extends Omit<EarlyGroup, 'group'> {
  readonly id: string;
  readonly what: string;
  readonly isCoolant: boolean;
  readonly seenOn: string;
  readonly holders: readonly LotHolder[];
  /** machines whose owners were told */
  readonly told: readonly string[];
}

export interface LotHolder {
  readonly systemId: string;
  readonly systemName: string;
  readonly ownerName: string;
  readonly phone: string | null;
  readonly email: string | null;
  readonly channel: string;
  readonly since: string;
}
