// @vitest-environment happy-dom
import type { FromOwner, OwnersNow } from '@core/workshop/owner-door/answers.js';
import { beforeEach, describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import { setToken } from '../../base/http/api.js';
import { useSession } from '../people/sessionStore.js';
import OwnerLinks from './OwnerLinks.vue';
import OwnersToday from './OwnersToday.vue';

beforeEach(() => {
  document.body.innerHTML = '';
});

const from = (more: Partial<FromOwner>): FromOwner => ({
  id: 'e1',
  at: '2026-03-10T09:00:00Z',
  said: { kind: 'slot', from: '2026-03-12T09:00:00Z' },
  systemId: 's',
  systemName: 'Tower',
  ownerName: 'Ada',
  phone: '555',
  jobId: 'j',
  file: null,
  ...more,
});
const NOW: OwnersNow = {
  sent: [from({}), from({ id: 'e2', said: { kind: 'line', text: 'It hums.' } })],
  waiting: [{ what: 'level', systemId: 's2', systemName: 'Cube', ownerName: 'Brisa', phone: null, jobId: null, since: '2026-03-08' }],
};
async function shown(role: 'lead' | 'front-desk' | 'technician', reply: (asked: Asked) => { status: number; body: unknown }) {
  const asked = fakeServer(reply);
  const screen = mountScreen({ components: { OwnersToday, OwnerLinks }, template: '<OwnersToday /><OwnerLinks system-id="s" />' });
  Object.assign(useSession(), { account: { personId: 'p', personName: 'Tess', role, timeZone: 'UTC', doorOpen: true, contact: { publicAddress: 'https://desk.example' } } }); // prettier-ignore
  setToken('t');
  await settle();
  return { asked, screen };
}
const answers = (path: string): { status: number; body: unknown } => ({ status: 200, body: path === '/owners-now' ? NOW : { links: [] } });

describe('owners on the desk’s page', () => {
  it('shows what they sent with what taking it does, and what waits for whom since when', async () => {
    const { screen } = await shown('lead', ({ path }) => answers(path));
    expect(wordsOf(screen)).toContain('Tower Ada, 555 Chose Thu 12 Mar, 09:00');
    expect(screen.findAll('.acts button').map((each) => each.text())).toEqual(['Keep that slot', 'No', 'Read']);
    expect(wordsOf(screen)).toContain('Cube photographs its level Brisa');
  });

  it('takes an answer once, and shows why where it could not', async () => {
    const { screen, asked } = await shown('lead', ({ method, path }) => (method === 'PUT' ? { status: 422, body: { error: { code: 'invalid-input', message: 'slots: the bench is taken', path: 'slots', fields: [{ path: 'slots', message: 'the bench is taken' }] } } } : answers(path))); // prettier-ignore
    await screen.find('.acts button').trigger('click');
    await settle();
    expect(asked.find(({ method }) => method === 'PUT')).toMatchObject({ path: '/door-entries/e1', body: { taken: true, words: '' } });
    expect(screen.find('[role=alert]').text()).toContain('taken');
    expect(screen.findAll('.sent li')).toHaveLength(2);
  });

  it('leaves what is the desk’s to the desk', async () => {
    const { screen } = await shown('technician', ({ path }) => answers(path));
    expect(screen.findAll('.acts button').map((each) => each.text())).toEqual(['Read']);
  });

  it('stands nowhere while nothing waits', async () => {
    const { screen } = await shown('lead', ({ path }) => ({ status: 200, body: path === '/owners-now' ? { sent: [], waiting: [] } : { links: [] } })); // prettier-ignore
    expect(screen.find('.owners').exists()).toBe(false);
  });
});

describe('links of a machine', () => {
  it('are shown once with their code, and ended', async () => {
    const link = { id: 'l1', jobId: null, madeAt: '2026-03-01T09:00:00Z', by: null, expiresAt: '2099-01-01T00:00:00Z', endedAt: null, seenAt: null }; // prettier-ignore
    const { screen, asked } = await shown('front-desk', ({ method, path }) => {
      if (method === 'POST') return { status: 201, body: { address: 'https://desk.example/door/#abc', links: [link] } };
      return path === '/owners-now' ? { status: 200, body: { sent: [], waiting: [] } } : { status: 200, body: { links: method === 'DELETE' ? [{ ...link, endedAt: '2026-03-10T09:00:00Z' }] : [link] } }; // prettier-ignore
    });
    expect(wordsOf(screen)).toContain('1 open, 0 ended');
    await screen.findAll('button').find((each) => each.text() === 'Make a link')?.trigger('click'); // prettier-ignore
    await settle();
    await expect.poll(() => screen.find('.fresh').exists()).toBe(true);
    expect(screen.find('.address').text()).toBe('https://desk.example/door/#abc');
    expect(screen.find('img[alt="Code that opens the owner’s page"]').exists()).toBe(true);
    await screen.find('button.link').trigger('click');
    await settle();
    expect(asked.some(({ method, path }) => method === 'DELETE' && path === '/owner-links/l1')).toBe(true);
    expect(wordsOf(screen)).toContain('0 open, 1 ended');
  });
});
