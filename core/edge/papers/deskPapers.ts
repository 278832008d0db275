import { dayIn } from '../../base/units/calendar.js';
import { formatDay, formatWeekdayTime } from '../../base/units/dates.js';
import { formatMl } from '../../base/units/display.js';
import { reading } from '../../base/units/reading.js';
import { capital, say, sayWord } from '../../base/words/say.js';
import { BOOKED_KINDS, type BookedKind } from '../../workshop/job-kinds/kinds.js';
import type { Estimate } from '../../workshop/prices/estimate.js';
import type { Priced } from '../../workshop/prices/priced.js';
import { WASTE_KINDS, type WasteKind } from '../../workshop/store/schema.js';
import type { UseLimit } from '../../workshop/due-dates/facts.js';
import { useLimitWords } from '../words/dates.js';
import { estimateWords } from '../words/prices.js';
import { row, section, type Block, type Paper } from './paper.js';
import { priceTable } from './priceBlocks.js';

/** Papers that the desk gives away: the estimate, the slips at drop-off and pick-up, the hand-over of waste. */

/** What every paper of a machine begins with. */
export interface DeskFacts {
  readonly workshop: { readonly name: string; readonly where: string; readonly phone: string; readonly timeZone: string };
  readonly owner: string;
  readonly machine: string;
  readonly today: string;
  /** opens the machine's page for those inside */
  readonly address: string;
}

const headOf = (facts: DeskFacts, title: string): Pick<Paper, 'title' | 'language' | 'from' | 'about'> => ({
  title,
  language: reading().language,
  from: facts.workshop,
  about: `${facts.machine} · ${facts.owner} · ${formatDay(facts.today)}`,
});
const codeOf = ({ address }: DeskFacts): Block => ({ kind: 'code', address, alt: say('Code that opens the machine’s page') });
const BLANK = '____________________';

export interface JobOnPaper {
  readonly kind: BookedKind;
  readonly estimate: Estimate;
  readonly slot: { readonly from: string; readonly to: string } | null;
  readonly neededBy: string | null;
  readonly agreedAt: string | null;
}

const priceOf = (estimate: Estimate): (Block | null)[] => [
  estimate.priced ? priceTable(say('Estimate'), estimate.priced) : { kind: 'text', text: estimateWords(estimate) },
  estimate.priced && estimate.priceText ? { kind: 'text', text: say('Told: {price}', { price: estimate.priceText }) } : null,
  estimate.partsText ? { kind: 'text', text: estimate.partsText } : null,
];

/** What it will take, for a signature. */
export function estimatePaper(facts: DeskFacts, job: JobOnPaper): Paper {
  return {
    ...headOf(facts, say('Estimate for {machine}', { machine: facts.machine })),
    blocks: [
      { kind: 'text', as: 'strong', text: capital(sayWord(BOOKED_KINDS[job.kind].label)) },
      ...section(say('What it will take'), priceOf(job.estimate)),
      {
        kind: 'text',
        text: say('An estimate: what is found on the bench may change it. Then you are asked again before anything goes on.'),
      },
      ...(job.agreedAt
        ? [
            {
              kind: 'text',
              as: 'strong',
              text: say('Agreed {day}', { day: formatDay(dayIn(facts.workshop.timeZone, new Date(job.agreedAt))) }),
            } as const,
          ]
        : []),
      { kind: 'sign', places: [say('Owner'), say('Day')] },
    ],
  };
}

/** What was brought, and in which state. */
export function dropOffPaper(
  facts: DeskFacts,
  job: JobOnPaper | null,
  loan: { readonly name: string; readonly until: string | null } | null,
): Paper {
  return {
    ...headOf(facts, say('Drop-off of {machine}', { machine: facts.machine })),
    blocks: [
      codeOf(facts),
      {
        kind: 'rows',
        rows: [
          ...row(say('Received'), formatDay(facts.today)),
          ...row(say('For'), job && capital(sayWord(BOOKED_KINDS[job.kind].label))),
          ...row(say('Slot'), job?.slot ? formatWeekdayTime(job.slot.from, facts.workshop.timeZone) : null),
          ...row(say('Needed by'), job?.neededBy ? formatDay(job.neededBy) : null),
          ...row(say('Condition'), BLANK),
          ...row(say('With it'), say('power cable ☐   box ☐   other {blank}', { blank: BLANK })),
          ...row(say('Data'), say('a copy exists ☐')),
          ...row(
            say('Loan machine'),
            loan ? (loan.until ? say('{name}, back by {day}', { name: loan.name, day: formatDay(loan.until) }) : loan.name) : '☐',
          ),
        ],
      },
      ...(job ? section(say('Estimate'), priceOf(job.estimate)) : []),
      { kind: 'sign', places: [say('Owner'), say('Workshop')] },
    ],
  };
}

export interface PickUpFacts {
  readonly coolant: string;
  readonly nextOn: string | null;
  readonly bill: Priced | null;
  readonly loan: string | null;
  readonly fixes: readonly {
    readonly what: string;
    readonly awaits: string;
    readonly until: string;
    readonly limits: readonly UseLimit[];
  }[];
}

/** What goes home, and what its owner looks after in the first days. */
export function pickUpPaper(facts: DeskFacts, { coolant, nextOn, bill, loan, fixes }: PickUpFacts): Paper {
  return {
    ...headOf(facts, say('Pick-up of {machine}', { machine: facts.machine })),
    blocks: [
      codeOf(facts),
      { kind: 'rows', rows: [...row(say('Coolant'), coolant), ...row(say('Next service by'), nextOn && formatDay(nextOn))] },
      ...fixes.map(({ what, awaits, until, limits }): Block => ({
        kind: 'text',
        as: 'notice',
        text: say('Until {day}: {what}, until {awaits}; {limits}.', { day: formatDay(until), what, awaits, limits: useLimitWords(limits) }),
      })),
      ...(loan ? [{ kind: 'text', as: 'strong', text: say('Bring back {loan}.', { loan }) } as const] : []),
      ...(bill ? section(say('To pay'), [priceTable(say('As the work took it'), bill)]) : []),
      { kind: 'text', text: say('Look at the level mark in two to seven days; a photograph of it is enough.') },
      {
        kind: 'text',
        as: 'strong',
        text: facts.workshop.phone
          ? say('If something drips: supply off at the wall, then call {phone}.', { phone: facts.workshop.phone })
          : say('If something drips: supply off at the wall, then call.'),
      },
      { kind: 'sign', places: [say('Owner'), say('Day')] },
    ],
  };
}

export interface WasteFacts {
  readonly container: {
    readonly label: string;
    readonly kind: WasteKind;
    readonly capacityMl: number;
    readonly levelMl: number;
    readonly handedOn: string | null;
    readonly handedTo: string;
    readonly carrier: string;
    readonly wasteCode: string;
    readonly documentNumber: string;
  };
  readonly entries: readonly { readonly at: string; readonly volumeMl: number; readonly from: string }[];
}

/** The paper that goes with a waste container. */
export function wastePaper(facts: Omit<DeskFacts, 'owner' | 'machine' | 'address'>, { container, entries }: WasteFacts): Paper {
  return {
    title: say('Hand-over of {label}', { label: container.label }),
    language: reading().language,
    from: facts.workshop,
    about: formatDay(facts.today),
    blocks: [
      {
        kind: 'rows',
        rows: [
          ...row(say('Container'), say('{label}, holds {ml}', { label: container.label, ml: formatMl(container.capacityMl) })),
          ...row(say('What'), say('{what} out of liquid-cooling loops', { what: capital(sayWord(WASTE_KINDS[container.kind])) })),
          ...row(say('How much'), formatMl(container.levelMl)),
          ...row(say('Waste code'), `${container.wasteCode || BLANK} (${say('by the list that holds here')})`),
          ...row(say('To'), container.handedTo || BLANK),
          ...row(say('Carried by'), container.carrier || (container.handedOn ? say('the workshop itself') : BLANK)),
          ...row(say('On'), container.handedOn ? formatDay(container.handedOn) : BLANK),
          ...row(say('Their paper'), container.documentNumber || BLANK),
        ],
      },
      {
        kind: 'table',
        caption: say('What went in'),
        head: [say('On'), say('Volume'), say('From')],
        rows: entries.map(({ at, volumeMl, from }) => [formatDay(dayIn(facts.workshop.timeZone, new Date(at))), formatMl(volumeMl), from]),
        figures: [1],
      },
      { kind: 'sign', places: [say('Handed over'), say('Taken')] },
      {
        kind: 'text',
        as: 'small',
        text: say(
          'Safety data sheets of the coolants go with it. Local rules and the collection point’s own papers come first; this is no legal statement.',
        ),
      },
    ],
  };
}
