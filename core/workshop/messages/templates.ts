import { say } from '../../base/words/say.js';
import type { Contact } from '../people/contact.js';

/** What an owner is told. Plain words, one matter each; the workshop's name, address and number stand under it. */
export const MESSAGE_TEMPLATES = [
  'due-soon',
  'ready',
  'parts-late',
  'slot',
  'moved',
  'cancelled',
  'missed',
  'limit',
  'risk',
  'lot',
  'estimate',
  'larger',
  'offers',
  'level',
] as const;
export type MessageTemplate = (typeof MESSAGE_TEMPLATES)[number];

/** Letters that name no day. */
export const WITHOUT_DAY: readonly MessageTemplate[] = ['ready', 'lot', 'estimate', 'larger', 'offers'];

/** By e-mail, or as a short text to a telephone. */
export type MessageWay = 'email' | 'text';

/** Stands in a message that is not sent yet for the address of the owner's page: its secret is made as it leaves, and kept nowhere. */
export const LINK_MARK = '‹link›';

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
  /** address of the owner's page, or its mark; empty: none goes with it */
  readonly link: string;
}

export interface MessageText {
  readonly subject: string;
  readonly body: string;
}

const readyLine = (ready: string): string[] =>
  ready ? [say('By the plan it is ready {ready}, if its tests pass the first time.', { ready })] : [];
const more = (text: string): string[] => (text ? [text] : []);

const LINES: Readonly<Record<MessageTemplate, (facts: MessageFacts) => { subject: string; lines: readonly string[] }>> = {
  'due-soon': ({ machine, when, text }) => ({
    subject: say('{machine}: its coolant is due {when}', { machine, when }),
    lines: [
      say('the coolant of {machine} is due {when}{text}.', { machine, when, text: text ? ` (${text})` : '' }),
      say('Temperatures often look fine until particles choke the fins; the date is earlier than the damage.'),
      say('Tell us which days suit you, and whether you need a loan machine meanwhile.'),
    ],
  }),
  ready: ({ machine, text }) => ({
    subject: say('{machine} is ready', { machine }),
    lines: [
      say('{machine} is ready to be picked up.', { machine }),
      ...more(text),
      say('Look at the level mark in two to seven days; a photograph of it is enough.'),
    ],
  }),
  'parts-late': ({ machine, when, text }) => ({
    subject: say('{machine}: a part is late', { machine }),
    lines: [
      say('a part for {machine} is late{text}. We expect it {when}.', { machine, text: text ? `: ${text}` : '', when }),
      say('The machine stays as it is until then; nothing was put together half.'),
    ],
  }),
  risk: ({ machine, when, text }) => ({
    subject: say('{machine}: what putting its service off risks', { machine }),
    lines: [
      say('the service of {machine} was put off until {when}{text}.', { machine, when, text: text ? ` (${text})` : '' }),
      say(
        'Temperatures look fine until particles choke the fins. Then a flush no longer helps: the loop is stripped, and blocks, fins and plugs may have to be replaced.',
      ),
      say('Coolant past its life also stops protecting the metals inside.'),
      say('Tell us a day that suits you; ask for a loan machine if you cannot be without it.'),
    ],
  }),
  slot: ({ machine, when, ready, text }) => ({
    subject: say('{machine}: your slot is {when}', { machine, when }),
    lines: [
      say('we have kept {when} for {machine}.', { when, machine }),
      ...readyLine(ready),
      ...more(text),
      say('Bring its power cable, and save what must not be lost.'),
    ],
  }),
  moved: ({ machine, when, ready, text }) => ({
    subject: say('{machine}: its slot moved to {when}', { machine, when }),
    lines: [
      say('the slot of {machine} moved; it is now {when}. What we wrote before no longer holds.', { machine, when }),
      ...readyLine(ready),
      ...more(text),
      say('Call us if that does not suit you.'),
    ],
  }),
  cancelled: ({ machine, when, text }) => ({
    subject: say('{machine}: its slot is cancelled', { machine }),
    lines: [
      say('the slot that we kept for {machine}, {when}, is cancelled.', { machine, when }),
      ...more(text),
      say('Call us for another day.'),
    ],
  }),
  missed: ({ machine, when, text }) => ({
    subject: say('{machine}: we missed you', { machine }),
    lines: [
      say('we expected {machine} {when}, and it did not come. Its place went to somebody else.', { machine, when }),
      ...more(text),
      say('Tell us which days suit you.'),
    ],
  }),
  estimate: ({ machine, text }) => ({
    subject: say('{machine}: what it will take', { machine }),
    lines: [
      say('we reckon for {machine}: {text}.', { machine, text }),
      say('Nothing is begun before you agree. Read it line by line on the page below, and agree or decline there, or call us.'),
    ],
  }),
  larger: ({ machine, text }) => ({
    subject: say('{machine}: we found more, and ask you', { machine }),
    lines: [
      say('on the bench {machine} turned out to need more than you agreed to: {text}.', { machine, text }),
      say('It waits as it is until you answer. Read on the page below what changed, and agree or decline there, or call us.'),
    ],
  }),
  offers: ({ machine, text }) => ({
    subject: say('{machine}: choose its slot', { machine }),
    lines: [
      say('these slots are free for {machine}: {text}.', { machine, text }),
      say('Choose one on the page below, or tell us there which days do not suit. None is kept until we confirm it.'),
    ],
  }),
  level: ({ machine, when, text }) => ({
    subject: say('{machine}: please look at its level', { machine }),
    lines: [
      say('the last air in {machine} comes home in these days. Please look at the level mark {when}.', { machine, when }),
      ...more(text),
      say(
        'Switch it off, let it stand until it is cold, and photograph the reservoir from straight ahead; the page below takes the picture.',
      ),
    ],
  }),
  lot: ({ machine, text }) => ({
    subject: say('{machine}: we would like to look at it sooner', { machine }),
    lines: [
      say('what is in {machine} ({text}) lasted less long in other machines than such things usually do.', { machine, text }),
      say('Yours may be sound. Look at the liquid in the reservoir: if it is cloudy, has flakes or another colour, tell us at once.'),
      say('Send us a photograph of the reservoir, or tell us a day on which we may look.'),
    ],
  }),
  limit: ({ machine, when, text }) => ({
    subject: say('{machine}: its coolant is due {when}', { machine, when }),
    lines: [
      say('what we know of the coolant in {machine} changed{text}. It is now due {when}.', {
        machine,
        text: text ? `: ${text}` : '',
        when,
      }),
      say('Nothing is wrong with it; only the date moved. Tell us which days suit you.'),
    ],
  }),
};

/** A message as it is sent: greeting, the matter, the workshop and where it is. */
export function writeMessage(template: MessageTemplate, facts: MessageFacts): MessageText {
  const { subject, lines } = LINES[template](facts);
  const { address, phone, email } = facts.contact;
  const under = [facts.workshop, ...[address, phone, email].filter((each) => each !== '')];
  const door = facts.link === '' ? [] : [say('Where it stands, and what you can tell us: {link}', { link: facts.link })];
  return { subject, body: [say('Dear {owner},', { owner: facts.owner }), '', ...lines, ...door, '', ...under].join('\n') };
}

/** The same as a text to a telephone: the matter, the page, who writes. */
export function writeText(template: MessageTemplate, facts: MessageFacts): MessageText {
  const { subject } = LINES[template](facts);
  return { subject, body: [`${subject}.`, facts.link, [facts.workshop, facts.contact.phone].filter(Boolean).join(' ')].filter(Boolean).join(' ') }; // prettier-ignore
}
