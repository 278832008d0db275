/** What an owner is told. Plain words, one matter each; the workshop's name stands under it. */
export const MESSAGE_TEMPLATES = ['due-soon', 'ready', 'parts-late', 'slot', 'risk'] as const;
export type MessageTemplate = (typeof MESSAGE_TEMPLATES)[number];

export interface MessageFacts {
  readonly owner: string;
  readonly machine: string;
  readonly workshop: string;
  /** a day or a time in words, where the template names one */
  readonly when: string;
  /** reason, parts, or a remark */
  readonly text: string;
}

export interface MessageText {
  readonly subject: string;
  readonly body: string;
}

const LINES: Readonly<Record<MessageTemplate, (facts: MessageFacts) => { subject: string; lines: readonly string[] }>> = {
  'due-soon': ({ machine, when, text }) => ({
    subject: `${machine}: its coolant is due ${when}`,
    lines: [
      `the coolant of ${machine} is due ${when} (${text}).`,
      'Temperatures often look fine until particles choke the fins; the date is earlier than the damage.',
      'Tell us which days suit you, and whether you need a loan machine meanwhile.',
    ],
  }),
  ready: ({ machine, text }) => ({
    subject: `${machine} is ready`,
    lines: [
      `${machine} is ready to be picked up.`,
      ...(text ? [text] : []),
      'Look at the level mark in two to seven days; a photograph of it is enough.',
    ],
  }),
  'parts-late': ({ machine, when, text }) => ({
    subject: `${machine}: a part is late`,
    lines: [
      `a part for ${machine} is late: ${text}. We expect it ${when}.`,
      'The machine stays as it is until then; nothing was put together half.',
    ],
  }),
  risk: ({ machine, when, text }) => ({
    subject: `${machine}: what putting its service off risks`,
    lines: [
      `the service of ${machine} was put off until ${when} (${text}).`,
      'Temperatures look fine until particles choke the fins. Then a flush no longer helps: the loop is stripped, and blocks, fins and plugs may have to be replaced.',
      'Coolant past its life also stops protecting the metals inside.',
      'Tell us a day that suits you; ask for a loan machine if you cannot be without it.',
    ],
  }),
  slot: ({ machine, when, text }) => ({
    subject: `${machine}: your slot is ${when}`,
    lines: [`we have kept ${when} for ${machine}.`, ...(text ? [text] : []), 'Bring its power cable, and save what must not be lost.'],
  }),
};

/** A calendar day as an owner reads it in a letter: 10 March 2027. */
export const longDay = (day: string): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', dateStyle: 'long' }).format(new Date(`${day}T00:00:00Z`));

/** A message as it is sent: greeting, the matter, the workshop. */
export function writeMessage(template: MessageTemplate, facts: MessageFacts): MessageText {
  const { subject, lines } = LINES[template](facts);
  return { subject, body: [`Dear ${facts.owner},`, '', ...lines, '', facts.workshop].join('\n') };
}
