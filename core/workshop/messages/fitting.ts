import type { Whereabouts } from '../jobs/arrival.js';
import type { MessageTemplate } from './templates.js';

/** What is known of a machine when its owner is written to. */
export interface Standing {
  /** of its newest job; null: it has none that still counts */
  readonly where: Whereabouts | null;
  readonly notComeOn: string | null;
  /** an appointment that stands */
  readonly slot: { readonly from: string; readonly to: string } | null;
  /** day on which a part is expected that it waits for */
  readonly partsOn: string | null;
  readonly due: { readonly dueOn: string; readonly postponed: number } | null;
  readonly today: string;
}

/** The letter that fits, with the day or instant that it names, and the instant at which the machine is ready by the plan. */
export interface Fitting {
  readonly template: MessageTemplate;
  readonly when: string | null;
  readonly ready: string | null;
}

/** times that a service is put off from which its risk is what there is to say */
const RISK_FROM = 2;

/** What there is to say to an owner now: the latest that happened comes before what is to come. */
export function fittingLetter({ where, notComeOn, slot, partsOn, due, today }: Standing): Fitting {
  const plain = (template: MessageTemplate, when: string | null): Fitting => ({ template, when, ready: null });
  if (where === 'ready') return plain('ready', null);
  if (where === 'missed' && slot === null) return plain('missed', notComeOn);
  if (partsOn !== null && partsOn >= today && (where === 'here' || slot === null)) return plain('parts-late', partsOn);
  if (slot !== null && where !== 'here') return { template: 'slot', when: slot.from, ready: slot.to };
  if (due !== null) return plain(due.postponed >= RISK_FROM ? 'risk' : 'due-soon', due.dueOn);
  return plain('ready', null);
}
