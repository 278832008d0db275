import { addDays } from '../../base/units/calendar.js';
import type { CoolantClass } from '../../machine/liquids/classes.js';
import { STIRS_ITSELF_HOURS, suspensionOf } from '../../machine/liquids/suspensions.js';
import type { DateReason } from './facts.js';

/**
 * When a suspension at rest is stirred next: the pump alone, until all of it moves again.
 * @param hoursPerDay as its clocks count them; null: nobody gave any, and it is taken to run
 * @returns null where it needs none: no suspension, or a machine whose use stirs it
 */
export function stirringRun(
  since: string,
  coolantClass: CoolantClass,
  hoursPerDay: number | null,
): { dueOn: string; reason: DateReason } | null {
  const suspension = suspensionOf(coolantClass);
  if (!suspension || hoursPerDay === null || hoursPerDay >= STIRS_ITSELF_HOURS) return null;
  const days = suspension.stirDays;
  return { dueOn: addDays(since, days), reason: { why: 'stirring', since, coolantClass, days } };
}
