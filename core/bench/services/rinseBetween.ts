import type { ServiceFacts } from '../runs/facts.js';
import type { ProcedureTemplate } from '../runs/template.js';
import { RINSE } from './templates.js';

/** Whether what will be poured must not meet what is inside: it is let out whole, and rinsed until little enough is left. */
export const mustRinse = (follows: ServiceFacts['follows']): boolean => follows === 'rinse-between' || follows === 'never';

/**
 * A procedure of a job after which another coolant is poured: what stayed wet with the old one is rinsed, closed and tested, before the
 * first of the new goes in. Kinds that rinse anyway stay as they are.
 */
export function withRinse({ steps }: ProcedureTemplate, service: ServiceFacts): ProcedureTemplate {
  const fill = steps.findIndex(({ kind }) => kind === 'fill');
  const drains = steps.some(({ kind }) => kind === 'drain');
  if (!mustRinse(service.follows) || !drains || fill < 0 || steps.some(({ kind }) => kind === 'rinse')) return { steps };
  return { steps: [...steps.slice(0, fill), RINSE, ...steps.slice(fill)] };
}
