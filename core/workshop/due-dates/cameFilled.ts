import { addMonths } from '../../base/units/calendar.js';
import { COOLANT_CLASSES, type CoolantClass } from '../../machine/liquids/classes.js';
import { SERVICE_POLICIES, type ServicePolicy } from './due.js';
import type { DateReason } from './facts.js';

/** A loop that somebody else filled, as far as anybody says. */
export interface CameFilledFacts {
  /** null: unknown, it mixes with nothing */
  readonly product: { readonly name: string; readonly coolantClass: CoolantClass; readonly sheetLifeMonths: number | null } | null;
  readonly since: string | null;
  readonly policy: ServicePolicy;
  readonly today: string;
}

/** Its next service by its age: the earlier of the coolant's life and the policy, never in the past; today where nobody knows the age. */
export function cameFilledDue({ product, since, policy, today }: CameFilledFacts): { dueOn: string; reason: DateReason } {
  const life = product ? (product.sheetLifeMonths ?? COOLANT_CLASSES[product.coolantClass].baseLifeMonths) : null;
  const limits = [life, SERVICE_POLICIES[policy].months].filter((months) => months !== null);
  const byAge = since !== null && limits.length > 0 ? addMonths(since, Math.min(...limits)) : today;
  return { dueOn: byAge > today ? byAge : today, reason: { why: 'came-filled', product: product?.name ?? null, since, months: life } };
}
