// @vitest-environment happy-dom
import type { FittedLot } from '@core/workshop/lots/answers.js';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import { useNotices } from '../../base/shell/notices.js';
import LotMates from './LotMates.vue';
import PartLots from './PartLots.vue';

describe('who else holds what is suspected', () => {
  const ask = async (answer: object, props: object = {}) => {
    const asked = fakeServer(() => ({ status: 200, body: answer }));
    const screen = mountScreen(LotMates, { props: { jobId: 'j', suspect: 'part', item: 'pump', ...props } });
    await settle();
    return { asked, words: wordsOf(screen) };
  };
  const mate = { systemId: 's', systemName: 'Also plugged', ownerName: 'Ada', phone: '+351 555', since: '2026-02-01' };

  it('is listed with the number to call, before and after the sign-off', async () => {
    const before = await ask({ what: 'Plug, Q-77', mates: [mate] });
    expect(before.asked[0]?.path).toBe('/jobs/j/mates?suspect=part&item=pump');
    expect(before.words).toBe(
      'One other machine holds Plug, Q-77; each is flagged at the sign-off: Also plugged Ada +351 555 since 1 Feb 2026',
    );
    expect((await ask({ what: 'Plug, Q-77', mates: [mate] }, { done: true })).words).not.toContain('sign-off');
  });

  it('tells nobody from nothing known', async () => {
    expect((await ask({ what: 'Plug, Q-77', mates: [] })).words).toBe('No other machine holds Plug, Q-77.');
    expect((await ask({ what: null, mates: [] })).words).toContain('No lot of it is on record, so nobody can say');
  });

  it('waits for the part to be named', async () => {
    expect((await ask({ what: null, mates: [] }, { item: null })).asked).toEqual([]);
  });
});

describe('lots of a machine’s parts', () => {
  const own: FittedLot = { id: 'f', loopId: 'l', itemId: 'pump', make: 'Seal set', lot: 'R-1', fittedOn: '2026-02-01' };
  const open = (lots: readonly FittedLot[]) =>
    mountScreen(PartLots, { props: { systemId: 's', lots, loops: [{ id: 'l', name: 'Main', file: usualLoop() }], today: '2026-03-10' } });

  it('are kept by part, make and lot', async () => {
    const asked = fakeServer(() => ({ status: 201, body: { lots: [] } }));
    const screen = open([]);
    expect(wordsOf(screen)).toContain('None kept.');
    await screen.find('button').trigger('click');
    const inputs = screen.findAll('.v-text-field');
    await inputs.find((each) => each.find('label').text() === 'Make on its bag')?.find('input').setValue('Plug, plated'); // prettier-ignore
    await inputs.find((each) => each.find('label').text() === 'Lot on its bag')?.find('input').setValue(' Q-77 '); // prettier-ignore
    await screen.find('form').trigger('submit');
    await settle();
    expect(asked[0]).toMatchObject({
      path: '/systems/s/lots',
      body: { loopId: 'l', itemId: null, make: 'Plug, plated', lot: 'Q-77', fittedOn: '2026-03-10' },
    });
    expect(screen.emitted('reload')).toHaveLength(1);
  });

  it('are taken out, which can be undone', async () => {
    const asked = fakeServer(() => ({ status: 200, body: { lots: [] } }));
    const screen = open([own]);
    expect(wordsOf(screen)).toContain('Seal set lot R-1 pump, 1 Feb 2026');
    await screen.find('button[aria-label="Seal set is out"]').trigger('click');
    await settle();
    expect(asked[0]).toMatchObject({ method: 'DELETE', path: '/lots/f' });
    await useNotices().current?.undo?.();
    expect(asked[1]?.body).toEqual({ loopId: 'l', itemId: 'pump', make: 'Seal set', lot: 'R-1', fittedOn: '2026-02-01' });
  });
});
