import type { Contact } from '../people/contact.js';

/** What an owner is told. Plain words, one matter each; the workshop's name, address and number stand under it. */
export const MESSAGE_TEMPLATES = ['due-soon', 'ready', 'parts-late', 'slot', 'moved', 'cancelled', 'missed', 'limit', 'risk'] as const;
export type MessageTemplate = (typeof MESSAGE_TEMPLATES)[number];

/** Letters that name no day. */
export const WITHOUT_DAY: readonly MessageTemplate[] = ['ready'];

export interface MessageFacts {
  readonly owner: string;
  readonly machine: string;
  readonly workshop: string;
  readonly contact: Contact;
  /** a day or a time in words, where the template names one */
  readonly when: string;
  /** when it is ready by the plan, in words; empty: nobody can tell */
  readonly ready: string;
  /** reason, parts, or a remark */
  readonly text: string;
}

export interface MessageText {
  readonly subject: string;
  readonly body: string;
}

const readyLine = (ready: string): string[] => (ready ? [`By the plan it is ready ${ready}, if its tests pass the first time.`] : []);
const more = (text: string): string[] => (text ? [text] : []);

const LINES: Readonly<Record<MessageTemplate, (facts: MessageFacts) => { subject: string; lines: readonly string[] }>> = {
  'due-soon': ({ machine, when, text }) => ({
    subject: `${machine}: its coolant is due ${when}`,
    lines: [
      `the coolant of ${machine} is due ${when}${text ? ` (${text})` : ''}.`,
      'Temperatures often look fine until particles choke the fins; the date is earlier than the damage.',
      'Tell us which days suit you, and whether you need a loan machine meanwhile.',
    ],
  }),
  ready: ({ machine, text }) => ({
    subject: `${machine} is ready`,
    lines: [
      `${machine} is ready to be picked up.`,
      ...more(text),
      'Look at the level mark in two to seven days; a photograph of it is enough.',
    ],
  }),
  'parts-late': ({ machine, when, text }) => ({
    subject: `${machine}: a part is late`,
    lines: [
      `a part for ${machine} is late${text ? `: ${text}` : ''}. We expect it ${when}.`,
      'The machine stays as it is until then; nothing was put together half.',
    ],
  }),
  risk: ({ machine, when, text }) => ({
    subject: `${machine}: what putting its service off risks`,
    lines: [
      `the service of ${machine} was put off until ${when}${text ? ` (${text})` : ''}.`,
      'Temperatures look fine until particles choke the fins. Then a flush no longer helps: the loop is stripped, and blocks, fins and plugs may have to be replaced.',
      'Coolant past its life also stops protecting the metals inside.',
      'Tell us a day that suits you; ask for a loan machine if you cannot be without it.',
    ],
  }),
  slot: ({ machine, when, ready, text }) => ({
    subject: `${machine}: your slot is ${when}`,
    lines: [
      `we have kept ${when} for ${machine}.`,
      ...readyLine(ready),
      ...more(text),
      'Bring its power cable, and save what must not be lost.',
    ],
  }),
  moved: ({ machine, when, ready, text }) => ({
    subject: `${machine}: its slot moved to ${when}`,
    lines: [
      `the slot of ${machine} moved; it is now ${when}. What we wrote before no longer holds.`,
      ...readyLine(ready),
      ...more(text),
      'Call us if that does not suit you.',
    ],
  }),
  cancelled: ({ machine, when, text }) => ({
    subject: `${machine}: its slot is cancelled`,
    lines: [`the slot that we kept for ${machine}, ${when}, is cancelled.`, ...more(text), 'Call us for another day.'],
  }),
  missed: ({ machine, when, text }) => ({
    subject: `${machine}: we missed you`,
    lines: [
      `we expected ${machine} ${when}, and it did not come. Its place went to somebody else.`,
      ...more(text),
      'Tell us which days suit you.',
    ],
  }),
  limit: ({ machine, when, text }) => ({
    subject: `${machine}: its coolant is due ${when}`,
    lines: [
      `what we know of the coolant in ${machine} changed${text ? `: ${text}` : ''}. It is now due ${when}.`,
      'Nothing is wrong with it; only the date moved. Tell us which days suit you.',
    ],
  }),
};

/** A message as it is sent: greeting, the matter, the workshop and where it is. */
export function writeMessage(template: MessageTemplate, facts: MessageFacts): MessageText {
  const { subject, lines } = LINES[template](facts);
  const { address, phone, email } = facts.contact;
  const under = [facts.workshop, ...[address, phone, email].filter((each) => each !== '')];
  return { subject, body: [`Dear ${facts.owner},`, '', ...lines, '', ...under].join('\n') };
}
