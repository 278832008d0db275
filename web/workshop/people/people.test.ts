// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import type { PersonRow, SignedInRow } from '@core/workshop/people/answers.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import OwnPasswordView from '../../pages/OwnPasswordView.vue';
import NewPasswordView from '../../pages/NewPasswordView.vue';
import PeopleList from './PeopleList.vue';
import SignInForm from './SignInForm.vue';
import SignedInList from './SignedInList.vue';

const person = (name: string, more: Partial<PersonRow> = {}): PersonRow => ({
  id: name,
  name,
  email: `${name.toLowerCase()}@mill.example`,
  role: 'technician',
  active: true,
  version: 1,
  ...more,
});
const button = (screen: ReturnType<typeof mountScreen>, name: RegExp) =>
  screen.findAll('button').find((each) => name.test(`${each.attributes('aria-label') ?? ''} ${each.text()}`)) as NonNullable<ReturnType<typeof screen.find>>; // prettier-ignore

describe('the people of a workshop', () => {
  it('shows who is no longer let in, and lets a lead change a line', async () => {
    const sent: { path: string; body: unknown }[] = [];
    fakeServer(({ method, path, body }) => {
      if (method === 'PUT') sent.push({ path, body });
      return { status: 200, body: person('Ada', { active: false, version: 2 }) };
    });
    const screen = mountScreen(PeopleList, { props: { people: [person('Ada'), person('Odo', { active: false })], isLead: true } });
    expect(wordsOf(screen)).toContain('technician, no longer let in');
    await button(screen, /Change: Ada/).trigger('click');
    await button(screen, /No longer let in/).trigger('click');
    await settle();
    expect(sent).toEqual([{ path: '/people/Ada', body: { name: 'Ada', role: 'technician', active: false, version: 1 } }]);
    expect((screen.emitted('changed')?.[0] as [PersonRow[]])[0].find(({ id }) => id === 'Ada')?.active).toBe(false);
  });

  it('offers nothing to change to somebody who is no lead', async () => {
    fakeServer(() => ({ status: 200, body: {} }));
    const screen = mountScreen(PeopleList, { props: { people: [person('Ada')], isLead: false } });
    expect(screen.findAll('button')).toHaveLength(0);
  });
});

describe('somebody who forgot', () => {
  it('asks for a link with the address that was typed, and is told where it goes', async () => {
    const asked: unknown[] = [];
    fakeServer(({ path, body }) => {
      if (path === '/password-link') asked.push(body);
      return { status: 202, body: { asked: true } };
    });
    const screen = mountScreen(SignInForm);
    await screen.find('input[type="email"]').setValue('tess@mill.example');
    await button(screen, /Send me a link/).trigger('click');
    await settle();
    expect(asked).toEqual([{ email: 'tess@mill.example' }]);
    expect(wordsOf(screen)).toContain('If tess@mill.example has an account here');
  });

  it('chooses by the link, which leaves the address bar at once', async () => {
    const sent: unknown[] = [];
    fakeServer(({ path, body }) => {
      if (path === '/new-password') sent.push(body);
      return { status: 200, body: { changed: true } };
    });
    window.location.hash = '#mark';
    const screen = mountScreen(NewPasswordView);
    await screen.find('input[type="password"]').setValue('heron under mill door');
    await screen.find('form').trigger('submit');
    await settle();
    expect(sent).toEqual([{ link: 'mark', password: 'heron under mill door' }]);
    expect(window.location.hash).toBe('');
  });
});

describe('where somebody is signed in', () => {
  it('names device and day, and signs out all but this one in one touch', async () => {
    const row = (id: string, more: Partial<SignedInRow>): SignedInRow => ({ id, personId: 'p', person: 'Ada', device: 'tablet', since: '2026-03-01T08:00:00Z', lastUsed: '2026-03-09T08:00:00Z', own: false, ...more }); // prettier-ignore
    const sent: string[] = [];
    fakeServer(({ method, path }) => {
      sent.push(`${method} ${path}`);
      return {
        status: 200,
        body: { sessions: method === 'GET' ? [row('a', { own: true, device: 'computer' }), row('b', {})] : [row('a', { own: true })] },
      };
    });
    const screen = mountScreen(SignedInList);
    await settle();
    expect(wordsOf(screen)).toContain('Ada on a tablet');
    await button(screen, /Sign out: Ada, a tablet/).trigger('click');
    await settle();
    expect(sent).toContain('DELETE /signed-in/b');
    expect(screen.findAll('li')).toHaveLength(1);
  });
});

describe('one’s own password', () => {
  it('is changed with the old one, and a refusal stands at its field', async () => {
    fakeServer(({ method }) =>
      method === 'PUT'
        ? { status: 422, body: { error: { code: 'invalid-input', message: 'is not your password', fields: [{ path: 'current', message: 'is not your password' }] } } } // prettier-ignore
        : { status: 200, body: { sessions: [] } },
    );
    const screen = mountScreen(OwnPasswordView);
    await settle();
    await screen.find('form').trigger('submit');
    await settle();
    expect(wordsOf(screen)).toContain('Is not your password');
  });
});
