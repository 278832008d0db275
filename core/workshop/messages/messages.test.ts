import { describe, expect, it } from 'vitest';
import { longDay } from '../../base/units/dates.js';
import { MESSAGE_TEMPLATES, writeMessage } from './templates.js';

const contact = { address: 'Weir Lane 4', phone: '555 010', email: '', publicAddress: '' };
const facts = {
  owner: 'Ada Fernwick',
  machine: 'Tower',
  workshop: 'Fernhollow',
  contact,
  when: 'on 3 May',
  ready: 'on 4 May',
  text: 'a ring of the right size',
  link: '',
};

describe('messages to owners', () => {
  it('greet the owner, name the machine, and are signed by the workshop, whatever the matter', () => {
    for (const template of MESSAGE_TEMPLATES) {
      const { subject, body } = writeMessage(template, facts);
      expect(subject).toContain('Tower');
      expect(body.startsWith('Dear Ada Fernwick,')).toBe(true);
      expect(body.endsWith('Fernhollow\nWeir Lane 4\n555 010')).toBe(true);
      expect(`${subject}${body}`).not.toMatch(/undefined|null/);
    }
  });

  it('say the day in the subject where the matter has one', () => {
    expect(writeMessage('due-soon', facts).subject).toBe('Tower: its coolant is due on 3 May');
    expect(writeMessage('slot', facts).subject).toContain('on 3 May');
    const plain = writeMessage('due-soon', { ...facts, when: `on ${longDay('2027-03-10')}` });
    expect(plain.subject).toBe('Tower: its coolant is due on 10 March 2027');
  });
});
