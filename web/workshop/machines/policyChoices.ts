import { say } from '@core/base/words/say.js';
import { SERVICE_POLICIES, SERVICE_POLICY_KEYS, type ServicePolicy } from '@core/workshop/due-dates/due.js';

/** What an owner or a machine may have of its own; null follows the wider policy. */
export const POLICY_CHOICES: { value: ServicePolicy | null; title: string }[] = [
  { value: null, title: 'as the workshop does' },
  ...SERVICE_POLICY_KEYS.map((value) => ({ value, title: say(SERVICE_POLICIES[value].label) })),
];
