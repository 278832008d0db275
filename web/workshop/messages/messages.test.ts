// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import CalendarAddresses from '../calendar/CalendarAddresses.vue';
import { NO_CONTACT } from '@core/workshop/people/contact.js';
import { useSession } from '../people/sessionStore.js';
import MessageDialog from './MessageDialog.vue';
import MessagesView from '../../pages/MessagesView.vue';

const STANDING = { where: 'ready' as const, notComeOn: null, slot: null, partsOn: null, due: null, today: '2026-03-10' };

beforeEach(() => {
  document.body.innerHTML = '';
});

describe('a message to an owner', () => {
  it('is the one that fits what is known, with its time and when it is ready', async () => {
    fakeServer(() => ({ status: 200, body: {} }));
    const slot = { from: '2026-03-12T09:00:00Z', to: '2026-03-12T15:00:00Z' };
    mountScreen(MessageDialog, {
      props: { systemId: 's', machine: 'Tower', owner: 'Ada', reading: {}, standing: { ...STANDING, where: 'awaited', slot } },
    });
    await settle();
    const words = document.querySelector('.v-dialog')?.textContent ?? '';
    expect(words).toMatch(/we have kept on Thursday,? 12 March 2026 at 09:00 for Tower/);
    expect(words).toMatch(/By the plan it is ready on Thursday,? 12 March 2026 at 15:00/);
  });

  it('is read before it goes, and is sent as it was read', async () => {
    const asked = fakeServer(() => ({ status: 201, body: { messages: [], standIn: [] } }));
    const screen = mountScreen(MessageDialog, {
      props: { systemId: 's', machine: 'Tower', owner: 'Ada', reading: {}, standing: STANDING },
    });
    await settle();
    const dialog = document.querySelector('.v-dialog') as HTMLElement;
    expect(dialog.textContent).toContain('Tower is ready to be picked up.');
    dialog.querySelector('form')?.dispatchEvent(new Event('submit', { cancelable: true, bubbles: true }));
    await settle();
    expect(asked.find(({ method }) => method === 'POST')).toMatchObject({ path: '/messages', body: { systemId: 's', template: 'ready' } });
    expect(screen.emitted('sent')?.[0]).toEqual(['The message waits to be sent; it goes within a minute.']);
  });

  it('that the server refuses stays open with the reason', async () => {
    fakeServer(() => ({
      status: 409,
      body: { error: { code: 'refused', message: 'Ada has no e-mail address on record; call instead.' } },
    }));
    const screen = mountScreen(MessageDialog, {
      props: { systemId: 's', machine: 'Tower', owner: 'Ada', reading: {}, standing: STANDING },
    });
    await settle();
    document.querySelector('.v-dialog form')?.dispatchEvent(new Event('submit', { cancelable: true, bubbles: true }));
    await settle();
    expect(document.querySelector('.v-dialog')?.textContent).toContain('call instead');
    expect(screen.emitted('close')).toBeUndefined();
  });
});

describe('what owners were told', () => {
  const message = { id: 'm', at: '2026-03-01T09:00:00Z', sentAt: null, address: 'ada@x.example', subject: 'Tower is ready', body: 'Dear Ada', state: 'failed', problem: 'no such mailbox', systemId: 's', systemName: 'Tower', by: null }; // prettier-ignore
  it('is listed with its state; what could not be sent says to call', async () => {
    fakeServer(() => ({ status: 200, body: { messages: [message], standIn: [] } }));
    const screen = mountScreen(MessagesView);
    await settle();
    expect(wordsOf(screen)).toMatch(/Tower is ready ada@x\.example .* could not be sent: call instead/);
    expect(wordsOf(screen)).toContain('written at night');
    expect(wordsOf(screen)).toContain('no such mailbox');
  });

  it('teaches where there is nothing yet', async () => {
    fakeServer(() => ({ status: 200, body: { messages: [], standIn: [] } }));
    const screen = mountScreen(MessagesView);
    await settle();
    expect(wordsOf(screen)).toContain('Every night those who like e-mail hear');
  });
});

describe('calendar addresses', () => {
  const feedsFor = (account: object, feeds: object[]) =>
    fakeServer(({ method, path }) => {
      if (path === '/session')
        return { status: 200, body: { signedIn: true, account, token: 't', today: '2026-03-10', now: '2026-03-10T09:00:00Z' } };
      return method === 'POST' ? { status: 201, body: { path: '/calendar/abc.ics' } } : { status: 200, body: { feeds } };
    });

  it('are made one at a time and shown once; a new one says that the old one ends', async () => {
    const lead = { role: 'lead', personId: 'l', contact: NO_CONTACT };
    const asked = feedsFor(lead, [{ personId: null }]);
    const screen = mountScreen(CalendarAddresses, { props: { people: [{ id: 'p', name: 'Ilse' }] } });
    useSession().account = lead as never;
    await settle();
    expect(wordsOf(screen)).toContain('The whole workshop');
    const [whole, off, own] = screen.findAll('button');
    expect(whole?.text()).toContain('the old one ends');
    expect(off?.text()).toBe('switch it off');
    expect(own?.text()).toBe('make an address');
    await own?.trigger('click');
    await settle();
    expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({ personId: 'p' });
    expect(screen.find('code').text()).toMatch(/\/calendar\/abc\.ics$/);
    await off?.trigger('click');
    await settle();
    expect(asked.find(({ method }) => method === 'DELETE')?.path).toBe('/calendars/workshop');
  });

  it('are one’s own for everybody but the lead, and carry the workshop’s public address', async () => {
    const people = [{ id: 'p', name: 'Ilse' }, { id: 'q', name: 'Jorrit' }]; // prettier-ignore
    const contact = { ...NO_CONTACT, publicAddress: 'https://desk.example' };
    const hand = { role: 'technician', personId: 'q', contact };
    feedsFor(hand, []);
    const screen = mountScreen(CalendarAddresses, { props: { people } });
    useSession().account = hand as never;
    await settle();
    expect(screen.findAll('button')).toHaveLength(1);
    await screen.find('button').trigger('click');
    await settle();
    expect(screen.find('code').text()).toBe('https://desk.example/calendar/abc.ics');
  });
});
