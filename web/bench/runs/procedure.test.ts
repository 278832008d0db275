// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';
import { STANDARD_TEMPLATE } from '@core/bench/commissioning/standardTemplate.js';
import type { ProcedureTemplate } from '@core/bench/runs/template.js';
import { fakeServer, mountScreen, settle, wordsOf, type Asked } from '../../../tests/screens/mountScreen.js';
import { useSession } from '../../workshop/people/sessionStore.js';
import ProcedureView from '../../pages/ProcedureView.vue';
import StepEditor from './StepEditor.vue';

const kit = STANDARD_TEMPLATE.steps[0] as (typeof STANDARD_TEMPLATE.steps)[number];
const isolate = STANDARD_TEMPLATE.steps.find(({ id }) => id === 'isolate') as typeof kit;

describe('a step in words', () => {
  const editor = (step = kit, readonly = false) => mountScreen(StepEditor, { props: { step, readonly, removable: true } });
  const last = (screen: ReturnType<typeof editor>) => screen.emitted<[typeof kit]>('change')?.at(-1)?.[0];

  it('takes new words, checks and an order of its own', async () => {
    const screen = editor();
    await screen.find('.order').setValue('Everything on the towel.');
    expect(last(screen)?.lead).toBe('Everything on the towel.');
    await screen.findAll('button').find((each) => each.text() === 'Add a check')?.trigger('click'); // prettier-ignore
    expect(last(screen)?.checks).toHaveLength(kit.checks.length + 1);
    await screen.findAll('button[aria-label^="Later"]')[0]?.trigger('click');
    expect(last(screen)?.checks.slice(0, 2)).toEqual([kit.checks[1], kit.checks[0]]);
    await screen.findAll('button[aria-label^="Take it out"]')[1]?.trigger('click');
    expect(last(screen)?.checks).toEqual(kit.checks.filter((_, index) => index !== 1));
  });

  it('names what the loop fills in, which cannot be taken out', () => {
    const screen = editor(isolate);
    expect(wordsOf(screen)).toContain('every connector that is pulled');
    const out = screen.findAll('button[aria-label^="Take it out"]');
    expect(out[1]?.attributes('disabled')).toBeDefined();
  });

  it('is shown as the bench will show it, without a brace', async () => {
    const dry = STANDARD_TEMPLATE.steps.find(({ id }) => id === 'dry') as typeof kit;
    const screen = editor(dry);
    const order = screen.find<HTMLTextAreaElement>('.order');
    expect(order.element.value).toContain('Raise to ‹test pressure› kPa');
    await order.setValue('To ‹test pressure› kPa, no more.');
    expect(last(screen)?.lead).toBe('To {gaugeKpa} kPa, no more.');
  });

  it('is only read by those who do not lead', () => {
    expect(editor(kit, true).findAll('button')).toHaveLength(0);
  });
});

describe('the procedure of the workshop', () => {
  let asked: Asked[];
  const own: ProcedureTemplate = {
    steps: STANDARD_TEMPLATE.steps.map((step) => (step.id === 'fill' ? { ...step, lead: 'Slowly.' } : step)),
  };
  const version = { number: 1, template: own, note: 'spilled twice', by: 'Lead', at: '2026-03-01T10:00:00Z' };
  const open = async (role: 'lead' | 'technician') => {
    const screen = mountScreen(ProcedureView);
    useSession().$patch({ account: { role, timeZone: 'UTC' } as never });
    await settle();
    return screen;
  };
  beforeEach(() => {
    asked = fakeServer(({ method, body }) =>
      method === 'POST'
        ? {
            status: 201,
            body: {
              standard: STANDARD_TEMPLATE,
              versions: [{ ...version, number: 2, template: (body as { template: ProcedureTemplate }).template }, version],
              learned: [],
            },
          }
        : {
            status: 200,
            body: { standard: STANDARD_TEMPLATE, versions: [version], learned: [{ id: 'k1', name: 'Long hex key', on: '2026-03-01' }] },
          },
    );
  });

  it('is compared with what it came from', async () => {
    const screen = await open('technician');
    expect(wordsOf(screen)).toContain('version 1');
    expect(wordsOf(screen)).toMatch(/Fill, lead changed Pour slowly.*Slowly\./);
    expect(wordsOf(screen)).toContain('Only the lead changes the procedure');
  });

  it('shows what the kit learned, and strikes a line out', async () => {
    const screen = await open('lead');
    expect(wordsOf(screen)).toContain('Long hex key');
    await screen
      .findAll('button')
      .find((each) => each.text() === 'not asked for')
      ?.trigger('click');
    await settle();
    expect(asked.some(({ method, path }) => method === 'DELETE' && path === '/kit-learned/k1')).toBe(true);
  });

  it('becomes a new version with a reason', async () => {
    const screen = await open('lead');
    await screen.find('.editor input').setValue('Lay it all out');
    await screen.find('.save input').setValue('clearer title');
    await screen.find('.save').trigger('submit');
    await settle();
    const post = asked.find(({ method }) => method === 'POST');
    expect(post?.body).toMatchObject({ note: 'clearer title', from: 1 });
    expect((post?.body as { template: ProcedureTemplate }).template.steps[0]?.title).toBe('Lay it all out');
    expect(wordsOf(screen)).toContain('version 2');
  });
});
